import { ShortRead } from '../base/bytes.ts';
import { err, ok, type Result } from '../base/result.ts';
import { parseH264Sps } from './h264-sps.ts';
import { parseH265Sps } from './h265-sps.ts';
import type { Sps, SpsFault } from './sps-types.ts';

/**
 * Reads a sequence parameter set: what the encoder says of its picture before a single pixel.
 * @param nal the NAL unit with its header, no start code
 * Faults: `truncated` when bits run out, `not-sps` for another NAL type, `out-of-range` for sizes no level allows.
 * Source: ITU-T H.264 §7.3.2.1, Annex E; H.265 §7.3.2.2, Annex E.
 */
export function parseSps(codec: 'h264' | 'h265', nal: Uint8Array): Result<Sps, SpsFault> {
  try {
    const sps = codec === 'h264' ? parseH264Sps(nal) : parseH265Sps(nal);
    return typeof sps === 'string' ? err(sps) : ok(sps);
  } catch (error) {
    if (error instanceof ShortRead) return err('truncated');
    throw error;
  }
}
