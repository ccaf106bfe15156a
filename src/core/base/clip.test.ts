import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { clipAtBlank, clipText } from './clip.ts';
import { hasControl, oneLine, visibleJson, visibleText } from './control-signs.ts';
import { isMoment } from './moment.ts';

test('a clipped text is never longer than its limit, and cuts no sign in half', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 2, max: 40 }), (text, max) => {
      const clipped = clipText(text, max);
      expect(clipped.length).toBeLessThanOrEqual(max);
      expect(clipped).not.toMatch(/\p{Cs}/u);
      expect(text.startsWith(clipped.replace(/…$/u, ''))).toBe(true);
      if (text.length <= max) expect(clipped).toBe(text);
    }),
  ));

test.each([
  { why: 'short', text: 'one two', max: 20, kept: 'one two', leftOut: 0 },
  { why: 'at a blank', text: 'one two three', max: 9, kept: 'one two', leftOut: 6 },
  { why: 'a word that is longer than all is not begun', text: 'x'.repeat(3000), max: 2000, kept: '', leftOut: 3000 },
])('clips at a blank: $why', ({ text, max, kept, leftOut }) =>
  expect(clipAtBlank(text, max)).toEqual({ kept, leftOut }),
);

// ESC [ 2 J clears a terminal, U+202E turns what follows around, U+009B is CSI in one sign.
const STEERING = 'Weir\u001b[2J\u202egate\u009b1m\u007f\u2028';
test('signs that steer a terminal are made visible, and JSON stays the same value', () => {
  expect(visibleText(`${STEERING}\n`)).toBe('Weir\\u001b[2J\\u202egate\\u009b1m\\u007f\\u2028\n');
  const value = { [STEERING]: [STEERING, 'ü ✓ 𝄞 \u{e0041}'] };
  expect(visibleJson(value)).not.toMatch(/[\p{Cc}\p{Cf}\u2028\u2029]/u);
  expect(JSON.parse(visibleJson(value))).toEqual(value);
  expect(oneLine(STEERING)).toBe('Weir [2J gate 1m  ');
  expect([hasControl('Weir'), hasControl('a\rb'), hasControl('a\u0085b')]).toEqual([false, true, true]);
});

test.each([
  { text: '2026-11-26T09:00:00.000Z', is: true },
  { text: '2024-02-29T23:59:59Z', is: true },
  { text: '2026-02-31T09:00:00.000Z', is: false },
  { text: '2026-13-01T09:00:00.000Z', is: false },
  { text: '2026-11-26T25:00:00.000Z', is: false },
  { text: '2026-11-26T09:00:00.000+01:00', is: false },
  { text: 'yesterday', is: false },
])('$text is a moment: $is', ({ text, is }) => expect(isMoment(text)).toBe(is));
