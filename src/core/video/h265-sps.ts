import { BitReader } from '../base/bit-reader.ts';
import { H265_NAL, h265NalType, removeEmulationPrevention } from './nal.ts';
import { type H265Sps, MAX_SIDE, readVuiHead, reduced, type SpsFault } from './sps-types.ts';

const PROFILE_NAMES: Readonly<Record<number, string>> = {
  1: 'Main',
  2: 'Main 10',
  3: 'Main Still Picture',
  4: 'Format Range Extensions',
};
/** More short-term reference sets than H.265 §7.4.3.2.1 allows: the bits are noise. */
const MAX_SHORT_TERM_SETS = 64;

/** seq_parameter_set_rbsp(). Raises ShortRead when bits run out. Source: H.265 §7.3.2.2.1. */
export function parseH265Sps(nal: Uint8Array): H265Sps | SpsFault {
  if (nal.length < 2) return 'truncated';
  if (h265NalType(nal[0] ?? 0) !== H265_NAL.sps) return 'not-sps';
  const bits = new BitReader(removeEmulationPrevention(nal.subarray(2)));
  bits.skip(4, 'sps_video_parameter_set_id');
  const maxSubLayersMinus1 = bits.u(3, 'sps_max_sub_layers_minus1');
  bits.skip(1, 'sps_temporal_id_nesting_flag');
  const profile = readProfileTierLevel(bits, maxSubLayersMinus1);
  bits.ue('sps_seq_parameter_set_id');
  const chromaFormatIdc = bits.ue('chroma_format_idc');
  if (chromaFormatIdc === 3) bits.skip(1, 'separate_colour_plane_flag');
  const codedWidth = bits.ue('pic_width_in_luma_samples');
  const codedHeight = bits.ue('pic_height_in_luma_samples');
  let [width, height] = [codedWidth, codedHeight];
  if (bits.flag('conformance_window_flag')) {
    // Table 6-1: SubWidthC and SubHeightC by chroma_format_idc.
    const unitX = chromaFormatIdc === 1 || chromaFormatIdc === 2 ? 2 : 1;
    const unitY = chromaFormatIdc === 1 ? 2 : 1;
    width -= unitX * (bits.ue('conf_win_left_offset') + bits.ue('conf_win_right_offset'));
    height -= unitY * (bits.ue('conf_win_top_offset') + bits.ue('conf_win_bottom_offset'));
  }
  if (width <= 0 || height <= 0 || codedWidth > MAX_SIDE || codedHeight > MAX_SIDE) return 'out-of-range';
  const bitDepthLuma = 8 + bits.ue('bit_depth_luma_minus8');
  bits.ue('bit_depth_chroma_minus8');
  const log2MaxPocLsb = 4 + bits.ue('log2_max_pic_order_cnt_lsb_minus4');
  const allSubLayers = bits.flag('sps_sub_layer_ordering_info_present_flag');
  for (let i = allSubLayers ? 0 : maxSubLayersMinus1; i <= maxSubLayersMinus1; i++)
    for (const field of [
      'sps_max_dec_pic_buffering_minus1',
      'sps_max_num_reorder_pics',
      'sps_max_latency_increase_plus1',
    ])
      bits.ue(field);
  for (const field of [
    'log2_min_luma_coding_block_size_minus3',
    'log2_diff_max_min_luma_coding_block_size',
    'log2_min_luma_transform_block_size_minus2',
    'log2_diff_max_min_luma_transform_block_size',
    'max_transform_hierarchy_depth_inter',
    'max_transform_hierarchy_depth_intra',
  ])
    bits.ue(field);
  if (bits.flag('scaling_list_enabled_flag') && bits.flag('sps_scaling_list_data_present_flag')) skipScalingLists(bits);
  bits.skip(2, 'amp_enabled_flag');
  if (bits.flag('pcm_enabled_flag')) {
    bits.skip(8, 'pcm_sample_bit_depth');
    bits.ue('log2_min_pcm_luma_coding_block_size_minus3');
    bits.ue('log2_diff_max_min_pcm_luma_coding_block_size');
    bits.skip(1, 'pcm_loop_filter_disabled_flag');
  }
  if (!skipShortTermSets(bits)) return 'out-of-range';
  if (bits.flag('long_term_ref_pics_present_flag')) {
    const count = bits.ue('num_long_term_ref_pics_sps');
    for (let i = 0; i < count; i++) bits.skip(log2MaxPocLsb + 1, 'lt_ref_pic_poc_lsb_sps');
  }
  bits.skip(2, 'sps_temporal_mvp_enabled_flag');
  const vui = bits.flag('vui_parameters_present_flag') ? readVui(bits) : { sar: null, fullRange: null, fps: null };
  return { codec: 'h265', width, height, codedWidth, codedHeight, chromaFormatIdc, bitDepthLuma, ...profile, ...vui };
}

