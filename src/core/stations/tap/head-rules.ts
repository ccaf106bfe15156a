import { sayMany } from '../../base/say.ts';
import { rulesFor } from '../../findings/rule.ts';

/** What was measured of a head and of events, by steering and by listening. */
export interface HeadFacts {
  readonly stopsLost: number;
  readonly keepsTimeout: boolean;
  readonly hasRounds: boolean;
  readonly tells: 'position' | 'moving' | 'nothing';
  readonly presetsKept: number;
  readonly residualDeg: number;
  readonly heardSeconds: number;
  readonly heardChanges: number;
  readonly heardLost: number;
}

const rule = rulesFor<HeadFacts>();

/** Timed turns that are off by more are no use to a round [A]. Source: DOMAIN of PTZ, limits of timed moves. */
const MOST_RESIDUAL_DEG = 3;
/** Who listened for less has not walked through it yet [A]. */
const HEARD_OUT_S = 20;

export const HEAD_RULES = [
  rule({
    id: 'head.stop-lost',
    question: 'Do its stops arrive?',
    source: 'stops of a session against the head’s own word that it moved on',
    needs: ['stopsLost'],
    asks: (f) => f.stopsLost !== undefined,
    fails: (f) => f.stopsLost > 0,
    severity: 'fix',
    title: () => 'Its stops get lost',
    because: (f) => `${sayMany(f.stopsLost, 'stop')} had to be said again: it went on moving.`,
    do: ['Do not let anything steer it that says stop once.', 'Look for a newer firmware.'],
    why: 'A head that missed its stop runs to its end, and looks at the wall until somebody notices.',
  }),
  rule({
    id: 'head.timeout-ignored',
    question: 'Does it stop by itself when its time is over?',
    source: 'ONVIF PTZ §5.3.3: Timeout of ContinuousMove; tried',
    needs: ['keepsTimeout'],
    asks: (f) => f.keepsTimeout !== undefined,
    fails: (f) => !f.keepsTimeout,
    severity: 'fix',
    title: () => 'It runs on when its time is over',
    because: () => 'It was told to move for half a second, and moved on until it was stopped.',
    do: ['Steer it over a wire, not over a weak radio: there a stop is lost sooner.', 'Look for a newer firmware.'],
    why: 'The time-out is what stops a head whose master went away.',
  }),
  rule({
    id: 'head.round',
    question: 'Does it find the places of its rounds again?',
    source: 'position and absolute moves; else presets, or timed turns within 3° [A]',
    needs: ['tells', 'presetsKept'],
    asks: (f) => f.hasRounds === true,
    judge: (f) => {
      if (f.tells === 'position') return 'ok';
      if (f.presetsKept > 0) return 'tight';
      if (f.residualDeg === undefined) return 'unknown';
      return f.residualDeg <= MOST_RESIDUAL_DEG ? 'tight' : 'will-not-work';
    },
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Its round goes unchecked',
        because: () => 'It comes to its places, and does not tell whether it is there.',
        do: ['Begin each round at a preset.', 'Look at its picture now and then.'],
      },
      'will-not-work': {
        severity: 'fix',
        title: () => 'It does not find its places again',
        because: (f) => `Timed turns are ${(f.residualDeg ?? 0).toFixed(1)}° uneven, and it tells no position.`,
        do: ['Promise no rounds with it.', 'Calibrate it anew with longer turns.'],
      },
    },
    why: 'Errors add up: after a few rounds it looks beside what it is to watch.',
  }),
  rule({
    id: 'heard.nothing',
    question: 'Was anything heard of it while somebody walked?',
    source: 'a minute of listening, somebody walking in front of it',
    needs: ['heardSeconds', 'heardChanges'],
    asks: (f) => f.heardSeconds !== undefined,
    isTight: (f) => f.heardSeconds >= HEARD_OUT_S && f.heardChanges === 0,
    severity: 'watch',
    title: () => 'Nothing was heard of it',
    because: (f) => `In ${Math.round(f.heardSeconds)} s it told of no event.`,
    do: [
      'Turn its detection on, and set its area and how sensitive it is.',
      'Walk through the middle of its picture, and listen again.',
    ],
    why: 'An automation that waits for it would wait for ever.',
  }),
  rule({
    id: 'heard.subscription-lost',
    question: 'Does it remember who listens?',
    source: 'OASIS WS-BaseNotification 1.3 §6.1: until its termination time',
    needs: ['heardLost'],
    asks: (f) => f.heardLost !== undefined,
    isTight: (f) => f.heardLost > 0,
    severity: 'fix',
    title: () => 'It forgets who listens',
    because: (f) => `${sayMany(f.heardLost, 'subscription')} ended before the time that was agreed.`,
    do: ['Check that each destination subscribes anew by itself.', 'Look for a newer firmware.'],
    why: 'A hub that does not notice hears nothing more until it is restarted.',
  }),
] as const;
