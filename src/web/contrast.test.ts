import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';

// Every colour of words on every colour they stand on, on the light sheet and on the dark one. That a view uses these pairs and
// no others is looked at too, so that a new colour is given its place here.

const STYLES = readFileSync(join(__dirname, 'styles.css'), 'utf8');
const DARK_AT = STYLES.indexOf('@media (prefers-color-scheme: dark)');
const END_AT = STYLES.indexOf('@theme');
const coloursOf = (css: string): Readonly<Record<string, string>> =>
  Object.fromEntries([...css.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map(([, name, colour]) => [name, colour]));
const LIGHT = coloursOf(STYLES.slice(0, DARK_AT));
const DARK = { ...LIGHT, ...coloursOf(STYLES.slice(DARK_AT, END_AT)) };

const WORDS = ['ink', 'soft', 'verdigris', 'brass', 'brick', 'blue'] as const;
const SURFACES = ['paper', 'sheet', 'grid', 'verdigris-wash', 'brass-wash', 'brick-wash', 'blue-wash'] as const;
const PAIRS: readonly (readonly [words: string, on: string])[] = [
  ...WORDS.flatMap((words) => SURFACES.map((on) => [words, on] as const)),
  ['on-verdigris', 'verdigris'],
  ['sheet', 'ink'],
];
/** Lines, marks and what lies over the page: nothing is written on them. */
const WITHOUT_WORDS = ['hair', 'faint', 'veil', 'brass', 'brick'];
/** Between two stations, and hidden from who listens. */
const DECORATION = 'text-faint opacity-40';

/** WCAG 2.2, relative luminance. */
function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const part = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
/** WCAG 2.2, contrast ratio: from 1 to 21. */
function contrast(one: string, other: string): number {
  const [dark = 0, bright = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (bright + 0.05) / (dark + 0.05);
}

function* views(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* views(path);
    else if (/\.tsx?$/.test(entry.name) && !entry.name.includes('.test.')) yield readFileSync(path, 'utf8');
  }
}

test('black on white and a published pair come to what they are', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2); // just below 4.5, as is well known
});

test.each([
  ['light', LIGHT],
  ['dark', DARK],
] as const)('words can be read on the %s sheet: WCAG 2.2, 1.4.3', (_, colours) => {
  const weak = PAIRS.map(([words, on]) => ({ words, on, ratio: contrast(colours[words] ?? '', colours[on] ?? '') }));
  expect(weak.filter(({ ratio }) => !(ratio >= 4.5))).toEqual([]);
});

test('views write in no other colour, and on no other', () => {
  const names = Object.keys(LIGHT).join('|');
  const used = (kind: string): ReadonlySet<string> =>
    new Set(
      [...views(__dirname)].flatMap((text) =>
        [...text.replaceAll(DECORATION, '').matchAll(new RegExp(`\\b${kind}-(${names})(?![\\w-])`, 'g'))].map(
          ([, name]) => name ?? '',
        ),
      ),
    );
  const written = [...used('text')].filter((name) => !PAIRS.some(([words]) => words === name));
  expect(written).toEqual([]);
  const laid = [...used('bg')].filter((name) => !PAIRS.some(([, on]) => on === name) && !WITHOUT_WORDS.includes(name));
  expect(laid).toEqual([]);
  expect(used('text').size).toBeGreaterThanOrEqual(6);
});
