import { type Fault, fault } from '../base/fault.ts';
import { err, ok, type Result } from '../base/result.ts';

export interface RtpPacket {
  readonly marker: boolean;
  readonly payloadType: number;
  readonly sequenceNumber: number;
  /** In ticks of the payload's clock; wraps at 2^32. */
  readonly rtpTimestamp: number;
  readonly ssrc: number;
  /** A view into the bytes given. */
  readonly payload: Uint8Array;
}

const FIXED_BYTES = 12;

const truncated = (bytes: Uint8Array, wanted: number) =>
  err(fault('rtp.truncated' as const, `Expected ${wanted} bytes of headers, got ${bytes.length}`));

/**
 * Reads one RTP packet, past CSRCs, header extension and padding. Every packet of a stream passes here: it is read by its
 * places, without a reader of its own. Source: RFC 3550 §5.1, §5.3.1.
 */
export function parseRtpPacket(
  bytes: Uint8Array,
): Result<RtpPacket, Fault<'rtp.version' | 'rtp.truncated' | 'rtp.padding'>> {
  const { length } = bytes;
  const first = bytes[0] ?? 0;
  if (length > 0 && first >> 6 !== 2) return err(fault('rtp.version', `Expected RTP version 2, got ${first >> 6}`));
  if (length < FIXED_BYTES) return truncated(bytes, FIXED_BYTES);
  const at = (place: number): number => bytes[place] ?? 0;
  let from = FIXED_BYTES + 4 * (first & 0x0f);
  if (first & 0x10) {
    if (from + 4 > length) return truncated(bytes, from + 4);
    from += 4 + 4 * (at(from + 2) * 0x100 + at(from + 3));
  }
  if (from > length) return truncated(bytes, from);
  const padding = first & 0x20 ? at(length - 1) : 0;
  if (first & 0x20 && (padding === 0 || padding > length - from))
    return err(fault('rtp.padding', `Expected 1 to ${length - from} padding bytes, got ${padding}`));
  const second = at(1);
  return ok({
    marker: (second & 0x80) !== 0,
    payloadType: second & 0x7f,
    sequenceNumber: at(2) * 0x100 + at(3),
    rtpTimestamp: ((at(4) << 24) | (at(5) << 16) | (at(6) << 8) | at(7)) >>> 0,
    ssrc: ((at(8) << 24) | (at(9) << 16) | (at(10) << 8) | at(11)) >>> 0,
    payload: bytes.subarray(from, length - padding),
  });
}
