import sharp from 'sharp';
import { type Around, aroundSvg, type Seen, sampleColumns, sampleRows, straightOn } from './around.ts';
import { GLYPH_HEIGHT, GLYPH_WIDTH, GLYPHS } from './glyphs.ts';
import { type MovingPart, SCENE_HEIGHT, SCENE_WIDTH, SCENES, type SceneName } from './scenes.ts';

export interface PictureFormat {
  readonly scene: SceneName;
  readonly width: number;
  readonly height: number;
  readonly label: string;
  /** How far round its head turns, where it has one. */
  readonly around?: Around;
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
async function render(source: Buffer, width: number, height: number, density = 144): Promise<Planes> {
  const rgba = await sharp(source, { density, limitInputPixels: false })
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
      // by its places: a view of each pixel of a whole panorama took most of the time that a demo needs to begin
      const [r, g, b] = [rgba[4 * at] ?? 0, rgba[4 * at + 1] ?? 0, rgba[4 * at + 2] ?? 0];
      bytes[at] = 16 + 0.257 * r + 0.504 * g + 0.098 * b;
      alpha[at] = rgba[4 * at + 3] ?? 0;
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
  /** Of the scene's left edge, and pixels for one of its units. */
  readonly left: number;
  readonly scale: number;
  readonly y: number;
  readonly phases: readonly Planes[];
}

type Rectangle = Pick<Planes, 'width' | 'height'> & { readonly left: number; readonly top: number };

async function placeParts(
  parts: readonly MovingPart[],
  { left, top, scaleX, scaleY }: { left: number; top: number; scaleX: number; scaleY: number },
): Promise<readonly PlacedPart[]> {
  const placed: PlacedPart[] = [];
  for (const part of parts) {
    const phases: Planes[] = [];
    for (let phase = 0; phase < part.phases; phase++)
      phases.push(
        await render(
          svg(part.width, part.height, part.draw(phase)),
          even(part.width * scaleX),
          even(part.height * scaleY),
        ),
      );
    placed.push({ part, left, scale: scaleX, y: even(top + part.y * scaleY), phases });
  }
  return placed;
}

/** All that a head can look at: drawn once, and what moves in it stamped into it. */
interface World {
  readonly around: Around;
  readonly still: Planes;
  readonly live: Planes;
  readonly parts: readonly PlacedPart[];
  stamped: readonly Rectangle[];
}

async function createWorld(format: PictureFormat, around: Around): Promise<World> {
  const scene = SCENES[format.scene];
  const { width, height, body, left, top, scale } = aroundSvg(around, scene.background);
  const still = await render(svg(width, height, body), width, height, 72);
  const parts = await placeParts(scene.parts, { left, top, scaleX: scale, scaleY: scale });
  return { around, still, live: { ...still, bytes: new Uint8Array(still.bytes) }, parts, stamped: [] };
}

/** Draws one stream's pictures: the scene, what moves in it, sensor noise, and a running clock burnt in. */
export class Painter {
  readonly #frame: Uint8Array;
  readonly #noise: Int8Array;
  #world: World | null = null;

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
    const parts = await placeParts(scene.parts, { left: 0, top: 0, scaleX, scaleY });
    return new Painter(format, background, parts, scene.noise);
  }

  /** Draws what lies around, so that a view of it need not wait. */
  async lookAround(): Promise<void> {
    const { around } = this.format;
    if (around) this.#world ??= await createWorld(this.format, around);
  }

  /** The picture at a time, as I420. The same buffer each time: encode it before asking for the next. */
  paint(unixMs: number, seen: Seen | null = null): Uint8Array {
    if (seen && this.#world && !straightOn(seen)) this.#look(this.#world, unixMs, seen);
    else {
      this.#frame.set(this.background.bytes);
      stamp({ ...this.background, bytes: this.#frame }, this.parts, unixMs);
    }
    this.#grain(unixMs);
    this.#clock(unixMs);
    return this.#frame;
  }

  /** What a head sees of its world: a pinhole, at an angle and a zoom. */
  #look(world: World, unixMs: number, seen: Seen): void {
    for (const rectangle of world.stamped) restore(world.live, world.still, rectangle);
    world.stamped = stamp(world.live, world.parts, unixMs);
    const { width, height } = this.format;
    const columns = sampleColumns(world.around, seen, width, world.live.width);
    const rows = sampleRows(world.around, seen, { width, height }, world.live.height);
    const from = world.live;
    const luma = width * height;
    for (let y = 0; y < height; y++) {
      const line = (rows[y] ?? 0) * from.width;
      for (let x = 0; x < width; x++) this.#frame[y * width + x] = from.bytes[line + (columns[x] ?? 0)] ?? 0;
    }
    const fromLuma = from.width * from.height;
    for (const plane of [0, 1])
      for (let y = 0; y < height / 2; y++) {
        const line = fromLuma * (1 + plane / 4) + ((rows[2 * y] ?? 0) >> 1) * (from.width / 2);
        const to = luma * (1 + plane / 4) + y * (width / 2);
        for (let x = 0; x < width / 2; x++)
          this.#frame[to + x] = from.bytes[line + ((columns[2 * x] ?? 0) >> 1)] ?? 128;
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

/** Draws what moves into a picture; where, so that it can be taken away again. */
function stamp(into: Planes, parts: readonly PlacedPart[], unixMs: number): readonly Rectangle[] {
  return parts.flatMap(({ part, left, scale, y, phases }): readonly Rectangle[] => {
    const picture = phases[part.phaseAt(unixMs)];
    const x = part.xAt ? part.xAt(unixMs) : part.x;
    if (!picture || x === null) return [];
    const at = { left: even(left + x * scale), top: y, width: picture.width, height: picture.height };
    overlay(into, picture, at.left, at.top);
    return [at];
  });
}

function overlay({ bytes, width, height }: Planes, picture: Planes, left: number, top: number): void {
  const luma = width * height;
  for (let y = Math.max(0, -top); y < picture.height && top + y < height; y++)
    for (let x = Math.max(0, -left); x < picture.width && left + x < width; x++) {
      const from = y * picture.width + x;
      if ((picture.alpha[from] ?? 0) < 128) continue;
      bytes[(top + y) * width + left + x] = picture.bytes[from] ?? 0;
      if (x % 2 !== 0 || y % 2 !== 0) continue;
      const chromaFrom = (y / 2) * (picture.width / 2) + x / 2;
      const chromaTo = ((top + y) / 2) * (width / 2) + (left + x) / 2;
      for (const plane of [0, 1]) {
        const fromAt = picture.width * picture.height * (1 + plane / 4) + chromaFrom;
        bytes[luma * (1 + plane / 4) + chromaTo] = picture.bytes[fromAt] ?? 128;
      }
    }
}

/** Puts a piece of a picture back as it was; all edges are even. */
function restore(into: Planes, from: Planes, { left, top, width, height }: Rectangle): void {
  const luma = into.width * into.height;
  const x0 = Math.max(0, left);
  const x1 = Math.min(into.width, left + width);
  for (let y = Math.max(0, top); y < Math.min(into.height, top + height); y++) {
    const at = y * into.width;
    into.bytes.set(from.bytes.subarray(at + x0, at + x1), at + x0);
    if (y % 2 !== 0) continue;
    for (const plane of [0, 1]) {
      const line = luma * (1 + plane / 4) + (y / 2) * (into.width / 2);
      into.bytes.set(from.bytes.subarray(line + x0 / 2, line + x1 / 2), line + x0 / 2);
    }
  }
}
