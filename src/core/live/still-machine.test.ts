import { expect, test } from '@jest/globals';
import { NO_GATE, type ProofGate } from '../auth/proof-gate.ts';
import { bytesOf } from '../base/bytes.ts';
import type { HttpAnswer } from '../http/http-message.ts';
import { type StillEffect, StillMachine, type StillOptions } from './still-machine.ts';

const JPEG = Uint8Array.of(0xff, 0xd8, 1, 2);
const answer = (status: number, body: Uint8Array = new Uint8Array(), challenge = ''): HttpAnswer => ({
  status,
  headers: challenge === '' ? [] : [{ name: 'WWW-Authenticate', value: challenge }],
  body,
  staysOpen: true,
});

/** Plays a machine against answers, one after the other; gives what it asked and what came of it. */
function played(answers: readonly HttpAnswer[], more: Partial<StillOptions> = {}) {
  const machine = new StillMachine({
    target: { host: '10.77.4.21', port: 80, isTls: false },
    path: '/still',
    credentials: { user: 'viewer', password: 'weir' },
    gate: NO_GATE,
    knownFingerprint: null,
    userAgent: 'test',
    cnonce: () => '0a1b2c3d',
    ...more,
  });
  const all: StillEffect[] = [...machine.begin()];
  for (const [at, one] of answers.entries())
    all.push(...machine.handle({ kind: 'responded', exchange: at + 1, answer: one, extra: 0, atMs: at }));
  const asked = all.flatMap((effect) => (effect.kind === 'ask' ? [effect.request] : []));
  return { asked, said: all.find(({ kind }) => kind === 'still' || kind === 'none'), ends: all.at(-1)?.kind };
}
const DIGEST = 'Digest realm="r", nonce="n1", algorithm=MD5, qop="auth"';
const HELD: ProofGate = { ...NO_GATE, begin: () => ({ why: 'refused', refused: 2 }) };

test('a picture that is given to anybody is taken without a login', () => {
  const { asked, said, ends } = played([answer(200, JPEG)]);
  expect(asked.map(({ headers }) => headers.map(({ name }) => name))).toEqual([['User-Agent']]);
  expect([said, ends]).toEqual([{ kind: 'still', jpeg: '/9gBAg==' }, 'done']);
});

test('one challenge is answered, and no second one', () => {
  const once = played([answer(401, undefined, DIGEST), answer(200, JPEG)]);
  expect(once.asked[1]?.headers.find(({ name }) => name === 'Authorization')?.value).toMatch(
    /^Digest username="viewer"/,
  );
  expect(once.said?.kind).toBe('still');
  const twice = played([answer(401, undefined, DIGEST), answer(401, undefined, DIGEST), answer(200, JPEG)]);
  expect([twice.asked.length, twice.said]).toEqual([
    2,
    { kind: 'none', note: 'Asked for a snapshot, it answered 401.' },
  ]);
});

test.each([
  { why: 'another status', given: answer(503), says: /answered 503/ },
  { why: 'no picture', given: answer(200, bytesOf('<html>')), says: /not a JPEG/ },
  { why: 'a body that ends at once', given: answer(200, JPEG.slice(0, 1)), says: /not a JPEG/ },
])('$why is said, and the account is not told', ({ given, says }) => {
  const { asked, said } = played([given]);
  expect(asked).toHaveLength(1);
  expect(said).toMatchObject({ kind: 'none', note: expect.stringMatching(says) });
});

test.each([
  { why: 'after its challenge', answers: [answer(401, undefined, DIGEST)], path: '/still', asks: 1 },
  { why: 'where it stands in the path', answers: [], path: '/still?p={password}', asks: 0 },
])('an account that is held is not told: $why', ({ answers, path, asks }) => {
  const { asked, said, ends } = played(answers, { path, gate: HELD });
  expect(asked).toHaveLength(asks);
  expect(JSON.stringify(asked)).not.toContain('weir');
  expect([said, ends]).toMatchObject([{ kind: 'none', isHeld: true }, 'done']);
});