/** profile_tier_level(1, …), H.265 §7.3.3; level = general_level_idc / 30 (§A.4.1). */
function readProfileTierLevel(bits: BitReader, maxSubLayersMinus1: number) {
  bits.skip(2, 'general_profile_space');
  const tier: H265Sps['tier'] = bits.flag('general_tier_flag') ? 'High' : 'Main';
  const profileIdc = bits.u(5, 'general_profile_idc');
  bits.skip(32 + 48, 'general_profile_compatibility_flags');
  const levelIdc = bits.u(8, 'general_level_idc');
  const present: { profile: boolean; level: boolean }[] = [];
  for (let i = 0; i < maxSubLayersMinus1; i++)
    present.push({
      profile: bits.flag('sub_layer_profile_present_flag'),
      level: bits.flag('sub_layer_level_present_flag'),
    });
  if (maxSubLayersMinus1 > 0) bits.skip(2 * (8 - maxSubLayersMinus1), 'reserved_zero_2bits');
  for (const layer of present)
    bits.skip((layer.profile ? 88 : 0) + (layer.level ? 8 : 0), 'sub_layer_profile_tier_level');
  const profile = PROFILE_NAMES[profileIdc] ?? `profile ${profileIdc}`;
  return { tier, profileIdc, profile, levelIdc, level: (levelIdc / 30).toFixed(1) };
}

/** scaling_list_data(), H.265 §7.3.4. */
function skipScalingLists(bits: BitReader): void {
  for (let sizeId = 0; sizeId < 4; sizeId++)
    for (let matrixId = 0; matrixId < 6; matrixId += sizeId === 3 ? 3 : 1) {
      if (!bits.flag('scaling_list_pred_mode_flag')) {
        bits.ue('scaling_list_pred_matrix_id_delta');
        continue;
      }
      if (sizeId > 1) bits.se('scaling_list_dc_coef_minus8');
      for (let i = 0; i < Math.min(64, 1 << (4 + (sizeId << 1))); i++) bits.se('scaling_list_delta_coef');
    }
}

/** All st_ref_pic_set(i) of the SPS; only their sizes matter here. Source: H.265 §7.3.7, (7-59)…(7-62). */
function skipShortTermSets(bits: BitReader): boolean {
  const count = bits.ue('num_short_term_ref_pic_sets');
  if (count > MAX_SHORT_TERM_SETS) return false;
  let previousDeltas = 0;
  for (let set = 0; set < count; set++) {
    if (set > 0 && bits.flag('inter_ref_pic_set_prediction_flag')) {
      bits.skip(1, 'delta_rps_sign');
      bits.ue('abs_delta_rps_minus1');
      let deltas = 0;
      for (let j = 0; j <= previousDeltas; j++) {
        const used = bits.flag('used_by_curr_pic_flag');
        if (used || bits.flag('use_delta_flag')) deltas += 1;
      }
      previousDeltas = deltas;
      continue;
    }
    const pictures = bits.ue('num_negative_pics') + bits.ue('num_positive_pics');
    for (let i = 0; i < pictures; i++) {
      bits.ue('delta_poc_minus1');
      bits.skip(1, 'used_by_curr_pic_flag');
    }
    previousDeltas = pictures;
  }
  return true;
}

/** H.265 §E.2.1; one picture is one tick: fps = vui_time_scale / vui_num_units_in_tick. */
function readVui(bits: BitReader) {
  const { sar, fullRange } = readVuiHead(bits);
  bits.skip(3, 'neutral_chroma_indication_flag');
  if (bits.flag('default_display_window_flag'))
    for (const side of ['left', 'right', 'top', 'bottom']) bits.ue(`def_disp_win_${side}_offset`);
  if (!bits.flag('vui_timing_info_present_flag')) return { sar, fullRange, fps: null };
  const numUnitsInTick = bits.u(32, 'vui_num_units_in_tick');
  const timeScale = bits.u(32, 'vui_time_scale');
  return { sar, fullRange, fps: reduced(timeScale, numUnitsInTick) };
}
