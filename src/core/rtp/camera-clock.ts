import type { SenderReport } from './sender-report.ts';

const TIMESTAMP_MODULUS = 2 ** 32;

/**
 * When a picture was taken, by the camera's own clock: a sender report ties one RTP time stamp to a wall clock, and the
 * others follow from the payload's clock rate. Source: RFC 3550 §6.4.1.
 */
/** @returns `null` where the camera has no clock */
export function takenUnixMs(report: SenderReport, rtpTimestamp: number, clockHz: number): number | null {
  if (report.unixMs === null) return null;
  let ticks = (rtpTimestamp - report.rtpTimestamp) % TIMESTAMP_MODULUS;
  if (ticks > TIMESTAMP_MODULUS / 2) ticks -= TIMESTAMP_MODULUS;
  if (ticks < -TIMESTAMP_MODULUS / 2) ticks += TIMESTAMP_MODULUS;
  return report.unixMs + (ticks * 1000) / clockHz;
}
