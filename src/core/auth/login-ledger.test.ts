import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { LEDGER_MS, LoginLedger, MOST_REFUSED_LOGINS, type ProofEnd } from './login-ledger.ts';
import { proofEndOf } from './proof-gate.ts';

const KEY = { host: '10.77.4.21', user: 'op', mark: 'a' };
const OTHER = { ...KEY, mark: 'b' };

function ledger() {
  const clock = { ms: 0 };
  return { clock, of: new LoginLedger(() => clock.ms) };
}
/** As many logins as it lets through, each ended alike. */
function spend(of: LoginLedger, how: ProofEnd, most = 10): number {
  for (let sent = 0; sent < most; sent++) {
    if (of.begin(KEY)) return sent;
    of.end(KEY, how, 'rtsp');
  }
  return most;
}

test.each<{ why: string; how: ProofEnd; sent: number }>([
  { why: 'refused', how: 'refused', sent: 2 },
  { why: 'never answered', how: 'unanswered', sent: 2 },
  { why: 'answered like a locked account', how: 'locked', sent: 1 },
  { why: 'refused for another reason', how: 'passed', sent: 10 },
  { why: 'accepted', how: 'accepted', sent: 10 },
])('of logins that are $why, $sent of ten leave', ({ how, sent }) => {
  expect(spend(ledger().of, how)).toBe(sent);
});

test('two that are under way are as good as refused, until one is accepted', () => {
  const { of } = ledger();
  expect([of.begin(KEY), of.begin(KEY), of.begin(KEY)?.why]).toEqual([null, null, 'under-way']);
  of.end(KEY, 'accepted', 'rtsp');
  expect([of.begin(KEY), of.begin(KEY), of.begin(KEY)]).toEqual([null, null, null]);
});

test('a refusal is forgotten after ten minutes, and a changed password begins anew', () => {
  const { of, clock } = ledger();
  spend(of, 'refused');
  expect(of.begin(OTHER)).toBeNull();
  expect(of.begin(KEY)).toEqual({ why: 'refused', refused: 2 });
  clock.ms = LEDGER_MS - 1;
  expect(of.begin(KEY)).not.toBeNull();
  clock.ms = LEDGER_MS;
  expect(of.begin(KEY)).toBeNull();
});

test('what is accepted for one thing clears no refusal of another', () => {
  const { of } = ledger();
  for (const what of ['GetDeviceInformation', 'GetProfiles']) {
    of.begin(KEY);
    of.end(KEY, 'refused', what);
    if (of.begin(KEY) === null) of.end(KEY, 'accepted', 'GetServices');
  }
  expect(of.begin(KEY)).toMatchObject({ why: 'refused' });
});

test('one more that a person allowed counts like the others', () => {
  const { of } = ledger();
  spend(of, 'refused');
  of.beginAllowed(KEY);
  of.end(KEY, 'refused', 'a');
  expect(of.begin(KEY)).toEqual({ why: 'refused', refused: 3 });
  expect(of.lines()).toMatchObject([{ host: KEY.host, user: 'op', refused: 3, isHeld: true, isLocked: false }]);
  expect(JSON.stringify(of.lines())).not.toContain('"mark"');
});

test('an account that was accepted is not suspected by a silence, and is by a refusal', () => {
  const { of } = ledger();
  spend(of, 'accepted', 1);
  expect(spend(of, 'unanswered')).toBe(10);
  expect(spend(of, 'refused')).toBe(2);
});

test('a proof whose end nobody told counts as refused after a minute', () => {
  const { of, clock } = ledger();
  of.begin(KEY);
  of.begin(KEY);
  clock.ms = 61_000;
  expect(of.begin(KEY)).toEqual({ why: 'refused', refused: 2 });
});

test('whatever happens in whatever order, no account has more logins unaccepted than two and those a person allowed', () => {
  const act = fc.oneof(
    fc.constant({ kind: 'begin' as const }),
    fc.record({
      kind: fc.constant('end' as const),
      how: fc.constantFrom<ProofEnd>('refused', 'locked', 'unanswered'),
      what: fc.constantFrom('a', 'b'),
    }),
    fc.constant({ kind: 'allow' as const }),
    fc.record({ kind: fc.constant('wait' as const), ms: fc.nat(30_000) }),
  );
  fc.assert(
    fc.property(fc.array(act, { maxLength: 60 }), (acts) => {
      const { of, clock } = ledger();
      let sent = 0;
      let allowed = 0;
      let open = 0;
      for (const one of acts) {
        if (clock.ms > LEDGER_MS - 90_000) break;
        if (one.kind === 'begin' && of.begin(KEY) === null) {
          sent += 1;
          open += 1;
        } else if (one.kind === 'end' && open > 0) {
          open -= 1;
          of.end(KEY, one.how, one.what);
        } else if (one.kind === 'allow') {
          of.beginAllowed(KEY);
          sent += 1;
          open += 1;
          allowed += 1;
        } else if (one.kind === 'wait') clock.ms += one.ms;
      }
      expect(sent).toBeLessThanOrEqual(MOST_REFUSED_LOGINS + allowed);
    }),
    runs(300),
  );
});

test.each([
  { status: 200, how: 'accepted' },
  { status: 302, how: 'passed' },
  { status: 400, how: 'refused' },
  { status: 401, how: 'refused' },
  { status: 403, how: 'locked' },
  { status: 404, how: 'passed' },
  { status: 423, how: 'locked' },
  { status: 429, how: 'locked' },
  { status: 453, how: 'passed' },
  { status: 461, how: 'passed' },
  { status: 500, how: 'refused' },
  { status: 503, how: 'refused' },
])('an answer of $status counts as $how', ({ status, how }) => expect(proofEndOf(status)).toBe(how));
