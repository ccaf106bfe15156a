import { BitReader } from '../base/bit-reader.ts';
import { H264_NAL, h264NalType, removeEmulationPrevention } from './nal.ts';
import { type H264Sps, MAX_SIDE, readVuiHead, reduced, type SpsFault } from './sps-types.ts';

/** Profiles whose SPS carries chroma format, bit depth and scaling lists. Source: H.264 §7.3.2.1.1. */
const HIGH_PROFILES = new Set([100, 110, 122, 244, 44, 83, 86, 118, 128]);

const PROFILE_NAMES: Readonly<Record<number, string>> = {
  66: 'Baseline',
  77: 'Main',
  88: 'Extended',
  100: 'High',
  110: 'High 10',
  122: 'High 4:2:2',
  244: 'High 4:4:4 Predictive',
};

const profileName = (profileIdc: number, constraintFlags: number): string =>
  profileIdc === 66 && constraintFlags & 0x40
    ? 'Constrained Baseline'
    : (PROFILE_NAMES[profileIdc] ?? `profile ${profileIdc}`);

/** Level 1b is level_idc 11 with constraint_set3 in profiles 66, 77 and 88, or level_idc 9. Source: H.264 §A.3.1. */
function levelName(profileIdc: number, constraintFlags: number, levelIdc: number): string {
  const is1b = levelIdc === 9 || (levelIdc === 11 && constraintFlags & 0x10 && [66, 77, 88].includes(profileIdc));
  return is1b ? '1b' : `${Math.floor(levelIdc / 10)}.${levelIdc % 10}`;
}

/** seq_parameter_set_data(). Raises ShortRead when bits run out. Source: H.264 §7.3.2.1.1; cropping §7.4.2.1.1. */
export function parseH264Sps(nal: Uint8Array): H264Sps | SpsFault {
  if (nal.length === 0) return 'truncated';
  if (h264NalType(nal[0] ?? 0) !== H264_NAL.sps) return 'not-sps';
  const bits = new BitReader(removeEmulationPrevention(nal.subarray(1)));
  const profileIdc = bits.u(8, 'profile_idc');
  const constraintFlags = bits.u(8, 'constraint_set_flags');
  const levelIdc = bits.u(8, 'level_idc');
  bits.ue('seq_parameter_set_id');

  let chromaFormatIdc = 1;
  let separatePlanes = false;
  let bitDepthLuma = 8;
  if (HIGH_PROFILES.has(profileIdc)) {
    chromaFormatIdc = bits.ue('chroma_format_idc');
    if (chromaFormatIdc === 3) separatePlanes = bits.flag('separate_colour_plane_flag');
    bitDepthLuma = 8 + bits.ue('bit_depth_luma_minus8');
    bits.ue('bit_depth_chroma_minus8');
    bits.skip(1, 'qpprime_y_zero_transform_bypass_flag');
    if (bits.flag('seq_scaling_matrix_present_flag')) skipScalingLists(bits, chromaFormatIdc === 3 ? 12 : 8);
  }
  bits.ue('log2_max_frame_num_minus4');
  skipPictureOrder(bits);
  const refFrames = bits.ue('max_num_ref_frames');
  bits.skip(1, 'gaps_in_frame_num_value_allowed_flag');
  const widthInMbs = bits.ue('pic_width_in_mbs_minus1') + 1;
  const heightInMapUnits = bits.ue('pic_height_in_map_units_minus1') + 1;
  const frameMbsOnly = bits.flag('frame_mbs_only_flag');
  if (!frameMbsOnly) bits.skip(1, 'mb_adaptive_frame_field_flag');
  bits.skip(1, 'direct_8x8_inference_flag');
  let crop = { left: 0, right: 0, top: 0, bottom: 0 };
  if (bits.flag('frame_cropping_flag'))
    crop = {
      left: bits.ue('crop_left'),
      right: bits.ue('crop_right'),
      top: bits.ue('crop_top'),
      bottom: bits.ue('crop_bottom'),
    };

  // CropUnitX = SubWidthC, CropUnitY = SubHeightC × (2 − frame_mbs_only_flag); monochrome and separate planes: 1.
  const subsampled = !separatePlanes && chromaFormatIdc;
  const cropX = subsampled === 1 || subsampled === 2 ? 2 : 1;
  const cropY = (subsampled === 1 ? 2 : 1) * (frameMbsOnly ? 1 : 2);
  const codedWidth = 16 * widthInMbs;
  const codedHeight = 16 * heightInMapUnits * (frameMbsOnly ? 1 : 2);
  const width = codedWidth - cropX * (crop.left + crop.right);
  const height = codedHeight - cropY * (crop.top + crop.bottom);
  if (width <= 0 || height <= 0 || codedWidth > MAX_SIDE || codedHeight > MAX_SIDE) return 'out-of-range';

  const vui = bits.flag('vui_parameters_present_flag') ? readVui(bits) : { sar: null, fullRange: null, fps: null };
  return {
    codec: 'h264',
    width,
    height,
    codedWidth,
    codedHeight,
    profileIdc,
    profile: profileName(profileIdc, constraintFlags),
    levelIdc,
    level: levelName(profileIdc, constraintFlags, levelIdc),
    chromaFormatIdc,
    bitDepthLuma,
    refFrames,
    interlacedTools: !frameMbsOnly,
    ...vui,
  };
}

function skipScalingLists(bits: BitReader, count: number): void {
  for (let list = 0; list < count; list++) {
    if (!bits.flag('seq_scaling_list_present_flag')) continue;
    let next = 8;
    for (let i = 0, last = 8; i < (list < 6 ? 16 : 64) && next !== 0; i++) {
      next = (last + bits.se('delta_scale') + 256) % 256;
      if (next !== 0) last = next;
    }
  }
}

function skipPictureOrder(bits: BitReader): void {
  const type = bits.ue('pic_order_cnt_type');
  if (type === 0) bits.ue('log2_max_pic_order_cnt_lsb_minus4');
  if (type !== 1) return;
  bits.skip(1, 'delta_pic_order_always_zero_flag');
  bits.se('offset_for_non_ref_pic');
  bits.se('offset_for_top_to_bottom_field');
  const cycle = bits.ue('num_ref_frames_in_pic_order_cnt_cycle');
  for (let i = 0; i < cycle; i++) bits.se('offset_for_ref_frame');
}

/** H.264 §E.1.1; a frame is two ticks: fps = time_scale / (2 × num_units_in_tick) (§E.2.1, Table E-6). */
function readVui(bits: BitReader) {
  const { sar, fullRange } = readVuiHead(bits);
  if (!bits.flag('timing_info_present_flag')) return { sar, fullRange, fps: null };
  const numUnitsInTick = bits.u(32, 'num_units_in_tick');
  const timeScale = bits.u(32, 'time_scale');
  return { sar, fullRange, fps: reduced(timeScale, 2 * numUnitsInTick) };
}
