import { sayBytes } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
import { NAME_WORDS } from '../../firmware/image-name.ts';
import { OPTION_WORDS } from '../../firmware/options.ts';
import type { PrepareFacts, PrepareOffers } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();
const writes = (f: Facts<PrepareFacts>): boolean => f.writes === true;
const hasCard = (f: Facts<PrepareFacts>): boolean => writes(f) && f.hasCard === true;
const hasImage = (f: Facts<PrepareFacts>): boolean => writes(f) && f.hasImage === true;
const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** Another firmware: whether, which, onto what, and where it stands. */
export const FIRMWARE_RULES = [
  rule({
    id: 'prepare.firmware-undecided',
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
    source: 'the model card: no stream with the firmware that it has',
    needs: ['needsFirmware', 'decision'],
    asks: (f) => f.needsFirmware === true && f.decision === 'keep',
    judge: () => 'tight',
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Kept as it is, it gives no stream',
        because: () => 'It was decided to keep it, and its card names no stream on this network.',
        do: ['Take another firmware or another camera, or leave it to its maker’s app and take it out of the plan.'],
      },
    },
    mends: (_, offers) => offers.decisions(),
    why: 'No destination of this site will ever draw it.',
  }),
  rule({
    id: 'prepare.firmware-veto',
    source: 'reasons that outweigh any score [A]',
    needs: ['vetoes'],
    asks: writes,
    judge: (f) => failsIf(f.vetoes.length > 0),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Something speaks against writing another image',
        because: (f) => f.vetoes.join(' '),
        do: ['Settle that first, or take another way.'],
      },
    },
    mends: (_, offers) => offers.decisions(),
    why: 'A camera that does not come back cannot be asked why.',
  }),
  rule({
    id: 'prepare.firmware-no-guide',
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
  rule({
    id: 'prepare.image',
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
    source: 'version of the label, and of the image',
    needs: ['labelVersion', 'imageVersion'],
    asks: (f) => hasImage(f) && f.labelVersion !== undefined && f.imageVersion !== undefined,
    judge: (f) => tightIf(!isOther(f.labelVersion, f.imageVersion)),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'It runs that version already',
        because: (f) => `Both are ${f.labelVersion}.`,
        do: ['Look whether this is the image that was meant.'],
      },
    },
    why: 'Writing what is there already risks the camera and changes nothing.',
  }),
  rule({
    id: 'prepare.image-hash',
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
    source: 'no image without a way back [A]',
    needs: ['hasBack', 'isBackGivenUp'],
    asks: writes,
    judge: (f) => tightIf(!f.hasBack),
    when: {
      tight: {
        severity: (f) => (f.isBackGivenUp ? 'watch' : 'fix'),
        title: (f) => (f.isBackGivenUp ? 'There is no way back, and that was accepted' : 'There is no way back yet'),
        because: (f) =>
          f.isBackGivenUp ? 'No image of before is kept.' : 'No image of before is kept, and nobody has accepted that.',
        do: ['Keep the image of before, with its digest. Where there is none, accept it by the act for it.'],
      },
    },
    why: 'The customer owns a camera that worked.',
  }),
  rule({
    id: 'prepare.way-back-same',
    source: 'the way back leads elsewhere',
    needs: ['isSameImage'],
    asks: (f) => hasImage(f) && f.hasBack === true,
    judge: (f) => failsIf(f.isSameImage),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'The image of before is the new one',
        because: () => 'Both files have the same SHA-256.',
        do: ['Take in the image that the camera came with.'],
      },
    },
    why: 'Going back would write what is to be left.',
  }),
  rule({
    id: 'prepare.card',
    source: 'the card as it is planned',
    needs: ['hasCard'],
    asks: writes,
    judge: (f) => (f.hasCard ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'Which card carries it was not said',
        because: () => 'Its size decides how it is divided.',
        do: ['Enter the size of the card at the bench.'],
      },
    },
    why: 'Most reflashes that do nothing fail on a card that is too large.',
  }),
  rule({
    id: 'prepare.card-partition',
    source: 'largest partition that its boot loader reads, by its card',
    needs: ['partitionFits', 'partitionMiB'],
    asks: hasCard,
    judge: (f) => failsIf(!f.partitionFits || isTooLarge(f)),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => (f.partitionFits ? 'The card’s partition is too large' : 'The partition does not fit the card'),
        because: (f) =>
          f.partitionFits
            ? `${f.partitionMiB} MiB are ${(f.partitionMiB / 1024).toFixed(1)} GiB; it reads ${f.limitGiB} GiB.`
            : `${f.partitionMiB} MiB are more than the card has.`,
        do: ['Make the partition smaller: a large card then does as well.'],
      },
    },
    mends: (_, offers) => offers.partition(),
    why: 'A boot loader that cannot read a card boots as before, without a word.',
  }),
  rule({
    id: 'prepare.card-file-system',
    source: 'the file system that its boot loader reads, by its card',
    needs: ['fileSystem', 'fileSystemWanted'],
    asks: hasCard,
    judge: (f) => failsIf(f.fileSystem !== f.fileSystemWanted),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `The card is to be ${f.fileSystem}, and it reads ${f.fileSystemWanted}`,
        because: () => 'Cards above 32 GB are sold with exFAT.',
        do: ['Format the partition anew.'],
      },
    },
    mends: (_, offers) => offers.fileSystem(),
    why: 'What it cannot read is not there for it.',
  }),
  rule({
    id: 'prepare.card-room',
    source: 'FAT file system specification 1.03: 32 bits for the size of a file',
    needs: ['imageFitsCard', 'imageBytes'],
    asks: (f) => hasCard(f) && hasImage(f),
    judge: (f) => failsIf(!f.imageFitsCard),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'The image does not fit the partition',
        because: (f) => `It has ${sayBytes(f.imageBytes)}.`,
        do: ['Take a larger partition or a larger card.'],
      },
    },
    mends: (_, offers) => offers.partition(),
    why: 'A copy that is cut short is an image that does not run.',
  }),
  rule({
    id: 'prepare.card-name',
    source: 'the name that its boot loader looks for, to the letter',
    needs: ['nameWanted', 'nameOnCard', 'nameVerdict'],
    asks: hasCard,
    judge: (f) => failsIf(f.nameVerdict !== 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'The file has the wrong name for it',
        because: (f) => `“${f.nameOnCard}” is not “${f.nameWanted}”: ${NAME_WORDS[f.nameVerdict]}.`,
        do: ['Rename the file on the card, with all endings shown.'],
      },
    },
    mends: (_, offers) => offers.fileName(),
    why: 'A boot loader has no eye for what was meant.',
  }),
  rule({
    id: 'prepare.read-back',
    source: 'the copy is compared, not the original',
    needs: ['hasImage'],
    asks: (f) => hasCard(f) && hasImage(f),
    judge: (f) =>
      f.readBack === undefined
        ? 'unknown'
        : f.readBack.isSame && f.readBack.nameVerdict === 'ok'
          ? 'ok'
          : 'will-not-work',
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'The copy on the card was not compared',
        because: () => 'Nobody dropped it back from the card.',
        do: ['Take the card out, put it in again, and drop its file here.'],
      },
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.readBack?.isSame ? 'The file on the card has the wrong name' : 'The copy on the card is another file',
        because: (f) =>
          f.readBack?.isSame
            ? `It is called “${f.readBack.fileName}”: ${NAME_WORDS[f.readBack.nameVerdict]}.`
            : 'Its SHA-256 is not that of the image.',
        do: ['Copy it anew, take the card out properly, and compare again. A card that fails twice is worn.'],
      },
    },
    why: 'Cheap cards lose what they were told; a card that is pulled early never had it.',
  }),
  rule({
    id: 'prepare.rehearsal',
    source: 'the first try is not on a customer’s device [A]',
    needs: ['isRehearsed'],
    asks: (f) => writes(f) && f.hasGuide === true && f.phase === undefined,
    judge: (f) => tightIf(!f.isRehearsed),
    when: {
      tight: {
        severity: 'note',
        title: () => 'It was not rehearsed',
        because: () => 'Nobody has gone through it on the simulated camera.',
        do: ['Rehearse it once: it takes two minutes.'],
      },
    },
    why: 'Hands know a button that they have held before.',
  }),
  rule({
    id: 'prepare.lamps-alike',
    source: 'signs of the lamp, by the model card',
    needs: ['sameLamps'],
    asks: (f) => writes(f) && f.hasGuide === true,
    judge: (f) => tightIf(f.sameLamps.length > 0),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Two signs of its lamp cannot be told apart',
        because: (f) => `${f.sameLamps.map(capital).join('. ')}.`,
        do: ['Write down what really differs, or go by the time alone.'],
      },
    },
    why: 'Who takes one for the other lets go too early, or pulls the plug.',
  }),
  rule({
    id: 'prepare.reflash-open',
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

const isOther = (one: string, other: string | undefined): boolean =>
  other !== undefined && one.toLowerCase() !== other.toLowerCase();

function isTooLarge({ limitGiB, partitionMiB }: Facts<PrepareFacts>): boolean {
  return limitGiB !== undefined && partitionMiB !== undefined && partitionMiB > limitGiB * 1024 * (1 + 1e-9);
}
