export const SECTOR_BYTES = 512;

export interface FatInput {
  /** Of the volume. */
  readonly sectors: number;
  readonly sectorsPerCluster: number;
  readonly reserved: number;
  readonly fats: number;
  /** Of the root directory; 0 on FAT32. */
  readonly rootEntries: number;
  /** What its formatter meant to make. */
  readonly assume: 12 | 16 | 32;
}

export interface FatGeometry {
  readonly fatSectors: number;
  readonly dataSectors: number;
  readonly clusters: number;
  readonly type: 'FAT12' | 'FAT16' | 'FAT32';
  readonly clusterBytes: number;
  /** It is what its formatter meant to make. */
  readonly consistent: boolean;
}

/** FAT specification 1.03: fewer clusters are FAT12, fewer than these FAT16, else FAT32. */
const FAT12_BELOW = 4085;
const FAT16_BELOW = 65_525;
const ROOT_ENTRY_BYTES = 32;

/**
 * How a FAT volume is laid out. The number of clusters decides what it is, not its label.
 * Source: FAT file system specification 1.03, “FAT Volume Initialization” and “FAT Type Determination”.
 * 29 GiB with clusters of 16 KiB: 1 899 615 clusters, FAT32.
 */
export function fatGeometry({
  sectors,
  sectorsPerCluster,
  reserved,
  fats,
  rootEntries,
  assume,
}: FatInput): FatGeometry {
  const root = Math.ceil((ROOT_ENTRY_BYTES * rootEntries) / SECTOR_BYTES);
  const perFatSector = 256 * sectorsPerCluster + fats;
  const t = assume === 32 ? Math.floor(perFatSector / 2) : perFatSector;
  const fatSectors = Math.ceil((sectors - reserved - root) / t);
  const dataSectors = sectors - reserved - fats * fatSectors - root;
  const clusters = Math.floor(dataSectors / sectorsPerCluster);
  const type = clusters < FAT12_BELOW ? 'FAT12' : clusters < FAT16_BELOW ? 'FAT16' : 'FAT32';
  return {
    fatSectors,
    dataSectors,
    clusters,
    type,
    clusterBytes: sectorsPerCluster * SECTOR_BYTES,
    consistent: type === `FAT${assume}`,
  };
}
