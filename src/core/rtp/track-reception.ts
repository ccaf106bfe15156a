import { JitterMeter } from './jitter.ts';
import type { ReceptionReport } from './receiver-report.ts';
import { type PacketPlace, ReceptionCounter, type ReceptionTotals } from './reception.ts';
import type { RtpPacket } from './rtp-packet.ts';
import { findSenderReport, type SenderReport } from './sender-report.ts';

/**
 * How one track arrives: loss, order and jitter of its source, and what to report back to the sender. A change of SSRC
 * is believed after two packets in a row, as a change of sequence is; the counts go on.
 * Source: RFC 3550 §6.4.1, §8.2, §A.1.
 */
export class TrackReception {
  readonly #counter = new ReceptionCounter(0);
  readonly #jitter: JitterMeter;
  #ssrc: number | null = null;
  #newcomer: { ssrc: number; nextSeq: number } | null = null;
  #sourceChanges = 0;
  #senderReport: { report: SenderReport; atMs: number } | null = null;

  constructor(clockHz: number) {
    this.#jitter = new JitterMeter(clockHz);
  }

  /** Takes one packet and says how it stands in the source. */
  push(packet: RtpPacket, atMs: number): PacketPlace {
    const { ssrc, sequenceNumber } = packet;
    this.#ssrc ??= ssrc;
    if (ssrc !== this.#ssrc) {
      if (this.#newcomer?.ssrc !== ssrc || this.#newcomer.nextSeq !== sequenceNumber) {
        this.#newcomer = { ssrc, nextSeq: (sequenceNumber + 1) & 0xffff };
        return 'refused';
      }
      this.#ssrc = ssrc;
      this.#sourceChanges += 1;
      this.#senderReport = null;
      this.#counter.sourceChanged(sequenceNumber);
      this.#jitter.restart();
      return 'newest';
    }
    this.#newcomer = null;
    const place = this.#counter.push(sequenceNumber);
    if (place === 'newest' || place === 'behind') this.#jitter.push(packet.rtpTimestamp, atMs);
    return place;
  }

  /** Takes an RTCP packet; its sender report, when it has one. */
  pushRtcp(bytes: Uint8Array, atMs: number): SenderReport | null {
    const report = findSenderReport(bytes);
    if (report) this.#senderReport = { report, atMs };
    return report;
  }

  get totals(): ReceptionTotals {
    return this.#counter.totals;
  }
  get sourceChanges(): number {
    return this.#sourceChanges + this.#counter.counts.restarts;
  }
  /** The latest sender report, for putting time stamps on the camera's clock. */
  get senderReport(): SenderReport | null {
    return this.#senderReport?.report ?? null;
  }

  /** What to tell the sender now; ends the interval. `null` before the first packet. */
  report(nowMs: number): ReceptionReport | null {
    if (this.#ssrc === null) return null;
    const { fractionLost, cumulativeLost, extendedMax } = this.#counter.report();
    const last = this.#senderReport;
    return {
      ssrc: this.#ssrc,
      fractionLost,
      cumulativeLost,
      extendedMax,
      jitterTicks: this.#jitter.value.jitterReported,
      lastSenderReport: last?.report.ntpMiddle ?? 0,
      delaySinceLast: last ? Math.round(((nowMs - last.atMs) / 1000) * 65_536) : 0,
    };
  }
}
