import { between, wholes } from '../base/range.ts';
import { type Bytes, inGiB } from '../base/units.ts';

export const SECTOR_BYTES = 512;
export const MIB = 1024 * 1024;
const SECTORS_PER_MIB = MIB / SECTOR_BYTES;

export const FILE_SYSTEMS = ['FAT16', 'FAT32', 'exFAT'] as const;
export type FileSystem = (typeof FILE_SYSTEMS)[number];

/** What a card may be: below a megabyte there is none, above 2 TB an SDUC card, which no boot loader reads. */
export const CARD_RANGES = {
  bytes: wholes(1_000_000, 2e12, 'bytes'),
  limitGiB: between(0.001, 2048, 'GiB'),
} as const;

export interface CardSize {
  readonly bytes: number;
  /** Of 512 bytes, whole ones. */
  readonly sectors: number;
  readonly mib: number;
  readonly gib: number;
  readonly family: 'SDSC' | 'SDHC' | 'SDXC' | 'SDUC';
  /** How such a card is sold. */
  readonly usualFileSystem: FileSystem;
}

/**
 * A memory card by its size. “32 GB” is 32 · 10^9 bytes = 29.80 GiB.
 * Source: SD Physical Layer capacity families (SDSC up to 2 GB, SDHC up to 32 GB, SDXC up to 2 TB); IEC 80000-13.
 */
export function cardSize(bytes: Bytes): CardSize {
  const family = bytes <= 2e9 ? 'SDSC' : bytes <= 32e9 ? 'SDHC' : bytes <= 2e12 ? 'SDXC' : 'SDUC';
  return {
    bytes,
    sectors: Math.floor(bytes / SECTOR_BYTES),
    mib: bytes / MIB,
    gib: inGiB(bytes),
    family,
    usualFileSystem: family === 'SDSC' ? 'FAT16' : family === 'SDHC' ? 'FAT32' : 'exFAT',
  };
}

export interface Partition {
  readonly startSector: number;
  readonly sectors: number;
  readonly endSector: number;
  readonly startByte: number;
  readonly sizeMiB: number;
  readonly fits: boolean;
  /** Its end can be named in 32 bits, as a partition table of the MBR does. */
  readonly lbaFits32: boolean;
  /** MiB left behind it; `null` when it does not fit. */
  readonly unusedMiB: number | null;
}

/**
 * One primary partition at the first aligned place of a card.
 * @param alignMiB where it begins, MiB
 * @param sizeMiB as wanted; `null` takes the rest, rounded down to the alignment
 * Source: 512-byte sectors. 32 GB, 1 MiB: sectors 2048 to 62 498 815, 30 516 MiB.
 */
export function partitionOf(cardBytes: Bytes, alignMiB: number, sizeMiB: number | null): Partition {
  const total = Math.floor(cardBytes / SECTOR_BYTES);
  const align = Math.round(alignMiB * SECTORS_PER_MIB);
  const rest = Math.max(0, Math.floor((total - align) / align) * align);
  const sectors = sizeMiB === null ? rest : Math.round(sizeMiB * SECTORS_PER_MIB);
  const endSector = align + sectors - 1;
  const fits = sectors > 0 && endSector < total;
  return {
    startSector: align,
    sectors,
    endSector,
    startByte: align * SECTOR_BYTES,
    sizeMiB: sectors / SECTORS_PER_MIB,
    fits,
    lbaFits32: endSector < 2 ** 32,
    unusedMiB: fits ? (total - 1 - endSector) / SECTORS_PER_MIB : null,
  };
}

/** [A] Cards are erased in blocks of this, MiB: a partition that begins on one is written without reading it first. */
export const ALIGN_MIB = 1;

/**
 * The largest partition that a device reads on this card: up to its limit, or the whole card where that is smaller.
 * @param limitGiB largest that it reads; `null` where none is known
 */
export function partitionWithin(cardBytes: Bytes, limitGiB: number | null): Partition {
  const whole = partitionOf(cardBytes, ALIGN_MIB, null);
  const most = limitGiB === null ? Number.POSITIVE_INFINITY : Math.floor(limitGiB * 1024);
  return whole.sizeMiB <= most ? whole : partitionOf(cardBytes, ALIGN_MIB, most);
}

/** [A] Largest partition that is usually formatted FAT32, MiB. */
const FAT32_UP_TO_MIB = 32 * 1024;

/** How a partition is formatted for a boot loader: FAT32 where it may be, as the card was sold where it is larger or very small. */
export function fileSystemFor(cardBytes: Bytes, { sizeMiB }: Pick<Partition, 'sizeMiB'>): FileSystem {
  const { family } = cardSize(cardBytes);
  if (family === 'SDSC') return 'FAT16';
  return sizeMiB <= FAT32_UP_TO_MIB ? 'FAT32' : 'exFAT';
}

/** FAT keeps the size of a file in 32 bits. */
const MOST_FAT_BYTES = 2 ** 32 - 1;
/** Source: FAT file system specification 1.03, directory entry; exFAT keeps 64 bits. */
export const fileFits = (bytes: number, fileSystem: FileSystem): boolean =>
  fileSystem === 'exFAT' || bytes <= MOST_FAT_BYTES;
