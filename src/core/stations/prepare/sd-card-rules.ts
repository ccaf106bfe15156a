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
    id: 'prepare.sd-card',
    question: 'Is the SD card for the firmware file planned?',
    source: 'the SD card as it is planned',
    needs: ['hasCard'],
    asks: writes,
    judge: (f) => (f.hasCard ? 'ok' : 'unknown'),
    when: {
      unknown: {
        severity: 'caution',
        title: () => 'SD card not planned',
        because: () => 'Its size decides how it is partitioned.',
        do: ['Enter the size of the SD card at the bench.'],
      },
    },
    why: 'Most reflashes that do nothing fail because the SD card is too large.',
  }),
  rule({
    id: 'prepare.sd-card-partition',
    question: 'Can its boot loader read the partition?',
    source: 'largest partition that its boot loader reads, by its model card',
    needs: ['partitionFits', 'partitionMiB'],
    asks: hasCard,
    fails: (f) => !f.partitionFits || isTooLarge(f),
    severity: 'stop',
    title: (f) => (f.partitionFits ? 'Partition too large' : 'Partition larger than the SD card'),
    because: (f) =>
      f.partitionFits
        ? `${f.partitionMiB} MiB are ${(f.partitionMiB / 1024).toFixed(1)} GiB; it reads ${f.limitGiB} GiB.`
        : `${f.partitionMiB} MiB are more than the SD card has.`,
    do: ['Make the partition smaller: a large SD card then works as well.'],
    mends: (_, offers) => offers.partition(),
    why: 'A boot loader that cannot read an SD card boots as before, without any message.',
  }),
  rule({
    id: 'prepare.sd-card-file-system',
    question: 'Can its boot loader read the file system?',
    source: 'the file system that its boot loader reads, by its model card; FAT specification 1.03 (count of clusters)',
    needs: ['fileSystem', 'fileSystemWanted', 'isFileSystemPossible', 'partitionMiB'],
    asks: hasCard,
    fails: (f) => f.fileSystem !== f.fileSystemWanted || !f.isFileSystemPossible,
    severity: 'stop',
    title: (f) =>
      f.fileSystem === f.fileSystemWanted
        ? `No ${f.fileSystem} on a partition of this size`
        : `File system ${f.fileSystem} instead of ${f.fileSystemWanted}`,
    because: (f) =>
      f.fileSystem === f.fileSystemWanted
        ? `${f.partitionMiB} MiB: FAT32 needs 65 525 clusters, some 33 MiB; FAT16 ends at 2 GiB.`
        : 'SD cards above 32 GB are sold with exFAT.',
    do: (f) =>
      f.fileSystem === f.fileSystemWanted
        ? ['Make the partition larger, or smaller for FAT16.']
        : ['Format the partition again.'],
    mends: (_, offers) => offers.fileSystem(),
    why: 'What the boot loader cannot read does not exist for it.',
  }),
  rule({
    id: 'prepare.sd-card-room',
    question: 'Does the firmware file fit the partition?',
    source: 'FAT file system specification 1.03: 32 bits for the size of a file',
    needs: ['imageFitsCard', 'imageBytes'],
    asks: (f) => hasCard(f) && hasImage(f),
    fails: (f) => !f.imageFitsCard,
    severity: 'stop',
    title: () => 'Firmware file larger than the partition',
    because: (f) => `It has ${sayBytes(f.imageBytes)}.`,
    do: ['Use a larger partition or a larger SD card.'],
    mends: (_, offers) => offers.partition(),
    why: 'A copy that is cut short does not run.',
  }),
  rule({
    id: 'prepare.sd-card-name',
    question: 'Is the file name exact?',
    source: 'the name that its boot loader looks for, letter by letter',
    needs: ['nameWanted', 'nameOnCard', 'nameVerdict'],
    asks: hasCard,
    fails: (f) => f.nameVerdict !== 'ok',
    severity: 'stop',
    title: () => 'Wrong file name',
    because: (f) => `“${f.nameOnCard}” is not “${f.nameWanted}”: ${NAME_WORDS[f.nameVerdict]}.`,
    do: ['Rename the file on the SD card, with all extensions shown.'],
    mends: (_, offers) => offers.fileName(),
    why: 'A boot loader accepts only the exact name.',
  }),
  rule({
    id: 'prepare.read-back',
    question: 'Is the copy on the SD card identical?',
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
        severity: 'caution',
        title: () => 'Copy on the SD card not compared',
        because: () => 'The file was not read back from the SD card.',
        do: ['Remove the SD card, insert it again, and drop its file here.'],
      },
      'will-not-work': {
        severity: 'stop',
        title: (f) => (f.readBack?.isSame ? 'Wrong file name on the SD card' : 'Copy on the SD card differs'),
        because: (f) =>
          f.readBack?.isSame
            ? `It is called “${f.readBack.fileName}”: ${NAME_WORDS[f.readBack.nameVerdict]}.`
            : 'Its SHA-256 differs from that of the firmware file.',
        do: ['Copy it again, eject the SD card properly, and compare again. An SD card that fails twice is worn.'],
      },
    },
    why: 'Cheap SD cards lose data; one that is removed too early never had it.',
  }),
] as const;

function isTooLarge({ limitGiB, partitionMiB }: Facts<PrepareFacts>): boolean {
  return limitGiB !== undefined && partitionMiB !== undefined && partitionMiB > limitGiB * 1024 * (1 + 1e-9);
}
