import type { Pin, Ruler } from '../../../core/places/network/ruler.ts';

/** Where ticks of a ruler stand on the page, px. It is folded into rows. */
export interface RulerLayout {
  readonly columns: number;
  readonly pitch: number;
  readonly rows: readonly { readonly first: number; readonly baseline: number; readonly top: number }[];
  readonly height: number;
  readonly placeOf: (address: number) => { readonly x: number; readonly y: number };
  /** The address under a point; `null` beside the ruler. */
  readonly addressAt: (x: number, y: number) => number | null;
  readonly labels: ReadonlyMap<Pin, { readonly x: number; readonly y: number; readonly text: string }>;
}

const WIDE = 720;
const LETTER = 6.9;
const LEVEL = 15;
const STEM = 12;
const BELOW = 38;
const EDGE = 14;
const LONGEST = 22;

/** Names of pins lie in levels above their row, so that none covers another. */
export function layOut(ruler: Ruler, width: number): RulerLayout {
  const columns = width >= WIDE ? 64 : 32;
  const pitch = (width - 2 * EDGE) / columns;
  const count = Math.ceil((ruler.last - ruler.first + 1) / columns);
  const xOf = (address: number): number => EDGE + (((address - ruler.first) % columns) + 0.5) * pitch;
  const labels = new Map<Pin, { x: number; y: number; text: string }>();
  const rows: { first: number; baseline: number; top: number }[] = [];
  let top = 0;
  for (let row = 0; row < count; row++) {
    const first = ruler.first + row * columns;
    const pins = ruler.pins
      .filter(({ address }) => address >= first && address < first + columns)
      .sort((a, b) => a.address - b.address);
    // From the right: a name may lie over pins that stand lower, and no stem goes through a name.
    const starts: number[] = [];
    const stems: { readonly x: number; readonly level: number }[] = [];
    const levels = pins.toReversed().map((pin) => {
      const text = pin.name.length > LONGEST ? `${pin.name.slice(0, LONGEST - 1)}…` : pin.name;
      const own = xOf(pin.address);
      const long = text.length * LETTER;
      // at the right edge the name stands before its pin
      const isBefore = own + 8 + long > width;
      const x = isBefore ? own - 8 - long : own + 8;
      const end = isBefore ? own + 6 : x + long + 6;
      const isFree = (level: number): boolean =>
        end < (starts[level] ?? Number.POSITIVE_INFINITY) && stems.every((stem) => stem.level <= level || stem.x > end);
      let level = 0;
      while (!isFree(level)) level += 1;
      starts[level] = Math.min(x, own) - 6;
      stems.push({ x: own, level });
      return { pin, x, level, text };
    });
    const above = levels.length === 0 ? 12 : STEM + 8 + starts.length * LEVEL;
    const baseline = top + above;
    for (const { pin, x, level, text } of levels) labels.set(pin, { x, y: baseline - STEM - level * LEVEL, text });
    rows.push({ first, baseline, top });
    top = baseline + BELOW;
  }
  const rowOf = (address: number): number => Math.floor((address - ruler.first) / columns);
  return {
    columns,
    pitch,
    rows,
    height: top,
    placeOf: (address) => ({ x: xOf(address), y: rows[rowOf(address)]?.baseline ?? 0 }),
    addressAt: (x, y) => {
      const row = rows.findLastIndex(({ top: from }) => y >= from);
      const column = Math.floor((x - EDGE) / pitch);
      const found = rows[row];
      if (!found || column < 0 || column >= columns) return null;
      const address = found.first + column;
      return address > ruler.last ? null : address;
    },
    labels,
  };
}
