import { capital } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import { OPTION_WORDS } from '../../firmware/options.ts';
import { hasImage, type PrepareFacts, type PrepareOffers, writes } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();

/** The image to be written: whether it is the right one, whole, and with a way back. */
export const IMAGE_RULES = [
  rule({
    id: 'prepare.image',
    question: 'Was an image taken in?',
    source: 'what is to be written is known by its digest',
    needs: ['hasImage'],
    asks: writes,
    judge: (f) => (f.hasImage ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'No image was taken in yet',
        because: (f) => `It was decided to ${f.decision ? OPTION_WORDS[f.decision] : 'write another image'}.`,
        do: ['Drop the file at the bench: it is hashed and looked at, and stays where it is.'],
      },
    },
    why: 'What was not looked at is written at best by luck.',
  }),
  rule({
    id: 'prepare.image-marks',
    question: 'Was the image published for just this board?',
    source: 'board, flash, sensor, radio: all four must match [A]',
    needs: ['marksApart', 'marksUnknown'],
    asks: hasImage,
    judge: (f) => (f.marksApart.length > 0 ? 'will-not-work' : f.marksUnknown.length > 0 ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'The image is for another revision',
        because: (f) => `${f.marksApart.map(capital).join('. ')}.`,
        do: ['Take the image that was published for just this board.'],
      },
      unknown: {
        severity: 'watch',
        title: () => 'Whether the image is for this revision is not known',
        because: (f) => `Not written down: ${f.marksUnknown.join(', ')}.`,
        do: ['Read the marks on the board, and where the image was published.'],
      },
    },
    why: 'A picture without a sensor, or a dark lamp, is what the wrong one leaves behind. The label outside is not enough.',
  }),
  rule({
    id: 'prepare.image-label',
    question: 'Is the image, and the model card, of the revision that the label says?',
    source: 'hardware revision of the label, of the image and of the model card',
    needs: ['labelRev'],
    asks: (f) => hasImage(f) && f.labelRev !== undefined && (f.imageRev !== undefined || f.cardRev !== undefined),
    judge: (f) => (isOther(f.labelRev, f.imageRev) ? 'will-not-work' : isOther(f.labelRev, f.cardRev) ? 'tight' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'The image is for another hardware revision',
        because: (f) => `Its label says ${f.labelRev}, the image is for ${f.imageRev}.`,
        do: ['Take the image for this revision.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Its model card is of another hardware revision',
        because: (f) => `Its label says ${f.labelRev}, the card ${f.cardRev}: button, name and lamp may be others.`,
        do: ['Copy the card, correct it for this revision, and choose it for this camera.'],
      },
    },
    why: 'Makers change what is inside and keep the name.',
  }),
  rule({
    id: 'prepare.image-version',
    question: 'Does it run that version already?',
    source: 'version of the label, and of the image',
    needs: ['labelVersion', 'imageVersion'],
    asks: (f) => hasImage(f) && f.labelVersion !== undefined && f.imageVersion !== undefined,
    isTight: (f) => !isOther(f.labelVersion, f.imageVersion),
    severity: 'watch',
    title: () => 'It runs that version already',
    because: (f) => `Both are ${f.labelVersion}.`,
    do: ['Look whether this is the image that was meant.'],
    why: 'Writing what is there already risks the camera and changes nothing.',
  }),
  rule({
    id: 'prepare.image-hash',
    question: 'Is it the file that was published?',
    source: 'FIPS 180-4, SHA-256 as published',
    needs: ['imageHash'],
    asks: hasImage,
    judge: (f) => (f.imageHash === 'ok' ? 'ok' : f.imageHash === 'unsaid' ? 'unknown' : 'will-not-work'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.imageHash === 'mismatch'
            ? 'The image is not the one that was published'
            : 'The published SHA-256 is not whole',
        because: (f) =>
          f.imageHash === 'mismatch'
            ? 'Its SHA-256 is another one than was published.'
            : 'It has not 64 hexadecimal digits, so nothing can be compared.',
        do: ['Fetch the file anew, and copy the digest whole.'],
      },
      unknown: {
        severity: 'watch',
        title: () => 'The image was compared with nothing',
        because: () => 'No published SHA-256 was entered.',
        do: ['Enter the digest from where the image was published.'],
      },
    },
    why: 'A download that broke off writes half a firmware; one that was exchanged writes somebody else’s.',
  }),
  rule({
    id: 'prepare.way-back',
    question: 'Is there a way back?',
    source: 'no image without a way back [A]',
    needs: ['hasBack', 'isBackGivenUp'],
    asks: writes,
    isTight: (f) => !f.hasBack,
    severity: (f) => (f.isBackGivenUp ? 'watch' : 'fix'),
    title: (f) => (f.isBackGivenUp ? 'There is no way back, and that was accepted' : 'There is no way back yet'),
    because: (f) =>
      f.isBackGivenUp ? 'No image of before is kept.' : 'No image of before is kept, and nobody has accepted that.',
    do: ['Keep the image of before, with its digest. Where there is none, accept it by the act for it.'],
    why: 'The customer owns a camera that worked.',
  }),
  rule({
    id: 'prepare.way-back-same',
    question: 'Does the way back lead elsewhere?',
    source: 'the way back leads elsewhere',
    needs: ['isSameImage'],
    asks: (f) => hasImage(f) && f.hasBack === true,
    fails: (f) => f.isSameImage,
    severity: 'stop',
    title: () => 'The image of before is the new one',
    because: () => 'Both files have the same SHA-256.',
    do: ['Take in the image that the camera came with.'],
    why: 'Going back would write what is to be left.',
  }),
] as const;

const isOther = (one: string, other: string | undefined): boolean =>
  other !== undefined && one.toLowerCase() !== other.toLowerCase();
