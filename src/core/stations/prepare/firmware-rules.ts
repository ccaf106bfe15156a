import { capital } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import { OPTION_WORDS } from '../../firmware/options.ts';
import { type PrepareFacts, type PrepareOffers, writes } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();

/** Another firmware: whether, and how. */
export const FIRMWARE_RULES = [
  rule({
    id: 'prepare.firmware-undecided',
    question: 'Was it decided what becomes of a camera without a stream?',
    source: 'the model card: no stream with the firmware that it has',
    needs: ['needsFirmware', 'best'],
    asks: (f) => f.needsFirmware === true,
    judge: (f) => (f.decision === undefined || f.decision === null ? 'unknown' : 'ok'),
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'Nobody has decided about its firmware',
        because: (f) => `With the one it has it gives no stream here. By its score: ${OPTION_WORDS[f.best]}.`,
        do: ['Decide at the bench: the reasons stand beside each way.'],
      },
    },
    mends: (_, offers) => offers.decisions(),
    why: 'All that follows, address, taps, recording, waits for a stream.',
  }),
  rule({
    id: 'prepare.firmware-kept',
    question: 'Is a camera kept that gives no stream?',
    source: 'the model card: no stream with the firmware that it has',
    needs: ['needsFirmware', 'decision'],
    asks: (f) => f.needsFirmware === true && f.decision === 'keep',
    isTight: () => true,
    severity: 'fix',
    title: () => 'Kept as it is, it gives no stream',
    because: () => 'It was decided to keep it, and its card names no stream on this network.',
    do: ['Take another firmware or another camera, or leave it to its maker’s app and take it out of the plan.'],
    mends: (_, offers) => offers.decisions(),
    why: 'No destination of this site will ever draw it.',
  }),
  rule({
    id: 'prepare.firmware-veto',
    question: 'Does something speak against writing another image?',
    source: 'reasons that outweigh any score [A]',
    needs: ['vetoes'],
    asks: writes,
    fails: (f) => f.vetoes.length > 0,
    severity: 'stop',
    title: () => 'Something speaks against writing another image',
    because: (f) => f.vetoes.join(' '),
    do: ['Settle that first, or take another way.'],
    mends: (_, offers) => offers.decisions(),
    why: 'A camera that does not come back cannot be asked why.',
  }),
  rule({
    id: 'prepare.firmware-no-guide',
    question: 'Is it known how its model is reflashed?',
    source: 'an image is written as its model wants it',
    needs: ['hasGuide'],
    asks: writes,
    judge: (f) => (f.hasGuide ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'How it is reflashed is not known',
        because: () => 'Its model card says nothing of button, name, card and lamp.',
        do: ['Write down how its model is reflashed.'],
      },
    },
    why: 'The name of a file and the seconds of a button decide it.',
  }),
] as const;

/** The writing itself: rehearsed, lamps told apart, brought to its end. */
export const PROCEDURE_RULES = [
  rule({
    id: 'prepare.rehearsal',
    question: 'Was it rehearsed?',
    source: 'the first try is not on a customer’s device [A]',
    needs: ['isRehearsed'],
    asks: (f) => writes(f) && f.hasGuide === true && f.phase === undefined,
    isTight: (f) => !f.isRehearsed,
    severity: 'note',
    title: () => 'It was not rehearsed',
    because: () => 'Nobody has gone through it on the simulated camera.',
    do: ['Rehearse it once: it takes two minutes.'],
    why: 'Hands know a button that they have held before.',
  }),
  rule({
    id: 'prepare.lamps-alike',
    question: 'Can the signs of its lamp be told apart?',
    source: 'signs of the lamp, by the model card',
    needs: ['sameLamps'],
    asks: (f) => writes(f) && f.hasGuide === true,
    isTight: (f) => f.sameLamps.length > 0,
    severity: 'watch',
    title: () => 'Two signs of its lamp cannot be told apart',
    because: (f) => `${f.sameLamps.map(capital).join('. ')}.`,
    do: ['Write down what really differs, or go by the time alone.'],
    why: 'Who takes one for the other lets go too early, or pulls the plug.',
  }),
  rule({
    id: 'prepare.reflash-open',
    question: 'Did its last reflash end well?',
    source: 'the steps that were told',
    needs: ['phase'],
    asks: (f) => f.phase !== undefined,
    judge: (f) =>
      f.phase === 'recover' || f.phase === 'replaced'
        ? 'will-not-work'
        : f.phase === 'done' || f.phase === 'stopped'
          ? 'ok'
          : 'tight',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => (f.phase === 'replaced' ? 'It did not come back' : 'It was left needing recovery'),
        because: (f) =>
          f.phase === 'replaced' ? 'It was given up after the last way failed.' : 'Its last reflash did not end well.',
        do: ['Bring it back with the image of before, or replace it.'],
      },
      tight: {
        severity: 'watch',
        title: () => 'A reflash of it is under way',
        because: (f) =>
          f.phase === 'writing' ? 'It writes: its power must not fail.' : 'It was begun, and its end was not told.',
        do: ['Go on where it stands.'],
      },
    },
    why: 'Whoever comes by and pulls the plug of a camera that writes has a dead one.',
  }),
] as const;
