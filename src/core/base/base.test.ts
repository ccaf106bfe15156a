import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areAlike } from './alike.ts';
import { BitReader } from './bit-reader.ts';
import { ByteQueue } from './byte-queue.ts';
import { ByteReader } from './byte-reader.ts';
import { bytesFromBase64, bytesFromHex, concatBytes, hexOf, ShortRead } from './bytes.ts';
import { sayBytes, sayCount, sayDays, sayFrom, sayMany, sayMs, sayRate, sayShare, sayStretch, sayUpTo } from './say.ts';
import { atLeast, atMost, worstVerdict } from './verdict.ts';

// H.264 §9.1 Table 9-2: bit strings and the codeNum they stand for, left to right.
test.each([
  { why: 'one bit is 0', bits: [0b1000_0000], ue: 0, se: 0 },
  { why: '010 is 1', bits: [0b0100_0000], ue: 1, se: 1 },
  { why: '011 is 2', bits: [0b0110_0000], ue: 2, se: -1 },
  { why: '00100 is 3', bits: [0b0010_0000], ue: 3, se: 2 },
  { why: '0001010 is 9', bits: [0b0001_0100], ue: 9, se: 5 },
])('Exp-Golomb: $why', ({ bits, ue, se }) => {
  expect(new BitReader(Uint8Array.from(bits)).ue('x')).toBe(ue);
  expect(new BitReader(Uint8Array.from(bits)).se('x')).toBe(se);
});

test('a short read names the field it wanted and where the data ended', () => {
  const reader = new ByteReader(Uint8Array.of(1, 2, 3));
  expect(reader.u16('first')).toBe(0x0102);
  expect(() => reader.u16('sequence number')).toThrow(new ShortRead('sequence number', 3));
  expect(() => new BitReader(Uint8Array.of(0)).ue('level_idc')).toThrow(/level_idc/);
});

test('a 32-bit field is read unsigned', () => {
  expect(new BitReader(Uint8Array.of(0xff, 0xff, 0xff, 0xff)).u(32, 'x')).toBe(4_294_967_295);
});

test('the queue gives back what was appended, however it was cut', () => {
  fc.assert(
    fc.property(fc.array(fc.uint8Array({ maxLength: 3000 })), fc.integer({ min: 1, max: 700 }), (chunks, step) => {
      const queue = new ByteQueue();
      const taken: Uint8Array[] = [];
      for (const chunk of chunks) {
        queue.append(chunk);
        if (queue.length > step) taken.push(queue.take(step));
      }
      taken.push(queue.take(queue.length));
      expect(hexOf(concatBytes(taken))).toBe(hexOf(concatBytes(chunks)));
      expect(queue.length).toBe(0);
    }),
  );
});

test('the queue finds a byte only within what is still queued', () => {
  const queue = new ByteQueue();
  queue.append(Uint8Array.of(10, 1, 2, 10, 3));
  queue.drop(1);
  expect(queue.indexOf(10)).toBe(2);
  expect(queue.indexOf(10, 3)).toBe(-1);
  expect(queue.at(4)).toBeUndefined();
});

test.each([
  { why: 'odd length', text: 'abc' },
  { why: 'a letter outside base16', text: '0g' },
])('hex refuses $why', ({ text }) => expect(bytesFromHex(text)).toEqual({ ok: false, error: 'not-hex' }));

test('Base64 takes missing padding, as cameras write it, and refuses other signs', () => {
  expect(bytesFromBase64('aM4PyA')).toEqual({ ok: true, value: Uint8Array.of(0x68, 0xce, 0x0f, 0xc8) });
  expect(bytesFromBase64('aM4*yA==')).toEqual({ ok: false, error: 'not-base64' });
});

test.each([
  { why: 'below a thousand', said: sayRate(843.2), words: '843 kbit/s' },
  { why: 'above it', said: sayRate(4608), words: '4.61 Mbit/s' },
  { why: 'a small share keeps two digits', said: sayShare(0.00714), words: '0.71 %' },
  { why: 'no share at all', said: sayShare(0), words: '0 %' },
  { why: 'a large share needs no digits', said: sayShare(0.9), words: '90 %' },
  { why: 'one of them', said: sayMany(1, 'card'), words: '1 card' },
  { why: 'none of them', said: sayMany(0, 'card'), words: '0 cards' },
  { why: 'a plural of its own', said: sayMany(2, 'entry', 'entries'), words: '2 entries' },
  { why: 'milliseconds', said: sayMs(3.44), words: '3.4 ms' },
  { why: 'seconds', said: sayMs(3470), words: '3.47 s' },
  { why: 'whole days', said: sayDays(14), words: '14 days' },
  { why: 'gigabytes without an empty digit', said: sayBytes(225e9), words: '225 GB' },
  { why: 'terabytes', said: sayBytes(1.296e12), words: '1.3 TB' },
  { why: 'a reach of 3.96 m does not hold at 4 m', said: sayUpTo(3.96), words: '3.9 m' },
  { why: 'a reach that is exact stays', said: sayUpTo(0.1 + 0.2 + 3.7), words: '4.0 m' },
  { why: 'what is lost is not said shorter', said: sayFrom(1.21), words: '1.3 m' },
  { why: 'thousands stand apart', said: sayCount(1902), words: '1\u00a0902' },
  { why: 'years of clock error', said: sayStretch(8 * 31_536_000), words: '8 years' },
])('numbers in words: $why', ({ said, words }) => expect(said).toBe(words));

test('what is said of a reach holds there, what is said of a loss covers it, and both are within a tenth', () =>
  fc.assert(
    fc.property(fc.double({ min: 0, max: 500, noNaN: true }), (metres) => {
      const [upTo, from] = [Number.parseFloat(sayUpTo(metres)), Number.parseFloat(sayFrom(metres))];
      expect(upTo).toBeLessThanOrEqual(metres + 1e-6);
      expect(from).toBeGreaterThanOrEqual(metres - 1e-6);
      expect(from - upTo).toBeLessThan(0.1001);
    }),
  ));

// DOMAIN: every threshold comparison has a slack of 1e-6 in favour of the better verdict.
test.each([
  { why: 'at the mark', verdict: atLeast(42.5, 42.5, 37), is: 'ok' },
  { why: 'a hair below the mark counts as on it', verdict: atLeast(42.499_999_9, 42.5, 37), is: 'ok' },
  { why: 'between the marks', verdict: atLeast(40, 42.5, 37), is: 'tight' },
  { why: 'below both', verdict: atLeast(36, 42.5, 37), is: 'will-not-work' },
  { why: 'a small value is good', verdict: atMost(0.001, 0.001, 0.01), is: 'ok' },
  { why: 'above both', verdict: atMost(0.02, 0.001, 0.01), is: 'will-not-work' },
  {
    why: 'what is not known outweighs what is tight',
    verdict: worstVerdict(['ok', 'unknown', 'tight']),
    is: 'unknown',
  },
  { why: 'what will not work outweighs all', verdict: worstVerdict(['unknown', 'will-not-work']), is: 'will-not-work' },
  { why: 'of nothing, nothing is known', verdict: worstVerdict([]), is: 'unknown' },
])('verdicts: $why', ({ verdict, is }) => expect(verdict).toBe(is));

test.each([
  { why: 'nothing came before', before: undefined, is: false },
  { why: 'the same things', before: [1, 'x'], is: true },
  { why: 'one less', before: [1], is: false },
  { why: 'another word', before: [1, 'y'], is: false },
])('lists are alike: $why', ({ before, is }) => expect(areAlike(before, [1, 'x'])).toBe(is));
