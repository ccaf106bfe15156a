import { REPORT_INTERVAL_MS } from '../core/rtp/receiver-report.ts';
import { writeSenderReport } from '../core/rtp/sender-report.ts';
import { type PayloadPart, packetiseH264 } from '../core/video/h264-packetiser.ts';
import { packetiseH265 } from '../core/video/h265-packetiser.ts';
import { packetiseJpeg, parseBaselineJpeg } from '../core/video/jpeg-payload.ts';
import type { ShownFormat } from './pictures/picture-feed.ts';

export interface SenderCounts {
  readonly sent: number;
  /** Packets left out between the first and the last one sent: what a receiver can know to be missing. */
  readonly dropped: number;
}

interface SenderOptions {
  readonly ssrc: number;
  readonly firstSeq: number;
  readonly payloadType: number;
  readonly clockHz: number;
  /** How fast its time stamps run against the clock of its sender reports, parts in a million. */
  readonly driftPpm: number;
  readonly dropEvery: number | null;
  readonly sendRtp: (packet: Uint8Array) => void;
  readonly sendRtcp: (packet: Uint8Array) => void;
}

export const PICTURE_CLOCK_HZ = 90_000;
const RTP_HEADER_BYTES = 12;

/**
 * One packet of every `dropEvery` is left out, each time one place earlier among them: a fixed place would hit the start
 * of each key frame wherever a group of pictures happens to take a multiple of as many packets.
 * @param number the packet's, from 1
 */
export const isDropped = (number: number, dropEvery: number): boolean =>
  (number + Math.floor((number - 1) / dropEvery)) % dropEvery === 0;

/** Sends payloads as RTP with sender reports, and leaves out packets when its personality says so. */
export class RtpSender {
  #seq: number;
  #sent = 0;
  #octets = 0;
  #dropped = 0;
  #droppedSinceSent = 0;
  #number = 0;
  #lastReportMs: number | null = null;
  #beganMs: number | null = null;

  constructor(private readonly options: SenderOptions) {
    this.#seq = options.firstSeq;
  }

  get counts(): SenderCounts {
    return { sent: this.#sent, dropped: this.#dropped };
  }

  /** @param unixMs when it is sent, by the camera's clock; @param shownMs what its time stamp says */
  send(parts: readonly PayloadPart[], unixMs: number, shownMs: number): void {
    this.#report(unixMs);
    const rtpTimestamp = this.#stampOf(shownMs);
    for (const { payload, marker } of parts) this.#sendPayload(payload, marker, rtpTimestamp);
  }

  #stampOf(ms: number): number {
    const { clockHz, driftPpm } = this.options;
    this.#beganMs ??= ms;
    const run = ms + ((ms - this.#beganMs) * driftPpm) / 1e6;
    return Math.round((run * clockHz) / 1000) % 2 ** 32;
  }

  #report(unixMs: number): void {
    if (this.#lastReportMs !== null && unixMs - this.#lastReportMs < REPORT_INTERVAL_MS) return;
    this.#lastReportMs = unixMs;
    const { ssrc, sendRtcp } = this.options;
    const counts = { packetCount: this.#sent, octetCount: this.#octets };
    sendRtcp(writeSenderReport({ ssrc, unixMs, rtpTimestamp: this.#stampOf(unixMs), ...counts }));
  }

  #sendPayload(payload: Uint8Array, marker: boolean, rtpTimestamp: number): void {
    const seq = this.#seq;
    this.#seq = (this.#seq + 1) & 0xffff;
    this.#number += 1;
    const { dropEvery } = this.options;
    if (dropEvery !== null && isDropped(this.#number, dropEvery)) {
      this.#droppedSinceSent += 1;
      return;
    }
    const packet = new Uint8Array(RTP_HEADER_BYTES + payload.length);
    const view = new DataView(packet.buffer);
    view.setUint8(0, 0x80);
    view.setUint8(1, (marker ? 0x80 : 0) | this.options.payloadType);
    view.setUint16(2, seq);
    view.setUint32(4, rtpTimestamp);
    view.setUint32(8, this.options.ssrc);
    packet.set(payload, RTP_HEADER_BYTES);
    this.options.sendRtp(packet);
    this.#sent += 1;
    this.#octets += payload.length;
    this.#dropped += this.#droppedSinceSent;
    this.#droppedSinceSent = 0;
  }
}

/** A picture as payloads of its codec. */
export function packetise(
  codec: ShownFormat['codec'],
  units: readonly Uint8Array[],
  maxPayloadBytes: number,
): readonly PayloadPart[] {
  if (codec === 'H264') return packetiseH264(units, maxPayloadBytes);
  if (codec === 'H265') return packetiseH265(units, maxPayloadBytes);
  const jpeg = parseBaselineJpeg(units[0] ?? new Uint8Array());
  if (!jpeg.ok) throw new Error(jpeg.error.message); // our own encoder wrote it
  return packetiseJpeg(jpeg.value, maxPayloadBytes);
}
