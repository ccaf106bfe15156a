/** NAL unit types of ITU-T H.264 Table 7-1 that decide anything here. */
export const H264_NAL = { slice: 1, idrSlice: 5, sei: 6, sps: 7, pps: 8, accessUnitDelimiter: 9 } as const;
/** NAL unit types of ITU-T H.265 Table 7-1. */
export const H265_NAL = { firstIrap: 16, lastIrap: 21, vps: 32, sps: 33, pps: 34 } as const;

export const h264NalType = (firstByte: number): number => firstByte & 0x1f;
export const h265NalType = (firstByte: number): number => (firstByte >> 1) & 0x3f;

/**
 * Removes emulation-prevention bytes: 00 00 03 → 00 00. Must come before any field of an RBSP is read.
 * Source: ITU-T H.264 §7.3.1, §7.4.1; H.265 §7.3.1.1.
 */
export function removeEmulationPrevention(nal: Uint8Array): Uint8Array {
  const rbsp = new Uint8Array(nal.length);
  let length = 0;
  let zeros = 0;
  for (const byte of nal) {
    if (zeros >= 2 && byte === 3) {
      zeros = 0;
      continue;
    }
    zeros = byte === 0 ? zeros + 1 : 0;
    rbsp[length++] = byte;
  }
  return rbsp.subarray(0, length);
}
