import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { camera, mill } from '../../../tests/support/sites.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import { secretsKnownOf } from '../document/site-secrets.ts';
import { loadGuessEstimator } from './guess-estimator.ts';
import {
  ALPHABET_NAMES,
  ALPHABETS,
  drawnBits,
  makeSecret,
  STRONG_BITS,
  sayStrength,
  signsFor,
  WEAK_BITS,
} from './secret-maker.ts';
import { estimatedBits, strengthOf, traitsOf } from './secret-traits.ts';

const NOBODY_ELSE = { factory: null, administrator: null, sharedWith: [], sameLetters: [] } as const;

/** Bytes that look random and are the same in each run. */
function bytesFrom(seed: number): (count: number) => Uint8Array {
  let state = seed >>> 0;
  return (count) =>
    Uint8Array.from({ length: count }, () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state >>> 24;
    });
}

test.each(ALPHABET_NAMES)('%s: each sign is as likely as any other, and none comes twice in it', (name) => {
  const { signs } = ALPHABETS[name];
  expect(new Set(signs).size).toBe(signs.length);
  const drawn = 60_000;
  const counts = new Map<string, number>();
  for (const sign of makeSecret(signs, drawn, bytesFrom(7))) counts.set(sign, (counts.get(sign) ?? 0) + 1);
  // χ² beyond this happens once in a thousand draws for 70 signs and fewer
  const wanted = drawn / signs.length;
  const chi = [...signs].reduce((sum, sign) => sum + ((counts.get(sign) ?? 0) - wanted) ** 2 / wanted, 0);
  expect(chi).toBeLessThan(signs.length + 4 * Math.sqrt(2 * signs.length));
});

test('bytes beyond the last whole multiple are passed over: they would favour the first signs', () => {
  const all = (count: number) => Uint8Array.from({ length: count }, (_, at) => (at < 2 ? 255 : 3));
  expect(makeSecret('abcde', 3, all)).toBe('ddd');
  expect(() => makeSecret('a', 3, all)).toThrow(RangeError);
});

test('signs that somebody cannot take are in none that is made', () => {
  fc.assert(
    fc.property(fc.constantFrom(...ALPHABET_NAMES), fc.integer(), (name, seed) => {
      const signs = signsFor(name, 'aZ7-~');
      const secret = makeSecret(signs, 24, bytesFrom(seed));
      expect(secret).toHaveLength(24);
      expect(secret).not.toMatch(/[aZ7\-~]/);
      expect(
        traitsOf(secret, { factory: null, administrator: null, sharedWith: [], sameLetters: [] }).encodedSigns,
      ).toEqual([]);
    }),
  );
});

test.each([
  { bits: drawnBits(54, 16), says: 'longer than anybody can guess' },
  { bits: 40, says: 'guessed within an hour' },
  { bits: 50, says: /hours of guessing/ },
  { bits: 57, says: /days of guessing/ },
  { bits: 66, says: /years of guessing/ },
])('$bits bits', ({ bits, says }) => expect(sayStrength(bits)).toMatch(says));

test.each([
  { secret: 'aaaaaaaa', bits: 4.7 },
  { secret: '12345678', bits: 6.6 },
  { secret: 'abcdWXYZ', bits: 22.8 },
  { secret: '', bits: 0 },
])('“$secret” has at most $bits bits', ({ secret, bits }) => expect(estimatedBits(secret)).toBeCloseTo(bits, 1));

const with_ = (name: string, more: Partial<Camera> = {}): Camera => ({
  ...camera(name),
  name,
  account: { user: 'view', secretRef: `secret-${name}` },
  ...more,
});

test('secrets of a site are held against each other where they are, and what comes of it tells none of them', () => {
  const secrets: Record<string, string> = {
    'secret-Gate': 'Kn0t&Rope42',
    'secret-Yard': 'Kn0t&Rope42',
    'secret-Barn': 'kn0t&rope42',
    'admin-Barn': 'kn0t&rope42',
  };
  const site = {
    ...mill(),
    cameras: [
      with_('Gate'),
      with_('Yard'),
      with_('Barn', { adminAccount: { user: 'setter', secretRef: 'admin-Barn' } }),
      with_('Shed'),
    ],
  };
  const known = secretsKnownOf(site, (ref) => secrets[ref] ?? null);
  expect(Object.keys(known).sort()).toEqual(['admin-Barn', 'secret-Barn', 'secret-Gate', 'secret-Yard']);
  expect(known['secret-Gate']).toMatchObject({ sharedWith: ['Yard'], isCaseApart: true, isAdministrators: false });
  expect(known['secret-Barn']).toMatchObject({ sharedWith: [], isAdministrators: true, isCaseApart: true });
  const told = JSON.stringify(known);
  for (const secret of Object.values(secrets)) expect(told.toLowerCase()).not.toContain(secret.toLowerCase());
});

test.each([
  'Summer2024!',
  'Passw0rd!2023',
  'qwertyuiop123',
  'Sluicerail2024',
  'P@ssword12345',
  'Elizabeth1987',
  '1qaz2wsx3edc',
])(
  '“%s” looks strong by its characters, and is guessed by whoever tries words, names, years and keys',
  async (secret) => {
    const estimate = await loadGuessEstimator();
    const traits = traitsOf(secret, {
      ...NOBODY_ELSE,
      guessBits: estimate(secret, ['Sluice rail', 'sluicerail', 'view']),
    });
    expect(traits.bits).toBeGreaterThan(40);
    expect(strengthOf(traits).bits).toBeLessThan(WEAK_BITS);
    expect(sayStrength(strengthOf(traits).bits)).toBe('guessed within an hour');
  },
);

test('what is made here is strong by both, and what nobody looked at is not called strong', async () => {
  const estimate = await loadGuessEstimator();
  fc.assert(
    fc.property(fc.constantFrom(...ALPHABET_NAMES), fc.integer(), (name, seed) => {
      const secret = makeSecret(ALPHABETS[name].signs, 16, bytesFrom(seed));
      const traits = traitsOf(secret, { ...NOBODY_ELSE, guessBits: estimate(secret, []) });
      expect(strengthOf(traits).isProven).toBe(true);
      expect(strengthOf(traits).bits).toBeGreaterThan(WEAK_BITS);
      expect(strengthOf(traitsOf(secret, NOBODY_ELSE)).isProven).toBe(false);
    }),
    runs(60),
  );
});

test('one scale: below one mark it is an hour, from the other on it is years', () => {
  expect(sayStrength(WEAK_BITS - 0.01)).toBe('guessed within an hour');
  expect(sayStrength(WEAK_BITS + 0.01)).toMatch(/about 1 hours of guessing/);
  expect(sayStrength(STRONG_BITS + 0.01)).toBe('about 3\u00a0years of guessing'.replace('\u00a0', ' '));
});

test.each(['password'.repeat(20), 'x'.repeat(1024), '12345678'.repeat(12), '__proto__', 'constructor'])(
  'the same again makes none strong, and no word of the language is another word: %s',
  async (secret) => {
    const estimate = await loadGuessEstimator();
    const guessBits = estimate(secret, ['constructor', '__proto__']);
    expect(strengthOf(traitsOf(secret, { ...NOBODY_ELSE, guessBits })).bits).toBeLessThan(WEAK_BITS);
  },
);
