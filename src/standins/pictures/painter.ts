import sharp from 'sharp';
import { GLYPH_HEIGHT, GLYPH_WIDTH, GLYPHS } from './glyphs.ts';
import { type MovingPart, SCENE_HEIGHT, SCENE_WIDTH, SCENES, type SceneName } from './scenes.ts';

export interface PictureFormat {
  readonly scene: SceneName;
  readonly width: number;
  readonly height: number;
  readonly label: string;
}

/** An I420 picture: luma, then two quarter-size chroma planes. */
interface Planes {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
  /** One byte a pixel; 255 covers. */
  readonly alpha: Uint8Array;
}

const svg = (width: number, height: number, body: string): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">${body}</svg>`);

/** Limited-range BT.601, what a decoder assumes of a small H.264 picture without colour description. */
async function render(source: Buffer, width: number, height: number): Promise<Planes> {
  const rgba = await sharp(source, { density: 144 })
    .resize(width, height, { fit: 'fill' })
    .ensureAlpha()
    .raw()
    .toBuffer();
  const bytes = new Uint8Array((width * height * 3) / 2);
  const alpha = new Uint8Array(width * height);
  const [uAt, vAt] = [width * height, (width * height * 5) / 4];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const [r = 0, g = 0, b = 0, a = 0] = rgba.subarray(4 * at, 4 * at + 4);
      bytes[at] = 16 + 0.257 * r + 0.504 * g + 0.098 * b;
      alpha[at] = a;
      if (x % 2 === 0 && y % 2 === 0) {
        const chroma = (y / 2) * (width / 2) + x / 2;
        bytes[uAt + chroma] = 128 - 0.148 * r - 0.291 * g + 0.439 * b;
        bytes[vAt + chroma] = 128 + 0.439 * r - 0.368 * g - 0.071 * b;
      }
    }
  return { width, height, bytes, alpha };
}

const even = (value: number): number => 2 * Math.round(value / 2);
const NOISE_PERIOD = 8191; // prime, so that the grain does not line up with the rows

interface PlacedPart {
  readonly part: MovingPart;
  readonly x: number;
  readonly y: number;
  readonly phases: readonly Planes[];
}

/** Draws one stream's pictures: the scene, what moves in it, sensor noise, and a running clock burnt in. */
export class Painter {
  readonly #frame: Uint8Array;
  readonly #noise: Int8Array;

  private constructor(
    private readonly format: PictureFormat,
    private readonly background: Planes,
    private readonly parts: readonly PlacedPart[],
    noise: number,
  ) {
    this.#frame = new Uint8Array(background.bytes.length);
    // A small generator of its own: the grain must not depend on anything, so that a picture can be drawn again.
    let state = 1;
    this.#noise = Int8Array.from({ length: NOISE_PERIOD }, () => {
      state = (state * 48_271) % 0x7fffffff;
      return (state % (2 * noise + 1)) - noise;
    });
  }

  static async create(format: PictureFormat): Promise<Painter> {
    const scene = SCENES[format.scene];
    const [scaleX, scaleY] = [format.width / SCENE_WIDTH, format.height / SCENE_HEIGHT];
    const background = await render(svg(SCENE_WIDTH, SCENE_HEIGHT, scene.background), format.width, format.height);
    const parts: PlacedPart[] = [];
    for (const part of scene.parts) {
      const phases: Planes[] = [];
      for (let phase = 0; phase < part.phases; phase++)
        phases.push(
          await render(
            svg(part.width, part.height, part.draw(phase)),
            even(part.width * scaleX),
            even(part.height * scaleY),
          ),
        );
      parts.push({ part, x: even(part.x * scaleX), y: even(part.y * scaleY), phases });
    }
    return new Painter(format, background, parts, scene.noise);
  }

  /** The picture at a time, as I420. The same buffer each time: encode it before asking for the next. */
  paint(unixMs: number): Uint8Array {
    this.#frame.set(this.background.bytes);
    for (const placed of this.parts) {
      const picture = placed.phases[placed.part.phaseAt(unixMs)];
      if (picture) this.#overlay(picture, placed.x, placed.y);
    }
    this.#grain(unixMs);
    this.#clock(unixMs);
    return this.#frame;
  }

  #overlay(picture: Planes, left: number, top: number): void {
    const { width, height } = this.format;
    const luma = width * height;
    for (let y = 0; y < picture.height && top + y < height; y++)
      for (let x = 0; x < picture.width && left + x < width; x++) {
        const from = y * picture.width + x;
        if ((picture.alpha[from] ?? 0) < 128) continue;
        this.#frame[(top + y) * width + left + x] = picture.bytes[from] ?? 0;
        if (x % 2 !== 0 || y % 2 !== 0) continue;
        const chromaFrom = (y / 2) * (picture.width / 2) + x / 2;
        const chromaTo = ((top + y) / 2) * (width / 2) + (left + x) / 2;
        for (const plane of [0, 1]) {
          const fromAt = picture.width * picture.height * (1 + plane / 4) + chromaFrom;
          this.#frame[luma * (1 + plane / 4) + chromaTo] = picture.bytes[fromAt] ?? 128;
        }
      }
  }

  #grain(unixMs: number): void {
    const pixels = this.format.width * this.format.height;
    let at = Math.floor(unixMs * 7) % NOISE_PERIOD;
    for (let pixel = 0; pixel < pixels; pixel += 3) {
      this.#frame[pixel] = (this.#frame[pixel] ?? 0) + (this.#noise[at] ?? 0);
      at = at + 1 === NOISE_PERIOD ? 0 : at + 1;
    }
  }

  /** “BOOT ROOM 2031-03-14 08:16:42.387” in UTC, white on a dark bar along the foot. */
  #clock(unixMs: number): void {
    const { width, height, label } = this.format;
    const dot = Math.max(1, Math.floor(width / 320));
    const bar = (GLYPH_HEIGHT + 4) * dot;
    this.#frame.fill(32, width * (height - bar), width * height);
    const text = `${label.toUpperCase()} ${new Date(unixMs).toISOString().replace('T', ' ').replace('Z', '')}`;
    for (const [index, char] of [...text].entries()) {
      const glyph = GLYPHS.get(char);
      const left = (4 + index * (GLYPH_WIDTH + 1)) * dot;
      if (!glyph || left + GLYPH_WIDTH * dot > width) continue;
      for (const [cell, isInk] of glyph.entries()) {
        if (!isInk) continue;
        const x = left + (cell % GLYPH_WIDTH) * dot;
        const y = height - bar + (2 + Math.floor(cell / GLYPH_WIDTH)) * dot;
        for (let row = 0; row < dot; row++) this.#frame.fill(225, (y + row) * width + x, (y + row) * width + x + dot);
      }
    }
  }
}
