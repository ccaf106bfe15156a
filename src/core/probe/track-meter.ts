import { type AacPacking, aacPackingOf, aacUnits } from '../audio/aac-payload.ts';
import { FrameTimes } from '../rtp/frame-timing.ts';
import { RateBySecond } from '../rtp/rate-by-second.ts';
import type { ReceptionReport } from '../rtp/receiver-report.ts';
import { parseRtpPacket, type RtpPacket } from '../rtp/rtp-packet.ts';
import { SenderClock } from '../rtp/sender-clock.ts';
import type { SenderReport } from '../rtp/sender-report.ts';
import { TrackReception } from '../rtp/track-reception.ts';
import type { SdpMedia } from '../sdp/sdp-types.ts';
import { parseSps } from '../video/sps.ts';
import { type UnitFault, unitFaultOf } from '../video/unit-limits.ts';
import { PAYLOAD_READERS, type ReadPayload } from './picture-units.ts';
import type { MeasuredMedia } from './probe-types.ts';

const TIMESTAMP_MODULUS = 2 ** 32;
/** Cameras without an rtpmap clock send video on 90 kHz (RFC 3551 §5). */
const DEFAULT_CLOCK_HZ = 90_000;
/** Time stamps that make the stream run this far off the arrival clock are not believed. */
const MAX_TIMESTAMP_ERROR = 0.25;

/** A step of time stamps this far off the arrival clock is a jump: B-frames and late packets stay within a second. */
const MAX_TIMESTAMP_STEP_ERROR_S = 2;

/** A sample shorter than this measures no rate: one key frame more or less would double it. [A] */
const LEAST_SAMPLE_S = 1;
/** [A] A relay sends what it kept at once when one joins: so much faster than it was made, and no later than this. */
const BURST = { speed: 3, aheadS: 0.5, withinS: 2 } as const;

/** Where a stream stood when a frame of it began. */
interface Mark {
  readonly frame: number;
  readonly ticks: number;
  readonly bytes: number;
  readonly atMs: number;
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
  /** Up to where every frame has come, where they come in decoding order. */
  #settled: { readonly frame: number; readonly ticks: number } | null = null;
  #isReordered = false;
  /** Where the steady part of the stream begins. */
  #start: Mark | null = null;
  #firstKey: Mark | null = null;
  #lastKey: Mark | null = null;
  #keyFrames = 0;
  #steadyKeyFrames = 0;
  readonly #times: FrameTimes;
  readonly #rate = new RateBySecond();
  readonly #senderClock: SenderClock;
  #hasBFrames = false;
  #openKeyFrames = 0;
  #shortestGroup = Number.POSITIVE_INFINITY;
  #longestGroup = 0;
  readonly #packing: AacPacking | null;
  #units = 0;
  /** Units up to the last packet but one: those whose length its time stamp tells. */
  #timedUnits = 0;
  #unreadPackets = 0;
  #sps: Uint8Array | null = null;
  #size: readonly [number, number] | null = null;
  #malformed = 0;
  #timestampJumps = 0;
  #unitStamp: number | null = null;
  #unitBytes = 0;
  #unitParts = 0;
  #unitFault: UnitFault | null = null;

  readonly #read: ReadPayload | undefined;

  constructor(private readonly media: SdpMedia) {
    this.#read = PAYLOAD_READERS[media.codec ?? ''];
    this.#clockHz = media.clockRate ?? DEFAULT_CLOCK_HZ;
    this.#reception = new TrackReception(this.#clockHz);
    this.#times = new FrameTimes(this.#clockHz);
    this.#senderClock = new SenderClock(this.#clockHz);
    this.#packing = media.codec === 'MPEG4-GENERIC' ? aacPackingOf(media.fmtp) : null;
  }

