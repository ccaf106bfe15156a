import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { report } from '../../../tests/support/sites.ts';
import { MOST_REFUSED_LOGINS } from '../auth/login-ledger.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { Diagnosis } from '../probe/reasons.ts';
import { PROBE_CAUSES, type ProbeCause } from '../rtsp/exchange-types.ts';
import { diagnose } from './diagnose.ts';
import type { FailedProbe } from './notebook.ts';
import type { CallAnswer, Trial, TrialAnswer } from './trials.ts';

const URL_OF: StreamUrl = {
  scheme: 'rtsp',
  user: null,
  password: null,
  host: '10.77.4.21',
  port: 554,
  path: '/live',
  query: null,
};

const failed = (cause: ProbeCause | null, more: Partial<ProbeReport> = {}): ProbeReport => ({
  ...report({ cause }),
  steps: [],
  ...more,
  auth: {
    scheme: 'digest-md5',
    qop: 'auth',
    realm: 'x',
    offered: ['digest', 'basic'],
    refusals: cause === 'auth-failed' ? 1 : 0,
    staleEachTime: false,
    ...more.auth,
  },
});

const ofProbe = (given: ProbeReport, more: Partial<FailedProbe> = {}): FailedProbe => ({
  url: URL_OF,
  credentials: { user: 'Viewer', password: 'Gate7' },
  transport: 'auto',
  report: given,
  paths: ['/a', '/b'],
  onvifPort: 80,
  mayGoReadable: false,
  ...more,
});

/** Runs it to its end; every trial is answered by `answer`. */
function runAll(of: FailedProbe, answer: (trial: Trial) => TrialAnswer) {
  const trials: Trial[] = [];
  const generator = diagnose(of);
  let step = generator.next();
  while (!step.done) {
    trials.push(step.value);
    if (trials.length > 60) throw new Error('it goes on without end');
    step = generator.next(answer(step.value));
  }
  return { diagnosis: step.value, trials };
}

const answers = fc.record({
  late: fc.boolean(),
  call: fc.constantFrom<CallAnswer>('open', 'refused', 'silent'),
  cause: fc.constantFrom<ProbeCause | null>(...PROBE_CAUSES, null),
  spoke: fc.boolean(),
  mac: fc.constantFrom('00:00:5e:00:53:21', null),
  isOnLink: fc.constantFrom(true, false, null),
  status: fc.constantFrom(401, 403, 404, 423, 429, 453, 503, null),
  isThere: fc.boolean(),
  isAdmitted: fc.constantFrom(true, false, null),
});

interface Seen {
  neighbour: { readonly mac: string | null; readonly isOnLink: boolean | null } | null;
  readonly logins: { readonly cause: ProbeCause | null; readonly status: number | null }[];
}

/** What the answers allow to be said, worked out here from the answers alone. */
function claimsNoMoreThan({ neighbour, logins }: Seen, { reason, experiments }: Diagnosis): void {
  if (reason === 'host-dead') expect(neighbour).toMatchObject({ mac: null, isOnLink: true });
  if (reason === 'no-way') expect(neighbour).toMatchObject({ mac: null, isOnLink: false });
  if (reason === 'locked') expect([423, 429]).toContain(logins.at(-1)?.status);
  // a lock may answer every login with the same refusal: that the password is wrong is never settled
  if (reason === 'secret-wrong') expect(experiments.filter(({ decides }) => decides)).toEqual([]);
}

test('whatever comes back it ends, one experiment at most decides, and no account is refused more often than the budget', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...PROBE_CAUSES),
      fc.array(answers, { minLength: 1, maxLength: 12 }),
      fc.boolean(),
      (cause, given, isSilentAfterCall) => {
        let at = 0;
        let refused = cause === 'auth-failed' ? 1 : 0;
        const seen: Seen = { neighbour: null, logins: [] };
        const steps = isSilentAfterCall
          ? [{ name: 'connect' as const, startMs: 0, durationMs: 1, ok: true, status: null, note: null }]
          : [];
        const { diagnosis } = runAll(ofProbe(failed(cause, { steps })), (trial): TrialAnswer => {
          const one = given[at++ % given.length];
          if (!one || (one.late && at > 3)) return { kind: 'late' };
          switch (trial.kind) {
            case 'calls':
              return { kind: 'calls', answers: new Map(trial.ports.map((port) => [port, one.call])) };
            case 'neighbour':
              seen.neighbour = one;
              return { kind: 'neighbour', of: { mac: one.mac, isOnLink: one.isOnLink } };
            case 'onvif': {
              if (trial.credentials && one.isAdmitted === false) refused += 1;
              const isAdmitted = trial.credentials ? one.isAdmitted : null;
              return { kind: 'onvif', told: { isThere: one.isThere, skewS: 4, isAdmitted, paths: ['/c'] } };
            }
            case 'probe': {
              const isRefused = one.cause === 'auth-failed';
              // without a login nobody is refused one
              if (isRefused && trial.credentials) refused += 1;
              const asked = isRefused && !trial.credentials ? 'auth-required' : one.cause;
              const options = {
                name: 'options' as const,
                startMs: 0,
                durationMs: 1,
                ok: true,
                status: 200,
                note: null,
              };
              const login = { ...options, name: 'authenticate' as const, ok: one.cause === null, status: one.status };
              const given = failed(asked, {
                steps: [...(one.spoke ? [options] : []), ...(trial.credentials ? [login] : [])],
              });
              if (trial.credentials) seen.logins.push({ cause: asked, status: one.status });
              return { kind: 'probe', report: given };
            }
          }
        });
        const decisive = diagnosis.experiments.filter(({ decides }) => decides);
        expect(decisive.length).toBeLessThanOrEqual(diagnosis.reason === null ? 0 : 1);
        claimsNoMoreThan(seen, diagnosis);
        // a login that stands in the path goes along with each known path, and is refused once before that ends
        expect(refused).toBeLessThanOrEqual(MOST_REFUSED_LOGINS + (cause === 'auth-failed' ? 0 : 1));
        if (diagnosis.found) expect(diagnosis.reason).not.toBeNull();
      },
    ),
    runs(500),
  );
});

