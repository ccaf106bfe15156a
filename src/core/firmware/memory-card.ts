import { between, wholes } from '../base/range.ts';
import { type Bytes, inGiB } from '../base/units.ts';
import { type FatGeometry, fatGeometry, SECTOR_BYTES } from './fat-geometry.ts';

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
 * Source: SD Physical Layer capacity families (SDSC up to 2 GiB, SDHC up to 32 GiB, SDXC up to 2 TiB); IEC 80000-13.
 */
export function cardSize(bytes: Bytes): CardSize {
  const gib = inGiB(bytes);
  const family = gib <= 2 ? 'SDSC' : gib <= 32 ? 'SDHC' : gib <= 2048 ? 'SDXC' : 'SDUC';
  return {
    bytes,
    sectors: Math.floor(bytes / SECTOR_BYTES),
    mib: bytes / MIB,
    gib,
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

/** Sectors to a cluster by the size of a volume, sectors at most. Source: FAT specification 1.03, DskTableFAT16 and DskTableFAT32. */
const CLUSTERS = {
  FAT16: [
    [32_680, 2],
    [262_144, 4],
    [524_288, 8],
    [1_048_576, 16],
    [2_097_152, 32],
    [4_194_304, 64],
  ],
  FAT32: [
    [532_480, 1],
    [16_777_216, 8],
    [33_554_432, 16],
    [67_108_864, 32],
    [2 ** 32, 64],
  ],
} as const;
/** Sectors before the tables, and entries of the root directory, as formatters make them. Source: FAT specification 1.03. */
const LAYOUT = {
  FAT16: { reserved: 1, rootEntries: 512, assume: 16 },
  FAT32: { reserved: 32, rootEntries: 0, assume: 32 },
} as const;

/** A FAT volume of this size as formatters make it; `null` where it cannot be one: too large, or of too few clusters. */
function fatVolume(sectors: number, fileSystem: 'FAT16' | 'FAT32'): FatGeometry | null {
  const row = CLUSTERS[fileSystem].find(([most]) => sectors <= most);
  if (!row) return null;
  const geometry = fatGeometry({ sectors, sectorsPerCluster: row[1], fats: 2, ...LAYOUT[fileSystem] });
  return geometry.consistent ? geometry : null;
}

/** [A] What exFAT keeps for itself, at most: its tables, its bitmap and the alignment of both. */
const EXFAT_SHARE = 0.998;
const EXFAT_BYTES = 4 * MIB;

/**
 * Bytes that one file may have on a volume; `null` where the volume cannot have this file system. FAT32 needs 65,525
 * clusters, and the room for its tables: below some 33 MiB there is none.
 */
export function roomIn({ sectors }: Pick<Partition, 'sectors'>, fileSystem: FileSystem): number | null {
  if (fileSystem === 'exFAT') return Math.max(0, sectors * SECTOR_BYTES * EXFAT_SHARE - EXFAT_BYTES);
  const volume = fatVolume(sectors, fileSystem);
  if (!volume) return null;
  // on FAT32 the root directory takes a cluster of its own
  return (volume.clusters - (fileSystem === 'FAT32' ? 1 : 0)) * volume.clusterBytes;
}

/** Whether a file lies on a volume whole. */
export const fitsOn = (bytes: number, partition: Pick<Partition, 'sectors'>, fileSystem: FileSystem): boolean =>
  fileFits(bytes, fileSystem) && bytes <= (roomIn(partition, fileSystem) ?? -1);

/** How a partition is formatted for a boot loader: FAT32 where it may be, FAT16 where it is too small for that, else exFAT. */
export function fileSystemFor(cardBytes: Bytes, partition: Pick<Partition, 'sizeMiB' | 'sectors'>): FileSystem {
  const { family } = cardSize(cardBytes);
  const isFat16 = roomIn(partition, 'FAT16') !== null;
  if (family === 'SDSC' && isFat16) return 'FAT16';
  if (partition.sizeMiB > FAT32_UP_TO_MIB) return 'exFAT';
  if (roomIn(partition, 'FAT32') !== null) return 'FAT32';
  return isFat16 ? 'FAT16' : 'exFAT';
}

/** FAT keeps the size of a file in 32 bits. */
const MOST_FAT_BYTES = 2 ** 32 - 1;
/** Source: FAT file system specification 1.03, directory entry; exFAT keeps 64 bits. */
export const fileFits = (bytes: number, fileSystem: FileSystem): boolean =>
  fileSystem === 'exFAT' || bytes <= MOST_FAT_BYTES;
