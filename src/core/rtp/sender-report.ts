import { ByteReader } from '../base/byte-reader.ts';
import { ShortRead } from '../base/bytes.ts';

export interface SenderReport {
  readonly ssrc: number;
  /**
   * The sender's wall clock at `rtpTimestamp`, in ms since 1970; `null` where it has none: a sender without one may report 0,
   * or the time since it started (RFC 3550 §6.4.1). Taken for that are all times before 1970, which no camera's clock shows.
   */
  readonly unixMs: number | null;
  /** The middle 32 bits of its NTP time stamp, as a receiver report gives them back (RFC 3550 §4). */
  readonly ntpMiddle: number;
  readonly rtpTimestamp: number;
  readonly packetCount: number;
}

/** RFC 3550 §6.4.1: packet type of a sender report. */
const SENDER_REPORT = 200;
/** Seconds from 1900-01-01 (NTP era 0) to 1970-01-01 (RFC 5905 §6). */
export const NTP_TO_UNIX_S = 2_208_988_800;

/** The first sender report of a compound RTCP packet, or `null` when there is none or it is cut short. Source: RFC 3550 §6.4.1. */
export function findSenderReport(bytes: Uint8Array): SenderReport | null {
  const reader = new ByteReader(bytes);
  try {
    while (reader.bytesLeft > 0) {
      const first = reader.u8('version');
      const type = reader.u8('packet type');
      const words = reader.u16('length');
      if (first >> 6 !== 2) return null;
      const body = new ByteReader(reader.take(4 * words, 'RTCP packet'));
      if (type !== SENDER_REPORT) continue;
      const ssrc = body.u32('SSRC');
      const ntpSeconds = body.u32('NTP seconds');
      const ntpFraction = body.u32('NTP fraction');
      const rtpTimestamp = body.u32('RTP timestamp');
      const packetCount = body.u32("sender's packet count");
      const hasClock = ntpSeconds >= NTP_TO_UNIX_S;
      const unixMs = hasClock ? (ntpSeconds - NTP_TO_UNIX_S) * 1000 + (ntpFraction / 2 ** 32) * 1000 : null;
      const ntpMiddle = (ntpSeconds % 0x10000) * 0x10000 + Math.floor(ntpFraction / 0x10000);
      return { ssrc, unixMs, ntpMiddle, rtpTimestamp, packetCount };
    }
    return null;
  } catch (error) {
    if (error instanceof ShortRead) return null;
    throw error;
  }
}

/** A sender report as bytes, with no report blocks. */
export function writeSenderReport(
  report: Omit<SenderReport, 'ntpMiddle'> & { readonly octetCount: number },
): Uint8Array {
  const unixMs = report.unixMs ?? -NTP_TO_UNIX_S * 1000;
  const bytes = new Uint8Array(28);
  const view = new DataView(bytes.buffer);
  const ntpSeconds = Math.floor(unixMs / 1000) + NTP_TO_UNIX_S;
  view.setUint8(0, 0x80);
  view.setUint8(1, SENDER_REPORT);
  view.setUint16(2, 6);
  view.setUint32(4, report.ssrc);
  view.setUint32(8, ntpSeconds % 2 ** 32);
  view.setUint32(12, Math.floor(((((unixMs % 1000) + 1000) % 1000) / 1000) * 2 ** 32));
  view.setUint32(16, report.rtpTimestamp);
  view.setUint32(20, report.packetCount);
  view.setUint32(24, report.octetCount);
  return bytes;
}

const TIMESTAMP_MODULUS = 2 ** 32;

/**
 * When a picture was taken, by the camera's own clock: a sender report ties one RTP time stamp to a wall clock, and the
 * others follow from the payload's clock rate. Source: RFC 3550 §6.4.1.
 * @returns ms since 1970; `null` where the camera has no clock
 */
export function takenUnixMs(report: SenderReport, rtpTimestamp: number, clockHz: number): number | null {
  if (report.unixMs === null) return null;
  let ticks = (rtpTimestamp - report.rtpTimestamp) % TIMESTAMP_MODULUS;
  if (ticks > TIMESTAMP_MODULUS / 2) ticks -= TIMESTAMP_MODULUS;
  if (ticks < -TIMESTAMP_MODULUS / 2) ticks += TIMESTAMP_MODULUS;
  return report.unixMs + (ticks * 1000) / clockHz;
}
