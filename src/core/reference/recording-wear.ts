import { type BitsPerSecond, type Bytes, bytes, type Seconds } from '../base/units.ts';

const SECONDS_PER_DAY = 86_400;
const SECONDS_PER_HOUR = 3600;
const DAYS_PER_YEAR = 365;

export const inTiB = (size: Bytes): number => size / 2 ** 40;

/**
 * Years until a medium has taken the bytes it is rated for.
 * @param ratedBytes total bytes written of the data sheet
 * @param writeAmplification bytes the medium writes for each byte given (2 is an assumption)
 */
export function enduranceYears(
  rate: BitsPerSecond,
  hoursPerDay: number,
  writeAmplification: number,
  ratedBytes: Bytes,
): { readonly perDay: Bytes; readonly years: number } {
  const perDay = bytes((rate / 8) * SECONDS_PER_HOUR * hoursPerDay);
  return { perDay, years: ratedBytes / (perDay * writeAmplification) / DAYS_PER_YEAR };
}

/** Bytes a card may take in host writes: capacity × cycles ÷ amplification. The amplification is spent here, not again. */
export const ratedBytesByCycles = (card: Bytes, cycles: number, writeAmplification: number): Bytes =>
  bytes((card * cycles) / writeAmplification);

/** What cutting a recording into files costs: a header and half a cluster of slack for each. */
export function segmentOverhead(
  rate: BitsPerSecond,
  segment: Seconds,
  headerBytes: number,
  clusterBytes: number,
): { readonly filesPerDay: number; readonly overheadPerDay: Bytes; readonly fraction: number } {
  const filesPerDay = SECONDS_PER_DAY / segment;
  const overheadPerDay = bytes(filesPerDay * (headerBytes + clusterBytes / 2));
  return { filesPerDay, overheadPerDay, fraction: overheadPerDay / ((rate / 8) * SECONDS_PER_DAY) };
}
