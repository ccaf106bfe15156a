import type { BitReader } from '../base/bit-reader.ts';

export type SpsFault = 'truncated' | 'not-sps' | 'out-of-range';

interface CommonSps {
  /** Picture shown, after cropping, in luma samples. */
  readonly width: number;
  readonly height: number;
  readonly codedWidth: number;
  readonly codedHeight: number;
  readonly profileIdc: number;
  readonly profile: string;
  readonly levelIdc: number;
  readonly level: string;
  readonly chromaFormatIdc: number;
  readonly bitDepthLuma: number;
  /** Frames a second as a reduced fraction; `null` when the VUI has no timing. It may lie: RTP time stamps tell. */
  readonly fps: readonly [number, number] | null;
  /** Sample aspect ratio; `null` without VUI. */
  readonly sar: readonly [number, number] | null;
  readonly fullRange: boolean | null;
}
export interface H264Sps extends CommonSps {
  readonly codec: 'h264';
  readonly refFrames: number;
  readonly interlacedTools: boolean;
}
export interface H265Sps extends CommonSps {
  readonly codec: 'h265';
  readonly tier: 'Main' | 'High';
}
export type Sps = H264Sps | H265Sps;

/** Largest side any level of H.265 allows is 16,888; beyond that the bits are noise (H.265 §A.4.1). */
export const MAX_SIDE = 16_888;

export function reduced(numerator: number, denominator: number): readonly [number, number] | null {
  if (numerator <= 0 || denominator <= 0) return null;
  let [a, b] = [numerator, denominator];
  while (b > 0) [a, b] = [b, a % b];
  return [numerator / a, denominator / a];
}

/** Table E-1 (both standards): sample aspect ratio by aspect_ratio_idc; 255 is Extended_SAR. */
const SAMPLE_ASPECT: readonly (readonly [number, number])[] = [
  [1, 1], // 0: unspecified, shown as square
  [1, 1],
  [12, 11],
  [10, 11],
  [16, 11],
  [40, 33],
  [24, 11],
  [20, 11],
  [32, 11],
  [80, 33],
  [18, 11],
  [15, 11],
  [64, 33],
  [160, 99],
  [4, 3],
  [3, 2],
  [2, 1],
];
const EXTENDED_SAR = 255;

/** The start of vui_parameters(), the same in both standards up to chroma_loc_info. Source: H.264 §E.1.1, H.265 §E.2.1. */
export function readVuiHead(bits: BitReader): { sar: readonly [number, number]; fullRange: boolean | null } {
  let sar: readonly [number, number] = [1, 1];
  if (bits.flag('aspect_ratio_info_present_flag')) {
    const idc = bits.u(8, 'aspect_ratio_idc');
    sar = idc === EXTENDED_SAR ? [bits.u(16, 'sar_width'), bits.u(16, 'sar_height')] : (SAMPLE_ASPECT[idc] ?? [1, 1]);
  }
  if (bits.flag('overscan_info_present_flag')) bits.skip(1, 'overscan_appropriate_flag');
  let fullRange: boolean | null = null;
  if (bits.flag('video_signal_type_present_flag')) {
    bits.skip(3, 'video_format');
    fullRange = bits.flag('video_full_range_flag');
    if (bits.flag('colour_description_present_flag')) bits.skip(24, 'colour_primaries');
  }
  if (bits.flag('chroma_loc_info_present_flag')) {
    bits.ue('chroma_sample_loc_type_top_field');
    bits.ue('chroma_sample_loc_type_bottom_field');
  }
  return { sar, fullRange };
}