  /** Whether key frames are found in what it sends: of other codecs loss and rate alone are measured. */
  get knowsPictures(): boolean {
    return this.#read !== undefined;
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
    if (place === 'duplicate') return { packet, startsKeyFrame: false }; // counted as that, and as nothing else
    if (place === 'newest') this.#noteFrame(packet.rtpTimestamp, atMs);
    if (this.media.kind === 'video') this.#noteUnit(packet);
    this.#firstAtMs ??= atMs;
    this.#lastAtMs = atMs;
    const contents = this.#read?.(packet.payload);
    if (contents?.sps) this.#sps = contents.sps;
    if (contents?.size) this.#size = contents.size;
    const startsKeyFrame = contents?.startsKeyFrame === true && this.#lastKey?.frame !== this.#frames;
    if (startsKeyFrame) {
      if (contents.isOpen) this.#openKeyFrames += 1;
      const group = this.#lastKey ? this.#frames - this.#lastKey.frame : 0;
      if (group > 0) {
        this.#shortestGroup = Math.min(this.#shortestGroup, group);
        this.#longestGroup = Math.max(this.#longestGroup, group);
      }
      this.#lastKey = this.#mark(atMs);
      this.#firstKey ??= this.#lastKey;
      this.#keyFrames += 1;
      this.#steadyKeyFrames += 1;
    }
    this.#bytes += packet.payload.length;
    this.#rate.push(packet.payload.length, atMs);
    if (this.#packing) this.#noteUnits(packet.payload, this.#packing);
    return { packet, startsKeyFrame };
  }

  /** Takes an RTCP packet of this track; its sender report, when it has one. */
  pushRtcp(bytes: Uint8Array, atMs: number): SenderReport | null {
    const report = this.#reception.pushRtcp(bytes, atMs);
    if (report) this.#senderClock.push(report);
    return report;
  }

  #noteUnits(payload: Uint8Array, packing: AacPacking): void {
    const units = aacUnits(payload, packing);
    if (!units) this.#unreadPackets += 1;
    this.#timedUnits = this.#units;
    this.#units += units?.length ?? 0;
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
    if (this.#start === null || this.#isBurst(this.#start, atMs)) {
      this.#start = this.#mark(atMs);
      this.#times.restart();
      this.#minTicks = this.#ticks;
      this.#maxTicks = this.#ticks;
      this.#settled = null;
      this.#isReordered = false;
      this.#firstKey = null;
      this.#lastKey = null;
      this.#shortestGroup = Number.POSITIVE_INFINITY;
      this.#longestGroup = 0;
      this.#steadyKeyFrames = 0;
    }
    this.#times.push(this.#ticks, atMs);
    this.#minTicks = Math.min(this.#minTicks, this.#ticks);
    if (this.#ticks > this.#maxTicks) {
      // B-frames come after the later picture that they are made from, and before the next such one
      this.#settled = { frame: this.#frames - 1, ticks: this.#maxTicks };
      this.#maxTicks = this.#ticks;
    } else if (this.#ticks < this.#maxTicks) {
      this.#isReordered = true;
      this.#hasBFrames = true;
    }
  }

  #mark(atMs: number): Mark {
    return { frame: this.#frames, ticks: this.#ticks, bytes: this.#bytes, atMs };
  }

