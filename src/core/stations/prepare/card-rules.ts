import { sayBytes } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import { NAME_WORDS } from '../../firmware/image-name.ts';
import { hasImage, type PrepareFacts, type PrepareOffers, writes } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();
const hasCard = (f: Facts<PrepareFacts>): boolean => writes(f) && f.hasCard === true;

/** The card that brings it: what it holds, under which name, and what was read back from it. */
export const CARD_RULES = [
  rule({
    id: 'prepare.card',
    question: 'Is it known which card carries the image?',
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
    question: 'Is the partition one that its boot loader reads?',
    source: 'largest partition that its boot loader reads, by its card',
    needs: ['partitionFits', 'partitionMiB'],
    asks: hasCard,
    fails: (f) => !f.partitionFits || isTooLarge(f),
    severity: 'stop',
    title: (f) => (f.partitionFits ? 'The card’s partition is too large' : 'The partition does not fit the card'),
    because: (f) =>
      f.partitionFits
        ? `${f.partitionMiB} MiB are ${(f.partitionMiB / 1024).toFixed(1)} GiB; it reads ${f.limitGiB} GiB.`
        : `${f.partitionMiB} MiB are more than the card has.`,
    do: ['Make the partition smaller: a large card then does as well.'],
    mends: (_, offers) => offers.partition(),
    why: 'A boot loader that cannot read a card boots as before, without a word.',
  }),
  rule({
    id: 'prepare.card-file-system',
    question: 'Is the card formatted as its boot loader reads it?',
    source: 'the file system that its boot loader reads, by its card',
    needs: ['fileSystem', 'fileSystemWanted'],
    asks: hasCard,
    fails: (f) => f.fileSystem !== f.fileSystemWanted,
    severity: 'stop',
    title: (f) => `The card is to be ${f.fileSystem}, and it reads ${f.fileSystemWanted}`,
    because: () => 'Cards above 32 GB are sold with exFAT.',
    do: ['Format the partition anew.'],
    mends: (_, offers) => offers.fileSystem(),
    why: 'What it cannot read is not there for it.',
  }),
  rule({
    id: 'prepare.card-room',
    question: 'Does the image fit the partition?',
    source: 'FAT file system specification 1.03: 32 bits for the size of a file',
    needs: ['imageFitsCard', 'imageBytes'],
    asks: (f) => hasCard(f) && hasImage(f),
    fails: (f) => !f.imageFitsCard,
    severity: 'stop',
    title: () => 'The image does not fit the partition',
    because: (f) => `It has ${sayBytes(f.imageBytes)}.`,
    do: ['Take a larger partition or a larger card.'],
    mends: (_, offers) => offers.partition(),
    why: 'A copy that is cut short is an image that does not run.',
  }),
  rule({
    id: 'prepare.card-name',
    question: 'Has the file the exact name?',
    source: 'the name that its boot loader looks for, to the letter',
    needs: ['nameWanted', 'nameOnCard', 'nameVerdict'],
    asks: hasCard,
    fails: (f) => f.nameVerdict !== 'ok',
    severity: 'stop',
    title: () => 'The file has the wrong name for it',
    because: (f) => `“${f.nameOnCard}” is not “${f.nameWanted}”: ${NAME_WORDS[f.nameVerdict]}.`,
    do: ['Rename the file on the card, with all endings shown.'],
    mends: (_, offers) => offers.fileName(),
    why: 'A boot loader has no eye for what was meant.',
  }),
  rule({
    id: 'prepare.read-back',
    question: 'Is the copy on the card the image?',
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
] as const;

function isTooLarge({ limitGiB, partitionMiB }: Facts<PrepareFacts>): boolean {
  return limitGiB !== undefined && partitionMiB !== undefined && partitionMiB > limitGiB * 1024 * (1 + 1e-9);
}
