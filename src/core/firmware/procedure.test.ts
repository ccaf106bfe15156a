import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { LED_ROLES, USUAL_GUIDE } from './guide.ts';
import {
  beginRun,
  ENDS,
  MOST_ATTEMPTS,
  MOVES,
  PHASES,
  type Run,
  type Signal,
  signalsIn,
  step,
  turnsAtMs,
  waitIn,
} from './procedure.ts';
import { CAUSE_WORDS, STEP_WORDS, sayWait, WAY } from './procedure-words.ts';

const ALL: readonly Signal[] = [...new Set(PHASES.flatMap(signalsIn))];
const at = (phase: Run['phase'], more: Partial<Run> = {}): Run => ({ ...beginRun('onward', 1000), phase, ...more });

test.each(PHASES.flatMap((phase) => ALL.map((signal) => ({ phase, signal }))))(
  '$phase, $signal: goes where the table says, and nowhere without it',
  ({ phase, signal }) => {
    const run = at(phase);
    const next = step(run, signal, 5000);
    const move = MOVES[phase][signal];
    if (!move) return expect(next).toBe(run);
    expect(next).toMatchObject({ phase: move.to, sinceMs: 5000, beganMs: 1000, direction: 'onward' });
    if (move.cause) expect(next.cause).toBe(move.cause);
    expect(next.attempt).toBe(move.to === 'power-off' ? 2 : 1);
  },
);

test('while it writes nobody stops it, and every phase but an end leads on', () => {
  expect(signalsIn('writing')).not.toContain('stop');
  for (const phase of PHASES) expect(signalsIn(phase).length > 0).toBe(!ENDS.has(phase));
});

test('after as many tries as are sensible the same is not tried again', () => {
  let run = beginRun('onward', 0);
  for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt++) {
    for (const signal of ['next', 'next', 'next', 'usual'] as const) run = step(run, signal, attempt);
    expect(run.phase).toBe(attempt < MOST_ATTEMPTS ? 'retry' : 'recover');
    if (attempt < MOST_ATTEMPTS) run = step(run, 'again', attempt);
  }
});

test('a reflash that goes well passes every step once, in the order that is shown', () => {
  let run = beginRun('back', 0);
  const passed = [run.phase];
  for (const signal of [
    'next',
    'next',
    'next',
    'taken',
    'writing',
    'usual',
    'usual',
    'seen',
    'picture',
    'next',
  ] as const) {
    run = step(run, signal, passed.length * 1000);
    passed.push(run.phase);
  }
  expect(passed).toEqual([...WAY, 'done']);
});

test('a camera that was written and not seen to work is never “as before”: every way on leads to recovery', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...ALL), { maxLength: 60 }), (signals) => {
      let run = beginRun('onward', 0);
      // told by the phases alone, from the table
      let isAtRisk = false;
      for (const [at, signal] of signals.entries()) {
        const { phase } = run;
        const isLegal = signalsIn(phase).includes(signal);
        run = step(run, signal, at);
        if (isLegal && phase === 'check' && (signal === 'picture' || signal === 'unseen')) isAtRisk = false;
        else if (run.phase === 'writing' || (isLegal && phase === 'writing')) isAtRisk = true;
        if (isAtRisk) expect(['stopped', 'retry', 'restore', 'done']).not.toContain(run.phase);
      }
    }),
    runs(2000),
  );
});

test.each([
  { why: 'power fails while it writes, and somebody stops at the next try', last: 'stop' },
  { why: 'and it then boots as before, without the card', last: 'usual' },
] as const)('$why: recovery', ({ last }) => {
  let run = beginRun('onward', 0);
  for (const signal of ['next', 'next', 'next', 'taken', 'writing', 'cut', 'again'] as const)
    run = step(run, signal, 1);
  expect(run).toMatchObject({ phase: 'power-off', hasWritten: true });
  if (last === 'usual') for (const signal of ['next', 'next', 'next'] as const) run = step(run, signal, 2);
  expect(step(run, last, 3).phase).toBe('recover');
});

test('who is not found is looked for where it is harmless first', () => {
  let run = at('network', { hasWritten: true });
  run = step(run, 'unseen', 2);
  expect(run).toMatchObject({ phase: 'network', cause: 'not-found' });
  expect(CAUSE_WORDS['not-found'].do[0]).toMatch(/address may have changed/);
  expect(step(run, 'seen', 3)).toMatchObject({ phase: 'check', cause: null });
  expect(step(run, 'give-up', 3)).toMatchObject({ phase: 'recover', cause: 'no-radio' });
});

test('a clock that goes backwards makes no step older than the one before', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(...ALL), fc.integer()), { maxLength: 40 }), (told) => {
      let run = beginRun('onward', 0);
      for (const [signal, atMs] of told) {
        const next = step(run, signal, atMs);
        expect(next.sinceMs).toBeGreaterThanOrEqual(run.sinceMs);
        expect(PHASES).toContain(next.phase);
        run = next;
      }
    }),
  );
});

test('every way out of a phase has its words, every wrong one a cause with something to do', () => {
  for (const phase of PHASES) {
    expect(STEP_WORDS[phase].answers.map(({ signal }) => signal).sort()).toEqual([...signalsIn(phase)].sort());
    expect(STEP_WORDS[phase].do(USUAL_GUIDE, 'onward').length).toBeGreaterThan(10);
    for (const { lamp } of STEP_WORDS[phase].answers) if (lamp) expect([...LED_ROLES, 'dark']).toContain(lamp);
    for (const move of Object.values(MOVES[phase]))
      if (move.to === 'retry' || (move.to === 'recover' && phase !== 'retry'))
        expect(CAUSE_WORDS[move.cause ?? ('none' as never)].do.length).toBeGreaterThan(0);
  }
});

test('waits are those of the guide', () => {
  expect(waitIn('power-off', USUAL_GUIDE)).toEqual({ leastS: 10, mostS: 10 });
  expect(waitIn('insert', USUAL_GUIDE)).toBeNull();
  expect([turnsAtMs('watch', USUAL_GUIDE), turnsAtMs('reboot', USUAL_GUIDE), turnsAtMs('check', USUAL_GUIDE)]).toEqual([
    6000,
    180_000,
    null,
  ]);
  expect([sayWait(10), sayWait(150)]).toEqual(['10 s', '2.5 min']);
});
