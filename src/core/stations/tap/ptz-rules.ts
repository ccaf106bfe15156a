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
    id: 'ptz.stop-lost',
    question: 'Are its stop commands obeyed?',
    source: 'stop commands of a PTZ session against the reported movement',
    needs: ['stopsLost'],
    asks: (f) => f.stopsLost !== undefined,
    fails: (f) => f.stopsLost > 0,
    severity: 'fix',
    title: () => 'PTZ stop commands lost',
    because: (f) => `${sayMany(f.stopsLost, 'stop')} had to be sent again: it went on moving.`,
    do: ['Do not let a client control it that sends stop only once.', 'Look for a newer firmware.'],
    why: 'A pan-tilt head that misses its stop runs to its end stop, and looks at the wall until somebody notices.',
  }),
  rule({
    id: 'ptz.timeout-ignored',
    question: 'Does it stop when its timeout is over?',
    source: 'ONVIF PTZ §5.3.3: Timeout of ContinuousMove; tried',
    needs: ['keepsTimeout'],
    asks: (f) => f.keepsTimeout !== undefined,
    fails: (f) => !f.keepsTimeout,
    severity: 'fix',
    title: () => 'PTZ timeout ignored',
    because: () => 'It was told to move for half a second, and moved on until it was stopped.',
    do: ['Control it by cable, not over weak Wi-Fi: there a stop is lost sooner.', 'Look for a newer firmware.'],
    why: 'The timeout is what stops a pan-tilt head whose client went away.',
  }),
  rule({
    id: 'ptz.tour',
    question: 'Does its preset tour return to the same positions?',
    source: 'position and absolute moves; otherwise presets, or timed moves within 3° [A]',
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
        severity: 'caution',
        title: () => 'Preset tour without position feedback',
        because: () => 'It moves to its presets, and does not report whether it is there.',
        do: ['Start each tour at a preset.', 'Check its picture now and then.'],
      },
      'will-not-work': {
        severity: 'fix',
        title: () => 'Preset tour drifts',
        because: (f) => `Timed moves spread by ${(f.residualDeg ?? 0).toFixed(1)}°, and it reports no position.`,
        do: ['Do not promise preset tours with it.', 'Calibrate it again with longer moves.'],
      },
    },
    why: 'Errors add up: after a few tours it looks beside its target.',
  }),
  rule({
    id: 'heard.nothing',
    question: 'Was an event received while somebody walked?',
    source: 'a minute of listening, somebody walking in front of it',
    needs: ['heardSeconds', 'heardChanges'],
    asks: (f) => f.heardSeconds !== undefined,
    isTight: (f) => f.heardSeconds >= HEARD_OUT_S && f.heardChanges === 0,
    severity: 'caution',
    title: () => 'No event received',
    because: (f) => `In ${Math.round(f.heardSeconds)} s it sent no event.`,
    do: [
      'Switch its motion detection on, and set its zone and sensitivity.',
      'Walk through the middle of its picture, and listen again.',
    ],
    why: 'An automation that waits for it would wait for ever.',
  }),
  rule({
    id: 'heard.subscription-lost',
    question: 'Do its subscriptions last?',
    source: 'OASIS WS-BaseNotification 1.3 §6.1: until its termination time',
    needs: ['heardLost'],
    asks: (f) => f.heardLost !== undefined,
    isTight: (f) => f.heardLost > 0,
    severity: 'fix',
    title: () => 'Event subscription dropped',
    because: (f) => `${sayMany(f.heardLost, 'subscription')} ended before the agreed time.`,
    do: ['Check that each destination subscribes again by itself.', 'Look for a newer firmware.'],
    why: 'A hub that does not notice receives nothing more until it is restarted.',
  }),
] as const;
