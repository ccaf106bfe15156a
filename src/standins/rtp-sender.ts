import { REPORT_INTERVAL_MS } from '../core/rtp/receiver-report.ts';
import { writeSenderReport } from '../core/rtp/sender-report.ts';
import { type PayloadPart, packetiseH264 } from '../core/video/h264-packetiser.ts';
import { packetiseJpeg, parseBaselineJpeg } from '../core/video/jpeg-payload.ts';
import type { Picture } from './pictures/picture-feed.ts';

export interface SenderCounts {
  readonly sent: number;
  /** Packets left out between the first and the last one sent: what a receiver can know to be missing. */
  readonly dropped: number;
}

interface SenderOptions {
  readonly ssrc: number;
  readonly firstSeq: number;
  readonly codec: 'H264' | 'JPEG';
  readonly payloadType: number;
  readonly maxPayloadBytes: number;
  readonly dropEvery: number | null;
  readonly sendRtp: (packet: Uint8Array) => void;
  readonly sendRtcp: (packet: Uint8Array) => void;
}

const CLOCK_HZ = 90_000;
const RTP_HEADER_BYTES = 12;

/**
 * One packet of every `dropEvery` is left out, each time one place earlier among them: a fixed place would hit the start
 * of each key frame wherever a group of pictures happens to take a multiple of as many packets.
 * @param number the packet's, from 1
 */
export const isDropped = (number: number, dropEvery: number): boolean =>
  (number + Math.floor((number - 1) / dropEvery)) % dropEvery === 0;

/** Sends pictures as RTP with sender reports, and leaves out packets when its personality says so. */
export class RtpSender {
  #seq: number;
  #sent = 0;
  #octets = 0;
  #dropped = 0;
  #droppedSinceSent = 0;
  #number = 0;
  #lastReportMs: number | null = null;

  constructor(private readonly options: SenderOptions) {
    this.#seq = options.firstSeq;
  }

  get counts(): SenderCounts {
    return { sent: this.#sent, dropped: this.#dropped };
  }

  send(picture: Picture): void {
    const rtpTimestamp = Math.round((picture.unixMs * CLOCK_HZ) / 1000) % 2 ** 32;
    if (this.#lastReportMs === null || picture.unixMs - this.#lastReportMs >= REPORT_INTERVAL_MS) {
      this.#lastReportMs = picture.unixMs;
      const { ssrc } = this.options;
      const report = { ssrc, unixMs: picture.unixMs, rtpTimestamp, packetCount: this.#sent, octetCount: this.#octets };
      this.options.sendRtcp(writeSenderReport(report));
    }
    for (const { payload, marker } of this.#packetise(picture.units)) this.#sendPayload(payload, marker, rtpTimestamp);
  }

  #packetise(units: readonly Uint8Array[]): readonly PayloadPart[] {
    const { codec, maxPayloadBytes } = this.options;
    if (codec === 'H264') return packetiseH264(units, maxPayloadBytes);
    const jpeg = parseBaselineJpeg(units[0] ?? new Uint8Array());
    if (!jpeg.ok) throw new Error(jpeg.error.message); // our own encoder wrote it
    return packetiseJpeg(jpeg.value, maxPayloadBytes);
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
