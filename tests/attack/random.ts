/** Random choices that a seed repeats: a find is looked at again by its seed. */
export interface Random {
  readonly seed: number;
  /** A whole number from 0, below `most`. */
  below(most: number): number;
  pick<T>(items: readonly T[]): T;
  /** True once in `n` times. */
  once(n: number): boolean;
}

/** Source: mulberry32, a 32-bit generator in the public domain. */
export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  const below = (most: number): number => Math.floor(next() * most);
  return {
    seed,
    below,
    pick: <T>(items: readonly T[]): T => {
      const item = items[below(items.length)];
      if (item === undefined) throw new RangeError('pick: nothing to pick from');
      return item;
    },
    once: (n) => below(n) === 0,
  };
}

const NASTY: readonly string[] = [
  '\r\n',
  '\0',
  '\u001b[2J',
  '%0d%0a',
  '//',
  '[',
  '"',
  '{password}',
  '\ufeff',
  '-1',
  '0',
  '65536',
  '1e300',
  '99999999999999999999',
  'a.'.repeat(400),
  ' '.repeat(3000),
  '='.repeat(3000),
  '__proto__',
  '../../..',
  '\ud800',
];

/** Bytes changed in a few places: flipped, cut, doubled, or with something nasty between them. */
export function mutated(text: string, random: Random): Buffer {
  let bytes = Buffer.from(text, 'utf8');
  for (let changes = random.below(4); changes >= 0; changes--) {
    const at = random.below(bytes.length + 1);
    const to = Math.min(bytes.length, at + random.below(40));
    const kind = random.below(5);
    if (kind === 0 && at < bytes.length) bytes.writeUInt8(random.below(256), at);
    else if (kind === 1) bytes = Buffer.concat([bytes.subarray(0, at), bytes.subarray(to)]);
    else if (kind === 2) bytes = Buffer.concat([bytes.subarray(0, to), bytes.subarray(at)]);
    else bytes = Buffer.concat([bytes.subarray(0, at), Buffer.from(random.pick(NASTY)), bytes.subarray(at)]);
  }
  return bytes;
}