  /** Whether what came since then came faster than it was made: the group that a relay had kept, sent first. */
  #isBurst(since: Mark, atMs: number): boolean {
    const madeS = (this.#ticks - since.ticks) / this.#clockHz;
    const cameS = (atMs - since.atMs) / 1000;
    const isEarly = atMs - (this.#firstAtMs ?? atMs) <= BURST.withinS * 1000;
    return isEarly && madeS - cameS > BURST.aheadS && madeS > BURST.speed * cameS;
  }

  /** What was measured so far; `null` before the first packet. */
  measured(): MeasuredMedia | null {
    if (this.#firstAtMs === null || this.#lastAtMs === null) return null;
    const counts = this.#reception.totals;
    const start = this.#start ?? { frame: 1, ticks: 0, bytes: 0, atMs: this.#firstAtMs };
    const arrivalS = (this.#lastAtMs - start.atMs) / 1000;
    const stampedS = (this.#maxTicks - this.#minTicks) / this.#clockHz;
    const isBelieved = arrivalS < 0.5 || Math.abs(stampedS - arrivalS) <= MAX_TIMESTAMP_ERROR * arrivalS;
    const spanS = isBelieved ? stampedS : arrivalS;
    const isVideo = this.media.kind === 'video';
    const gaps = this.#frames - start.frame;
    // n frames last one frame time longer than from the first to the last.
    const isEnough = gaps > 0 && arrivalS + arrivalS / gaps >= LEAST_SAMPLE_S * 0.95;
    const fps = isVideo ? this.#fps(start.frame, gaps, spanS, isBelieved) : null;
    const between = this.#keyFrameGap(isBelieved);
    const sps =
      this.#sps && this.media.codec ? parseSps(this.media.codec === 'H265' ? 'h265' : 'h264', this.#sps) : null;
    const timing = this.#times.timing(
      this.#isReordered && this.#settled ? this.#settled.frame - start.frame + 1 : undefined,
    );
    const clock = this.#timestampJumps > 0 ? null : (timing?.clock ?? null);
    const pace = this.#senderClock.pace;
    return {
      seconds: round((this.#lastAtMs - this.#firstAtMs) / 1000, 3),
      packets: counts.received,
      lost: counts.neverArrived,
      duplicates: counts.duplicates,
      reordered: counts.late,
      sourceChanges: this.#reception.sourceChanges,
      timestampJumps: this.#timestampJumps,
      lossEvents: counts.lossEvents,
      lossRatio: round(counts.expected > 0 ? counts.neverArrived / counts.expected : 0, 6),
      jitterMs: timing && round(timing.delayP95Ms, 2),
      longestGapMs: timing && round(timing.longestGapMs, 2),
      fps: fps === null ? null : round(fps, 2),
      bitrateKbps: isEnough ? round(between?.kbps ?? this.#wholeKbps(spanS, gaps, start.bytes), 1) : null,
      keyframeIntervalFrames: between ? round(between.frames, 1) : null,
      keyframeIntervalSeconds: between ? round(between.seconds, 3) : null,
      secondsSinceKeyFrame: this.#lastKey ? round((this.#lastAtMs - this.#lastKey.atMs) / 1000, 3) : null,
      width: sps?.ok ? sps.value.width : (this.#size?.[0] ?? null),
      height: sps?.ok ? sps.value.height : (this.#size?.[1] ?? null),
      vuiFps: sps?.ok && sps.value.fps ? round(sps.value.fps[0] / sps.value.fps[1], 3) : null,
      bFrames: isVideo && this.#sendsInterFrames ? this.#hasBFrames || (gaps >= LEAST_FRAMES ? false : null) : null,
      closedKeyFrames: this.#keyFrames - this.#openKeyFrames,
      openKeyFrames: this.#openKeyFrames,
      groupSpreadFrames:
        isVideo && this.#steadyKeyFrames > 2 && this.#sendsInterFrames
          ? this.#longestGroup - this.#shortestGroup
          : null,
      kbpsBySecond: this.#rate.kbps,
      clockRatio: clock && round(clock.ratio, 4),
      clockRatioError: clock && round(clock.plusMinus, 4),
      clockPpm: pace && round(pace.ppm, 1),
      clockPpmError: pace && round(pace.plusMinusPpm, 1),
      ticksPerUnit: this.#timedUnits > 0 ? round((this.#maxTicks - this.#minTicks) / this.#timedUnits, 1) : null,
      unreadPackets: this.#unreadPackets,
    };
  }

  /** Every picture of JPEG stands alone. */
  get #sendsInterFrames(): boolean {
    return this.media.codec === 'H264' || this.media.codec === 'H265';
  }

  /** A sample that ends between B-frames has seen the picture after them: it is counted up to where none is missing. */
  #fps(firstFrame: number, gaps: number, spanS: number, isBelieved: boolean): number | null {
    const settled = this.#isReordered && isBelieved ? this.#settled : null;
    const settledS = settled ? (settled.ticks - this.#minTicks) / this.#clockHz : 0;
    if (settled && settledS > 0 && settled.frame > firstFrame) return (settled.frame - firstFrame) / settledS;
    return gaps > 0 && spanS > 0 ? gaps / spanS : null;
  }

  /** Rate over the whole sample: n frames last one frame time longer than from the first to the last. */
  #wholeKbps(spanS: number, gaps: number, bytesBefore: number): number {
    const lastsS = spanS + spanS / gaps;
    return lastsS > 0 ? ((this.#bytes - bytesBefore) * 8) / lastsS / 1000 : 0;
  }

  /** Over whole groups of pictures; by the clock of arrival where time stamps are not believed. */
  #keyFrameGap(isBelieved: boolean): { frames: number; seconds: number; kbps: number } | null {
    const [first, last] = [this.#firstKey, this.#lastKey];
    if (!first || !last || last.frame === first.frame || this.media.codec === 'JPEG') return null;
    const groups = this.#steadyKeyFrames - 1;
    const lastsS = isBelieved ? (last.ticks - first.ticks) / this.#clockHz : (last.atMs - first.atMs) / 1000;
    if (lastsS <= 0) return null;
    return {
      frames: (last.frame - first.frame) / groups,
      seconds: lastsS / groups,
      kbps: ((last.bytes - first.bytes) * 8) / lastsS / 1000,
    };
  }
}

/** Of fewer frames nothing is said about their order: two of them may lie between B-frames. */
const LEAST_FRAMES = 10;

const round = (value: number, digits: number): number => Number(value.toFixed(digits));
