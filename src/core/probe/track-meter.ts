import type { ReceptionReport } from '../rtp/receiver-report.ts';
import { parseRtpPacket, type RtpPacket } from '../rtp/rtp-packet.ts';
import type { SenderReport } from '../rtp/sender-report.ts';
import { TrackReception } from '../rtp/track-reception.ts';
import type { SdpMedia } from '../sdp/sdp-types.ts';
import { parseSps } from '../video/sps.ts';
import { type UnitFault, unitFaultOf } from '../video/unit-limits.ts';
import { PAYLOAD_READERS } from './picture-units.ts';
import type { MeasuredMedia } from './probe-types.ts';

const TIMESTAMP_MODULUS = 2 ** 32;
/** Cameras without an rtpmap clock send video on 90 kHz (RFC 3551 §5). */
const DEFAULT_CLOCK_HZ = 90_000;
/** Time stamps that make the stream run this far off the arrival clock are not believed. */
const MAX_TIMESTAMP_ERROR = 0.25;

/** A step of time stamps this far off the arrival clock is a jump: B-frames and late packets stay within a second. */
const MAX_TIMESTAMP_STEP_ERROR_S = 2;

interface KeyFrame {
  readonly frame: number;
  readonly ticks: number;
  readonly bytes: number;
}

export interface MeteredPacket {
  readonly packet: RtpPacket;
  readonly startsKeyFrame: boolean;
}

/**
 * Measures one track from its RTP packets: loss and jitter (RFC 3550), frames a second from time stamps, rate and
 * key-frame interval over whole groups of pictures where the sample holds one.
 */
export class TrackMeter {
  readonly #clockHz: number;
  readonly #reception: TrackReception;
  #firstAtMs: number | null = null;
  #lastAtMs: number | null = null;
  #bytes = 0;
  #frames = 0;
  #frameStamp: number | null = null;
  #ticks = 0;
  #minTicks = 0;
  #maxTicks = 0;
  #firstKey: KeyFrame | null = null;
  #lastKey: KeyFrame | null = null;
  #keyFrames = 0;
  #sps: Uint8Array | null = null;
  #size: readonly [number, number] | null = null;
  #malformed = 0;
  #timestampJumps = 0;
  #unitStamp: number | null = null;
  #unitBytes = 0;
  #unitParts = 0;
  #unitFault: UnitFault | null = null;

  constructor(private readonly media: SdpMedia) {
    this.#clockHz = media.clockRate ?? DEFAULT_CLOCK_HZ;
    this.#reception = new TrackReception(this.#clockHz);
  }

  get lastAtMs(): number | null {
    return this.#lastAtMs;
  }
  get malformedPackets(): number {
    return this.#malformed;
  }
  get hasKeyFrame(): boolean {
    return this.#keyFrames > 0;
  }
  /** Set when a picture of it has no end. */
  get unitFault(): UnitFault | null {
    return this.#unitFault;
  }
  /** The latest SPS that came in band. */
  get sps(): Uint8Array | null {
    return this.#sps;
  }

  /** Takes one packet; `null` when it is no RTP of this track. */
  push(bytes: Uint8Array, atMs: number): MeteredPacket | null {
    const parsed = parseRtpPacket(bytes);
    if (!parsed.ok) {
      this.#malformed += 1;
      return null;
    }
    const packet = parsed.value;
    const place = this.#reception.push(packet, atMs);
    if (place === 'refused') return null;
    if (place === 'newest') this.#noteFrame(packet.rtpTimestamp, atMs);
    if (this.media.kind === 'video') this.#noteUnit(packet);
    this.#firstAtMs ??= atMs;
    this.#lastAtMs = atMs;
    const contents = PAYLOAD_READERS[this.media.codec ?? '']?.(packet.payload);
    if (contents?.sps) this.#sps = contents.sps;
    if (contents?.size) this.#size = contents.size;
    const startsKeyFrame = contents?.startsKeyFrame === true && this.#lastKey?.frame !== this.#frames;
    if (startsKeyFrame) {
      this.#lastKey = { frame: this.#frames, ticks: this.#ticks, bytes: this.#bytes };
      this.#firstKey ??= this.#lastKey;
      this.#keyFrames += 1;
    }
    this.#bytes += packet.payload.length;
    return { packet, startsKeyFrame };
  }

  /** Takes an RTCP packet of this track; its sender report, when it has one. */
  pushRtcp(bytes: Uint8Array, atMs: number): SenderReport | null {
    return this.#reception.pushRtcp(bytes, atMs);
  }
  /** What to tell the sender now. */
  report(nowMs: number): ReceptionReport | null {
    return this.#reception.report(nowMs);
  }

