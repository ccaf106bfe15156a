import { GLYPH_HEIGHT, GLYPH_WIDTH, GLYPHS } from './glyphs.ts';

/** How far a head looks round, and how wide it sees at its wide end. */
export interface Around {
  readonly panMin: number;
  readonly panMax: number;
  readonly tiltMin: number;
  readonly tiltMax: number;
  readonly hfovDeg: number;
}

/** Where it looks. */
export interface Seen {
  readonly panDeg: number;
  readonly tiltDeg: number;
  readonly zoom: number;
}

/** Pixels of the drawn world for a degree: as fine as a picture of 480 across. */
const PX_PER_DEG = 8;
const DEG = 180 / Math.PI;
/** The scene as it was drawn, 960 × 540. */
const SCENE = { width: 960, height: 540 };

export const straightOn = ({ panDeg, tiltDeg, zoom }: Seen): boolean =>
  Math.abs(panDeg) < 0.02 && Math.abs(tiltDeg) < 0.02 && zoom < 1.005;

const even = (value: number): number => 2 * Math.round(value / 2);

/** Half of what is seen at the wide end, beyond the ends of the head. */
const marginsOf = ({ hfovDeg }: Around) => ({ x: hfovDeg / 2, y: (hfovDeg * 9) / 32 });

/** Where an angle lies in the drawn world, px. */
export const placeOf = (around: Around, panDeg: number, tiltDeg: number) => {
  const margin = marginsOf(around);
  return {
    x: (panDeg - around.panMin + margin.x) * PX_PER_DEG,
    y: (around.tiltMax + margin.y - tiltDeg) * PX_PER_DEG,
  };
};

/** A label of dots, as the burnt-in clock has them. */
function label(text: string, centreX: number, top: number, dot: number): string {
  const width = text.length * (GLYPH_WIDTH + 1) * dot;
  return [...text]
    .flatMap((char, index) =>
      [...(GLYPHS.get(char) ?? [])].map((isInk, cell) => {
        if (!isInk) return '';
        const x = centreX - width / 2 + (index * (GLYPH_WIDTH + 1) + (cell % GLYPH_WIDTH)) * dot;
        const y = top + Math.floor(cell / GLYPH_WIDTH) * dot;
        return `<rect x="${x}" y="${y}" width="${dot}" height="${dot}" fill="#f4efe2"/>`;
      }),
    )
    .join('');
}

/** A post at every ten degrees, with its bearing on a board: whoever turns the head can read how far it went. */
function post(around: Around, bearing: number): string {
  const foot = placeOf(around, bearing, -16);
  const isTall = bearing % 30 === 0;
  const height = (isTall ? 11 : 7) * PX_PER_DEG;
  const dot = 2;
  const board = GLYPH_HEIGHT * dot + 8;
  return (
    `<rect x="${foot.x - 3}" y="${foot.y - height}" width="6" height="${height}" fill="#51463a"/>` +
    `<rect x="${foot.x - 26}" y="${foot.y - height - board}" width="52" height="${board}" fill="${isTall ? '#7a4a35' : '#3f5a52'}"/>` +
    label(String(bearing), foot.x, foot.y - height - board + 4, dot)
  );
}

const tree = (around: Around, at: number): string => {
  const foot = placeOf(around, at, -7);
  const size = (3 + ((at * 7) % 5)) * PX_PER_DEG;
  return `<rect x="${foot.x - 4}" y="${foot.y - size * 0.5}" width="8" height="${size * 0.5}" fill="#5c4c3a"/><circle cx="${foot.x}" cy="${foot.y - size * 0.8}" r="${size * 0.5}" fill="#6f8163"/>`;
};

/** The world as SVG: the scene straight ahead, and land, trees and posts all round. */
export function aroundSvg(around: Around, scene: string) {
  const margin = marginsOf(around);
  const width = even((around.panMax - around.panMin + 2 * margin.x) * PX_PER_DEG);
  const height = even((around.tiltMax - around.tiltMin + 2 * margin.y) * PX_PER_DEG);
  const scale = (around.hfovDeg * PX_PER_DEG) / SCENE.width;
  const middle = placeOf(around, 0, 0);
  const left = middle.x - (SCENE.width * scale) / 2;
  const top = middle.y - (SCENE.height * scale) / 2;
  const yOf = (unit: number): number => top + unit * scale;
  const bearings = Array.from({ length: 36 }, (_, at) => at * 10 - 170).filter(
    (bearing) => bearing >= around.panMin - margin.x && bearing <= around.panMax + margin.x,
  );
  // not in front of the scene: that is drawn as it is seen straight on
  const aside = bearings.filter((bearing) => Math.abs(bearing) > around.hfovDeg / 2);
  const body =
    `<rect width="${width}" height="${height}" fill="#d4dcd8"/>` +
    `<rect y="${yOf(215)}" width="${width}" height="${height}" fill="#8d9c80"/>` +
    bearings.map((bearing) => tree(around, bearing + 5)).join('') +
    `<rect y="${yOf(330)}" width="${width}" height="${height}" fill="#5f7f86"/>` +
    `<rect y="${yOf(560)}" width="${width}" height="${height}" fill="#7d7a5e"/>` +
    `<g transform="translate(${left} ${top}) scale(${scale})">${scene}</g>` +
    aside.map((bearing) => post(around, bearing)).join('');
  return { width, height, body, left, top, scale };
}

const clampTo = (value: number, most: number): number => Math.min(most - 1, Math.max(0, Math.floor(value)));

/** Focal length in pixels of the picture. */
const focal = ({ hfovDeg }: Around, { zoom }: Seen, width: number): number =>
  (zoom * width) / 2 / Math.tan(hfovDeg / 2 / DEG);

/** For each column of the picture the column of the world that it shows. */
export function sampleColumns(around: Around, seen: Seen, width: number, worldWidth: number): Int32Array {
  const f = focal(around, seen, width);
  return Int32Array.from({ length: width }, (_, x) => {
    const pan = seen.panDeg + Math.atan((x + 0.5 - width / 2) / f) * DEG;
    return clampTo(placeOf(around, pan, 0).x, worldWidth);
  });
}

/** The same of its rows; good for small tilt, as the world is drawn evenly. */
export function sampleRows(
  around: Around,
  seen: Seen,
  { width, height }: { readonly width: number; readonly height: number },
  worldHeight: number,
): Int32Array {
  const f = focal(around, seen, width);
  return Int32Array.from({ length: height }, (_, y) => {
    const tilt = seen.tiltDeg - Math.atan((y + 0.5 - height / 2) / f) * DEG;
    return clampTo(placeOf(around, 0, tilt).y, worldHeight);
  });
}