const admitted = failed(null, {
  steps: [{ name: 'authenticate', startMs: 0, durationMs: 1, ok: true, status: 200, note: null }],
});
const NOBODY: TrialAnswer = { kind: 'onvif', told: { isThere: false, skewS: null, isAdmitted: null, paths: [] } };

test.each([
  {
    why: 'Basic is accepted, which a person allowed',
    mayGoReadable: true,
    isRight: (trial: Trial) => trial.kind === 'probe' && trial.loginBy === 'basic',
    reason: 'scheme-broken',
  },
  {
    why: 'the secret with its letters exchanged',
    isRight: (trial: Trial) => trial.kind === 'probe' && trial.credentials?.password === 'gATE7',
    reason: 'letter-case',
  },
  {
    why: 'the account in small letters, of a password without letters',
    password: '7777',
    isRight: (trial: Trial) => trial.kind === 'probe' && trial.credentials?.user === 'viewer',
    reason: 'letter-case',
  },
  { why: 'nothing', isRight: () => false, reason: 'secret-wrong' },
  {
    why: 'Basic would be accepted, and nobody allowed it',
    isRight: (trial: Trial) => trial.kind === 'probe' && trial.loginBy === 'basic',
    reason: 'secret-wrong',
  },
])('a refused login: $why', ({ isRight, reason, password = 'Gate7', mayGoReadable = false }) => {
  const credentials = { user: 'Viewer', password };
  const { diagnosis } = runAll(ofProbe(failed('auth-failed'), { credentials, mayGoReadable }), (trial) =>
    trial.kind === 'probe' ? { kind: 'probe', report: isRight(trial) ? admitted : failed('auth-failed') } : NOBODY,
  );
  expect(diagnosis.reason).toBe(reason);
});

test('what was not sent was not tried: a login that was spent elsewhere meanwhile proves nothing', () => {
  const credentials = { user: 'Viewer', password: 'Gate7' };
  const { diagnosis } = runAll(ofProbe(failed('auth-failed'), { credentials }), (trial) =>
    trial.kind === 'probe' ? { kind: 'probe', report: failed('login-held') } : NOBODY,
  );
  // and nothing is called settled by it
  expect(diagnosis).toMatchObject({
    reason: 'secret-wrong',
    experiments: [{ decides: false }, { did: expect.stringMatching(/^not tried/), decides: false }],
  });
});

test('an account that only ONVIF knows is told as that', () => {
  const given = failed('auth-failed');
  const of = ofProbe(
    { ...given, auth: { ...given.auth, offered: ['digest'] } },
    { credentials: { user: 'viewer', password: '7' } },
  );
  const { diagnosis } = runAll(of, (trial) =>
    trial.kind === 'onvif'
      ? { kind: 'onvif', told: { isThere: true, skewS: 0, isAdmitted: trial.credentials ? true : null, paths: [] } }
      : { kind: 'probe', report: failed('auth-failed') },
  );
  expect(diagnosis.reason).toBe('account-elsewhere');
});

const endedAfter = (cause: ProbeCause, durationMs: number): ProbeReport => {
  const step = { startMs: 0, durationMs, ok: false, status: null, note: null };
  return failed(cause, {
    transport: 'tcp',
    steps: [
      { ...step, name: 'play' },
      { ...step, name: 'sample' },
    ],
  });
};
test.each<{ why: string; lasted?: number; holds: readonly string[]; reason: string | null; drawn: readonly string[] }>([
  { why: 'holds the same way', holds: ['tcp', 'udp'], reason: 'passing', drawn: ['tcp'] },
  { why: 'stops again, and comes the other way', holds: ['udp'], reason: 'other-transport', drawn: ['tcp', 'udp'] },
  { why: 'stops either way', holds: [], reason: null, drawn: ['tcp', 'udp'] },
  { why: 'stopped later than is looked again', lasted: 30_000, holds: ['tcp'], reason: null, drawn: ['tcp'] },
])(
  'packets that stopped are drawn once more, as long as before: one that $why',
  ({ lasted = 3000, holds, reason, drawn }) => {
    const stopped = endedAfter('no-packets', lasted);
    const { diagnosis, trials } = runAll(ofProbe(stopped), (trial) => {
      if (trial.kind !== 'probe') throw new Error(trial.kind);
      return { kind: 'probe', report: holds.includes(trial.transport) ? failed(null) : stopped };
    });
    expect(diagnosis.reason).toBe(reason);
    const sampleS = Math.min(3.5, lasted / 1000);
    expect(trials).toEqual(drawn.map((transport) => expect.objectContaining({ transport, media: true, sampleS })));
  },
);

test('a session that was lost is looked at again as long as before', () => {
  const { diagnosis, trials } = runAll(ofProbe(endedAfter('session-lost', 2000)), () => ({
    kind: 'probe',
    report: failed(null),
  }));
  expect(trials).toEqual([expect.objectContaining({ media: true, sampleS: 2 })]);
  expect(diagnosis.reason).toBe('passing');
});

test('when their time is over, experiments end and say so', () => {
  const { diagnosis } = runAll(ofProbe(failed('unreachable')), () => ({ kind: 'late' }));
  expect(diagnosis).toEqual({
    reason: null,
    experiments: [{ did: 'more experiments', told: 'out of time', decides: false }],
    found: null,
  });
});
