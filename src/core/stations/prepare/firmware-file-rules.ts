import { capital } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import { OPTION_WORDS } from '../../firmware/options.ts';
import { hasImage, type PrepareFacts, type PrepareOffers, writes } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();

/** The image to be written: whether it is the right one, whole, and with a way back. */
export const IMAGE_RULES = [
  rule({
    id: 'prepare.firmware-file',
    question: 'Is the firmware file added?',
    source: 'a firmware file is identified by its checksum',
    needs: ['hasImage'],
    asks: writes,
    judge: (f) => (f.hasImage ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'caution',
        title: () => 'Firmware file missing',
        because: (f) => `It was decided to ${f.decision ? OPTION_WORDS[f.decision] : 'write other firmware'}.`,
        do: ['Drop the file at the bench: its checksum is computed, and the file stays where it is.'],
      },
    },
    why: 'A file that was not checked works by luck.',
  }),
  rule({
    id: 'prepare.firmware-markings',
    question: 'Is the firmware file for this board?',
    source: 'board, flash, sensor, radio: all four must match [A]',
    needs: ['marksApart', 'marksUnknown'],
    asks: hasImage,
    judge: (f) => (f.marksApart.length > 0 ? 'will-not-work' : f.marksUnknown.length > 0 ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Firmware file for another revision',
        because: (f) => `${f.marksApart.map(capital).join('. ')}.`,
        do: ['Use the firmware file that was published for this board.'],
      },
      unknown: {
        severity: 'caution',
        title: () => 'Revision of the firmware file not known',
        because: (f) => `Not entered: ${f.marksUnknown.join(', ')}.`,
        do: ['Read the board markings, and check what the firmware file was published for.'],
      },
    },
    why: 'A picture without a sensor, or a dark LED, is what the wrong one leaves behind. The outer label is not enough.',
  }),
  rule({
    id: 'prepare.firmware-label',
    question: 'Do firmware file and model card match the revision on the label?',
    source: 'hardware revision of the label, of the firmware file and of the model card',
    needs: ['labelRev'],
    asks: (f) => hasImage(f) && f.labelRev !== undefined && (f.imageRev !== undefined || f.cardRev !== undefined),
    judge: (f) => (isOther(f.labelRev, f.imageRev) ? 'will-not-work' : isOther(f.labelRev, f.cardRev) ? 'tight' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Firmware file for another hardware revision',
        because: (f) => `Its label says ${f.labelRev}, the firmware file is for ${f.imageRev}.`,
        do: ['Use the firmware file for this revision.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Model card for another hardware revision',
        because: (f) =>
          `Its label says ${f.labelRev}, the model card ${f.cardRev}: button, file name and LED may differ.`,
        do: ['Copy the model card, correct it for this revision, and choose it for this camera.'],
      },
    },
    why: 'Makers change what is inside and keep the name.',
  }),
  rule({
    id: 'prepare.firmware-version',
    question: 'Does it run that version already?',
    source: 'version of the label, and of the firmware file',
    needs: ['labelVersion', 'imageVersion'],
    asks: (f) => hasImage(f) && f.labelVersion !== undefined && f.imageVersion !== undefined,
    isTight: (f) => !isOther(f.labelVersion, f.imageVersion),
    severity: 'caution',
    title: () => 'Same firmware version already',
    because: (f) => `Both are ${f.labelVersion}.`,
    do: ['Check whether this is the firmware file that you meant.'],
    why: 'Writing the same version risks the camera and changes nothing.',
  }),
  rule({
    id: 'prepare.firmware-checksum',
    question: 'Is it the file that was published?',
    source: 'FIPS 180-4, SHA-256 as published',
    needs: ['imageHash'],
    asks: hasImage,
    judge: (f) => (f.imageHash === 'ok' ? 'ok' : f.imageHash === 'unsaid' ? 'unknown' : 'will-not-work'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.imageHash === 'mismatch' ? 'Checksum differs: not the published file' : 'Published SHA-256 incomplete',
        because: (f) =>
          f.imageHash === 'mismatch'
            ? 'Its SHA-256 differs from the published one.'
            : 'It has not 64 hexadecimal digits, so nothing can be compared.',
        do: ['Download the file again, and copy the whole checksum.'],
      },
      unknown: {
        severity: 'caution',
        title: () => 'Checksum not compared',
        because: () => 'No published SHA-256 was entered.',
        do: ['Enter the checksum from where the firmware file was published.'],
      },
    },
    why: 'An incomplete download writes half a firmware; an exchanged one writes somebody else’s.',
  }),
  rule({
    id: 'prepare.way-back',
    question: 'Is there a way back?',
    source: 'no firmware file without a way back [A]',
    needs: ['hasBack', 'isBackGivenUp'],
    asks: writes,
    isTight: (f) => !f.hasBack,
    severity: (f) => (f.isBackGivenUp ? 'caution' : 'fix'),
    title: (f) => (f.isBackGivenUp ? 'No way back, accepted' : 'No way back'),
    because: (f) =>
      f.isBackGivenUp
        ? 'The original firmware file is not kept.'
        : 'The original firmware file is not kept, and nobody has accepted that.',
    do: ['Add the original firmware file, with its checksum. Where there is none, accept that explicitly.'],
    why: 'The customer has a camera that works today.',
  }),
  rule({
    id: 'prepare.way-back-same',
    question: 'Does the way back lead to other firmware?',
    source: 'the way back leads to other firmware',
    needs: ['isSameImage'],
    asks: (f) => hasImage(f) && f.hasBack === true,
    fails: (f) => f.isSameImage,
    severity: 'stop',
    title: () => 'Original firmware file is the new one',
    because: () => 'Both files have the same SHA-256.',
    do: ['Add the firmware file that the camera came with.'],
    why: 'Going back would write what you want to leave.',
  }),
] as const;

const isOther = (one: string, other: string | undefined): boolean =>
  other !== undefined && one.toLowerCase() !== other.toLowerCase();
