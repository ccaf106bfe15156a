import { ByteReader } from '../base/byte-reader.ts';
import { ShortRead } from '../base/bytes.ts';
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

/** Reads one RTP packet, past CSRCs, header extension and padding. Source: RFC 3550 §5.1, §5.3.1. */
export function parseRtpPacket(
  bytes: Uint8Array,
): Result<RtpPacket, Fault<'rtp.version' | 'rtp.truncated' | 'rtp.padding'>> {
  const reader = new ByteReader(bytes);
  try {
    const first = reader.u8('version');
    if (first >> 6 !== 2) return err(fault('rtp.version', `Expected RTP version 2, got ${first >> 6}`));
    const second = reader.u8('payload type');
    const sequenceNumber = reader.u16('sequence number');
    const rtpTimestamp = reader.u32('timestamp');
    const ssrc = reader.u32('SSRC');
    reader.skip(4 * (first & 0x0f), 'CSRC list');
    if (first & 0x10) {
      reader.skip(2, 'extension profile');
      reader.skip(4 * reader.u16('extension length'), 'header extension');
    }
    const padding = first & 0x20 ? (bytes[bytes.length - 1] ?? 0) : 0;
    if (first & 0x20 && (padding === 0 || padding > reader.bytesLeft))
      return err(fault('rtp.padding', `Expected 1 to ${reader.bytesLeft} padding bytes, got ${padding}`));
    const payload = reader.take(reader.bytesLeft - padding, 'payload');
    return ok({
      marker: (second & 0x80) !== 0,
      payloadType: second & 0x7f,
      sequenceNumber,
      rtpTimestamp,
      ssrc,
      payload,
    });
  } catch (error) {
    if (error instanceof ShortRead) return err(fault('rtp.truncated', error.message));
    throw error;
  }
}
