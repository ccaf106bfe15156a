import { expect, test } from '@jest/globals';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import { findingsOfSessions } from '../../src/core/sessions/sessions-rules.ts';
import type { SessionsReport } from '../../src/core/sessions/sessions-types.ts';
import { runSessions } from '../../src/server/works/run-sessions.ts';
import type { Personality } from '../../src/standins/personality.ts';
import { plainWorld } from '../support/onvif-doors.ts';
import { ACCOUNT, startTestCamera, type TestCamera } from '../support/test-camera.ts';

async function count(camera: TestCamera, { password = ACCOUNT.password, most = 5 } = {}, signal?: AbortSignal) {
  const parsed = parseStreamUrl(camera.url);
  if (!parsed.ok) throw new Error(camera.url);
  const credentials = { user: ACCOUNT.user, password };
  const run = { url: parsed.value.url, credentials, transport: 'auto', most, timeoutMs: 1500 } as const;
  return runSessions(run, plainWorld, signal ?? new AbortController().signal);
}

interface Case {
  readonly why: string;
  readonly camera: Partial<Personality>;
  readonly most?: number;
  readonly is: object;
  readonly rules: readonly string[];
}

test.each<Case>([
  {
    why: 'two and a refusal',
    camera: { maxSessions: 2 },
    is: {
      limit: 2,
      opened: 2,
      closed: 2,
      refusedWith: { cause: 'too-many-sessions', status: 453 },
      effectOnFirst: 'none',
    },
    rules: [],
  },
  {
    why: 'one, over UDP',
    camera: { maxSessions: 1, transports: ['udp'] },
    is: { limit: 1, opened: 1, effectOnFirst: 'none' },
    rules: ['sessions.one'],
  },
  {
    why: 'none is refused up to where it stops',
    camera: { maxSessions: 1000 },
    is: { limit: null, opened: 5, closed: 5, refusedWith: null, effectOnFirst: 'none' },
    rules: [],
  },
  {
    why: 'a hang-up instead of a refusal',
    camera: { maxSessions: 2, whenFull: 'hangs-up' },
    is: { limit: 2, refusedWith: { cause: 'closed', status: null } },
    rules: ['sessions.odd-refusal'],
  },
  {
    why: 'the first is ended for the last',
    camera: { maxSessions: 2, whenFull: 'ends-first' },
    is: { limit: 2, opened: 2, closed: 2, effectOnFirst: 'ended' },
    rules: ['sessions.pushes-out'],
  },
  {
    why: 'the first gets nothing any more, and nobody is refused',
    camera: { maxSessions: 2, whenFull: 'starves-first' },
    most: 3,
    is: { limit: null, opened: 3, closed: 3, effectOnFirst: 'stalled' },
    rules: ['sessions.starves'],
  },
])(
  'sessions of a camera: $why',
  async ({ camera: more, most, is, rules }) => {
    const camera = await startTestCamera(more);
    const report = await count(camera, most === undefined ? {} : { most });
    expect(report).toMatchObject(is);
    expect(findingsOfSessions(report).map(({ rule }) => rule)).toEqual(rules);
    expect(camera.sessions()).toBe(0);
    await camera.close();
  },
  20_000,
);

test('a wrong secret costs one count and no further try', async () => {
  const camera = await startTestCamera();
  const report = await count(camera, { password: 'no' });
  expect(report).toMatchObject({ limit: null, opened: 0, refusedWith: { cause: 'auth-failed', status: 401 } });
  expect(findingsOfSessions(report).map(({ rule }) => rule)).toEqual(['sessions.none']);
  await camera.close();
});

test('a count that is given up leaves no session behind', async () => {
  const camera = await startTestCamera({ maxSessions: 9 });
  const leaving = new AbortController();
  const counting = count(camera, { most: 9 }, leaving.signal);
  while (camera.sessions() < 3) await new Promise((resolve) => setTimeout(resolve, 20));
  leaving.abort(new Error('gone'));
  await expect(counting).rejects.toThrow('gone');
  expect(camera.ended.every(({ how }) => how === 'teardown')).toBe(true);
  expect(camera.sessions()).toBe(0);
  await camera.close();
}, 20_000);

test('goodbyes that got no answer are told; one that the camera ended itself needs none', () => {
  const report: SessionsReport = {
    limit: null,
    opened: 3,
    most: 3,
    refusedWith: null,
    firstAlonePerS: 40,
    firstBesidePerS: 40,
    effectOnFirst: 'none',
    closed: 2,
  };
  expect(findingsOfSessions(report).map(({ rule }) => rule)).toEqual(['sessions.teardown']);
  expect(findingsOfSessions({ ...report, limit: 2, effectOnFirst: 'ended' }).map(({ rule }) => rule)).toEqual([
    'sessions.pushes-out',
  ]);
});
