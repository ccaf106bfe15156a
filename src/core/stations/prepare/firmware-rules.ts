import { capital } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { Phase } from '../../firmware/procedure.ts';
import { type PrepareFacts, type PrepareOffers, writes } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();

/** Another firmware: whether, and how. */
export const FIRMWARE_RULES = [
  rule({
    id: 'prepare.firmware-undecided',
    question: 'Is the firmware of a camera without a stream decided?',
    source: 'the model card: no stream with the firmware that it has',
    needs: ['needsFirmware'],
    asks: (f) => f.needsFirmware === true,
    judge: (f) => (f.decision === undefined || f.decision === null ? 'unknown' : 'ok'),
    when: {
      unknown: {
        severity: 'caution',
        title: () => 'Firmware not decided',
        because: () => 'With its present firmware it has no local stream.',
        do: ['Decide at the bench: the reasons stand beside each option.'],
      },
    },
    mends: (_, offers) => offers.decisions(),
    why: 'Everything after it, address, taps, recording, needs a stream.',
  }),
  rule({
    id: 'prepare.firmware-kept',
    question: 'Is a camera kept that has no stream?',
    source: 'the model card: no stream with the firmware that it has',
    needs: ['needsFirmware', 'decision'],
    asks: (f) => f.needsFirmware === true && f.decision === 'keep',
    isTight: () => true,
    severity: 'fix',
    title: () => 'No local stream as it is',
    because: () => 'It was decided to keep it, and its model card names no local stream.',
    do: ['Install other firmware or another camera, or leave it to its maker’s app and remove it from the plan.'],
    mends: (_, offers) => offers.decisions(),
    why: 'No destination of this site will ever pull its stream.',
  }),
  rule({
    id: 'prepare.firmware-veto',
    question: 'Is there a veto against a reflash?',
    source: 'reasons that outweigh any score [A]',
    needs: ['vetoes', 'openVetoes'],
    asks: writes,
    judge: (f) => (f.vetoes.length > 0 ? 'will-not-work' : f.openVetoes.length > 0 ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Veto against a reflash',
        because: (f) => f.vetoes.join(' '),
        do: ['Resolve that first, or choose another option.'],
      },
      unknown: {
        severity: 'fix',
        title: () => 'Before a reflash: questions not answered',
        because: (f) => f.openVetoes.join(' '),
        do: ['Answer them at the bench: each can be a reason not to write anything.'],
      },
    },
    mends: (_, offers) => offers.decisions(),
    why: 'A camera that does not come back cannot be asked why.',
  }),
  rule({
    id: 'prepare.firmware-no-guide',
    question: 'Is the reflash guide of its model written down?',
    source: 'firmware is written the way its model needs',
    needs: ['hasGuide'],
    asks: writes,
    judge: (f) => (f.hasGuide ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'caution',
        title: () => 'Reflash guide missing',
        because: () => 'Its model card has no button, file name, SD card and LED patterns.',
        do: ['Write the reflash guide of its model.'],
      },
    },
    why: 'The name of a file and the seconds of a button decide it.',
  }),
] as const;

/** Steps before anything is written: of a camera that was half written they are steps of its recovery. */
const STARTS: ReadonlySet<Phase> = new Set(['power-off', 'insert', 'hold', 'watch', 'release']);

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
    title: () => 'Not rehearsed',
    because: () => 'Nobody has gone through it on the simulated camera.',
    do: ['Rehearse it once: it takes two minutes.'],
    why: 'Hands know a button that they have held before.',
  }),
  rule({
    id: 'prepare.led-patterns-alike',
    question: 'Are its LED patterns different from each other?',
    source: 'LED patterns, by the model card',
    needs: ['sameLeds'],
    asks: (f) => writes(f) && f.hasGuide === true,
    isTight: (f) => f.sameLeds.length > 0,
    severity: 'caution',
    title: () => 'Two LED patterns are the same',
    because: (f) => `${f.sameLeds.map(capital).join('. ')}.`,
    do: ['Enter what really differs, or go by time alone.'],
    why: 'Whoever mistakes one for the other releases the button too early, or unplugs it.',
  }),
  rule({
    id: 'prepare.reflash-open',
    question: 'Did its last reflash end well?',
    source: 'the steps that were told',
    needs: ['phase', 'hasWritten'],
    asks: (f) => f.phase !== undefined,
    judge: (f) =>
      f.phase === 'recover' || f.phase === 'replaced' || (f.hasWritten && STARTS.has(f.phase))
        ? 'will-not-work'
        : f.phase === 'done' || f.phase === 'stopped'
          ? 'ok'
          : 'tight',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => (f.phase === 'replaced' ? 'Reflash failed: no recovery' : 'Reflash stopped: recovery needed'),
        because: (f) =>
          f.phase === 'replaced'
            ? 'It was given up after the last recovery failed.'
            : f.hasWritten && STARTS.has(f.phase)
              ? 'It began to write, and nobody has seen since that it works: it is not as before.'
              : 'Its last reflash did not end well.',
        do: ['Recover it with the original firmware file, or replace it.'],
      },
      tight: {
        severity: 'caution',
        title: () => 'Reflash in progress',
        because: (f) =>
          f.phase === 'writing'
            ? 'It is writing: its power must not fail.'
            : 'It was started, and its end was not recorded.',
        do: ['Continue where it stopped.'],
      },
    },
    why: 'Whoever unplugs a camera while it writes may destroy it.',
  }),
] as const;