  /** Packets of one time stamp make one picture, up to its marker (RFC 6184 §5.1, RFC 7798 §4.1, RFC 2435 §3). */
  #noteUnit({ payload, rtpTimestamp, marker }: RtpPacket): void {
    if (rtpTimestamp !== this.#unitStamp) {
      this.#unitStamp = rtpTimestamp;
      this.#unitBytes = 0;
      this.#unitParts = 0;
    }
    this.#unitBytes += payload.length;
    this.#unitParts += 1;
    this.#unitFault ??= unitFaultOf(this.#unitBytes, this.#unitParts);
    if (marker) this.#unitStamp = null;
  }

  #noteFrame(stamp: number, atMs: number): void {
    if (stamp === this.#frameStamp) return;
    if (this.#frameStamp !== null) {
      let step = (stamp - this.#frameStamp) % TIMESTAMP_MODULUS;
      if (step > TIMESTAMP_MODULUS / 2) step -= TIMESTAMP_MODULUS;
      if (step < -TIMESTAMP_MODULUS / 2) step += TIMESTAMP_MODULUS;
      const arrivalTicks = ((atMs - (this.#lastAtMs ?? atMs)) * this.#clockHz) / 1000;
      const isJump = Math.abs(step - arrivalTicks) > MAX_TIMESTAMP_STEP_ERROR_S * this.#clockHz;
      if (isJump) this.#timestampJumps += 1;
      // A jump says nothing of the time that passed; the arrival clock does.
      this.#ticks += isJump ? arrivalTicks : step; // goes back and forth where B-frames are sent in decoding order
    }
    this.#frameStamp = stamp;
    this.#frames += 1;
    this.#minTicks = Math.min(this.#minTicks, this.#ticks);
    this.#maxTicks = Math.max(this.#maxTicks, this.#ticks);
  }

  /** What was measured so far; `null` before the first packet. */
  measured(): MeasuredMedia | null {
    if (this.#firstAtMs === null || this.#lastAtMs === null) return null;
    const counts = this.#reception.totals;
    const arrivalS = (this.#lastAtMs - this.#firstAtMs) / 1000;
    const spanS = this.#spanS(arrivalS);
    const isVideo = this.media.kind === 'video';
    const gaps = this.#frames - 1;
    const fps = isVideo && gaps > 0 && spanS > 0 ? gaps / spanS : null;
    const between = this.#keyFrameGap();
    const sps =
      this.#sps && this.media.codec ? parseSps(this.media.codec === 'H265' ? 'h265' : 'h264', this.#sps) : null;
    return {
      seconds: round(arrivalS, 3),
      packets: counts.received,
      lost: counts.neverArrived,
      duplicates: counts.duplicates,
      reordered: counts.late,
      sourceChanges: this.#reception.sourceChanges,
      timestampJumps: this.#timestampJumps,
      lossRatio: round(counts.expected > 0 ? counts.neverArrived / counts.expected : 0, 6),
      jitterMs: round(this.#reception.jitterMs, 2),
      fps: fps === null ? null : round(fps, 2),
      bitrateKbps: round(between?.kbps ?? this.#wholeKbps(spanS, gaps), 1),
      keyframeIntervalFrames: between ? round(between.frames, 1) : null,
      keyframeIntervalSeconds: between ? round(between.seconds, 3) : null,
      width: sps?.ok ? sps.value.width : (this.#size?.[0] ?? null),
      height: sps?.ok ? sps.value.height : (this.#size?.[1] ?? null),
    };
  }

  #spanS(arrivalS: number): number {
    const stampedS = (this.#maxTicks - this.#minTicks) / this.#clockHz;
    const isBelieved = arrivalS < 0.5 || Math.abs(stampedS - arrivalS) <= MAX_TIMESTAMP_ERROR * arrivalS;
    return isBelieved ? stampedS : arrivalS;
  }

  /** Rate over the whole sample: n frames last one frame time longer than from the first to the last. */
  #wholeKbps(spanS: number, gaps: number): number {
    const lastsS = gaps > 0 ? spanS + spanS / gaps : spanS;
    return lastsS > 0 ? (this.#bytes * 8) / lastsS / 1000 : 0;
  }

  #keyFrameGap(): { frames: number; seconds: number; kbps: number } | null {
    const [first, last] = [this.#firstKey, this.#lastKey];
    if (!first || !last || last.frame === first.frame || this.media.codec === 'JPEG') return null;
    const groups = this.#keyFrames - 1;
    const lastsS = (last.ticks - first.ticks) / this.#clockHz;
    if (lastsS <= 0) return null;
    return {
      frames: (last.frame - first.frame) / groups,
      seconds: lastsS / groups,
      kbps: ((last.bytes - first.bytes) * 8) / lastsS / 1000,
    };
  }
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits));
