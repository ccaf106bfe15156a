import { aacUnits } from '../audio/aac-payload.ts';
import { type SoundFormat, soundFormatOf, soundNameOf } from '../audio/sound-format.ts';
import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import { driveEffectOf } from '../machine/client-drive.ts';
import type { DriveEffect, DriveInput, Machine } from '../machine/machine.ts';
import { fillUrl } from '../net/path-login.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import { REPORT_INTERVAL_MS, writeReceiverReport } from '../rtp/receiver-report.ts';
import { parseRtpPacket } from '../rtp/rtp-packet.ts';
import { takenUnixMs } from '../rtp/sender-report.ts';
import { TrackReception } from '../rtp/track-reception.ts';
import { RtspClient } from '../rtsp/client.ts';
import type { ClientEffect, ClientInput, Track } from '../rtsp/client-types.ts';
import { declaredParameterSets } from '../sdp/sdp-parser.ts';
import { h264CodecString, h265CodecString } from '../video/codec-strings.ts';
import { JpegDepacketiser } from '../video/jpeg-depacketiser.ts';
import { H264_NAL, H265_NAL, h264NalType, h265NalType } from '../video/nal.ts';
import { type AccessUnit, annexB, NalDepacketiser } from '../video/nal-depacketiser.ts';

type LiveTimer = 'answer' | 'keepAlive' | 'report' | 'tearDown';
export type LiveInput = DriveInput<LiveTimer>;

/** `codecString` is what a decoder is set up with; `null` where no page can be given that codec. */
export type LiveEffect =
  | DriveEffect<LiveTimer>
  | { readonly kind: 'format'; readonly codec: string; readonly codecString: string | null }
  | {
      readonly kind: 'picture';
      readonly accessUnit: Uint8Array;
      readonly isKeyFrame: boolean;
      /** By the camera's own clock; `null` before it reported. */
      readonly takenUnixMs: number | null;
    }
  /** What comes beside the picture; `format` is `null` where no page can be given it. */
  | { readonly kind: 'sound'; readonly codec: string; readonly format: SoundFormat | null }
  | { readonly kind: 'heard'; readonly unit: Uint8Array }
  /** It is no more, and why. */
  | { readonly kind: 'ended'; readonly message: string };

export interface LiveOptions {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly gate: ProofGate;
  readonly knownFingerprint: string | null;
  readonly userAgent: string;
  /** What the page calls pictures that come as files, one by one. */
  readonly pictureFormat: string;
  readonly cnonce: () => string;
  readonly ownSsrc: number;
}

/** How long an answer may take, and how long a TEARDOWN: a camera that does not answer TEARDOWN by then is left. */
export const LIVE_TIMEOUT_MS = 5000;
const TEARDOWN_MS = 500;
const DEFAULT_CLOCK_HZ = 90_000;

type NalCodec = 'H264' | 'H265';
const isSps = (codec: NalCodec, [first = 0]: Uint8Array): boolean =>
  codec === 'H264' ? h264NalType(first) === H264_NAL.sps : h265NalType(first) === H265_NAL.sps;

/**
 * Draws a stream and gives its pictures as they complete, until it is cancelled or the camera ends it; then the camera is
 * sent TEARDOWN. A codec that no page can be given is said plainly.
 */
export class LiveMachine implements Machine<LiveInput, LiveEffect> {
  readonly #client: RtspClient;
  #units: NalDepacketiser | null = null;
  #sound: { readonly track: Track; readonly format: SoundFormat } | null = null;
  readonly #jpeg = new JpegDepacketiser();
  #effects: LiveEffect[] = [];
  #reception: TrackReception | null = null;
  #video: Track | null = null;
  #parameterSets: readonly Uint8Array[] = [];
  #announced: string | null = null;
  #isOver = false;
  #isLeaving = false;

  constructor(private readonly options: LiveOptions) {
    const { url, credentials, userAgent, cnonce, gate, knownFingerprint } = options;
    this.#client = new RtspClient({
      ...fillUrl(url, credentials),
      credentials,
      gate,
      knownFingerprint,
      transport: 'auto',
      userAgent,
      play: true,
      cnonce,
    });
  }

  begin(): readonly LiveEffect[] {
    return [];
  }

  handle(input: LiveInput): readonly LiveEffect[] {
    this.#effects = [];
    if (!this.#isOver) this.#take(input);
    return this.#effects;
  }

  #take(input: LiveInput): void {
    switch (input.kind) {
      case 'resolved':
        return;
      case 'dialFailed':
        return this.#end(input.note);
      case 'broken':
        return this.#end(input.note);
      case 'cancel':
        return this.#leave(input.atMs);
      case 'timer':
        return this.#ring(input.timer, input.atMs);
      default:
        return this.#put(input, input.atMs);
    }
  }

  #ring(timer: LiveTimer, atMs: number): void {
    switch (timer) {
      case 'answer':
        return this.#put({ kind: 'answerTimer', atMs }, atMs);
      case 'keepAlive':
        return this.#put({ kind: 'keepAliveTimer', atMs }, atMs);
      case 'report':
        if (this.#video) this.#sendReport(this.#video, atMs);
        return;
      case 'tearDown':
        return this.#end(null);
    }
  }

  #put(input: ClientInput, atMs: number): void {
    for (const effect of this.#client.handle(input)) if (!this.#isOver) this.#carryOut(effect, atMs);
  }

  #carryOut(effect: ClientEffect, atMs: number): void {
    const done = driveEffectOf(effect, LIVE_TIMEOUT_MS);
    if (done) return this.#emit(done);
    switch (effect.kind) {
      case 'playing':
        return this.#start(effect.tracks, atMs);
      case 'rtp':
        if (effect.track === this.#video) this.#takePacket(effect.packet, effect.track, atMs);
        else if (effect.track === this.#sound?.track) this.#takeSound(effect.packet, this.#sound.format);
        return;
      case 'rtcp':
        if (effect.track === this.#video) this.#reception?.pushRtcp(effect.packet, effect.atMs);
        return;
      case 'failed':
        return this.#fail(effect.note);
      case 'ended':
        return this.#end('The camera ended the stream.');
      default:
        return;
    }
  }

  /** The session may still have to be ended: what failed is told now, `ended` follows. */
  #fail(note: string): void {
    if (this.#isLeaving) return;
    this.#emit({ kind: 'ended', message: note });
    this.#isLeaving = true;
    this.#emit({ kind: 'arm', timer: 'tearDown', afterMs: TEARDOWN_MS });
  }

  #leave(atMs: number): void {
    this.#isLeaving = true;
    this.#emit({ kind: 'arm', timer: 'tearDown', afterMs: TEARDOWN_MS });
    this.#put({ kind: 'stop', atMs }, atMs);
  }

  #start(tracks: readonly Track[], atMs: number): void {
    const video = tracks.find(({ media }) => media.kind === 'video');
    const codec = video?.media.codec ?? null;
    if (!video || (codec !== 'H264' && codec !== 'H265' && codec !== 'JPEG')) {
      this.#emit({ kind: 'format', codec: codec ?? 'unknown', codecString: null });
      return this.#put({ kind: 'stop', atMs }, atMs);
    }
    this.#video = video;
    this.#reception = new TrackReception(video.media.clockRate ?? DEFAULT_CLOCK_HZ);
    this.#sendReport(video, atMs);
    if (codec === 'JPEG') {
      this.#emit({ kind: 'format', codec, codecString: this.options.pictureFormat });
      return this.#announceSound(tracks);
    }
    this.#units = new NalDepacketiser(codec);
    this.#parameterSets = declaredParameterSets(video.media);
    this.#announce(
      this.#parameterSets.find((nal) => isSps(codec, nal)),
      codec,
    );
    this.#announceSound(tracks);
  }

  /** A camera may end a session that never reports; over UDP the report also keeps the way back open. */
  #sendReport(track: Track, atMs: number): void {
    const packet = writeReceiverReport(this.options.ownSsrc, this.#reception?.report(atMs) ?? null);
    this.#emit({ kind: 'arm', timer: 'report', afterMs: REPORT_INTERVAL_MS });
    this.#put({ kind: 'sendRtcp', track, packet, atMs }, atMs);
  }

  /** The decoder is set up anew whenever the profile changes: what arrives wins over what was described. */
  #announce(sps: Uint8Array | undefined, codec: NalCodec): void {
    const codecString = sps ? (codec === 'H264' ? h264CodecString(sps) : h265CodecString(sps)) : null;
    if (codecString === null || codecString === this.#announced) return;
    this.#announced = codecString;
    this.#emit({ kind: 'format', codec, codecString });
  }

  #announceSound(tracks: readonly Track[]): void {
    const track = tracks.find(({ media }) => media.kind === 'audio');
    if (!track) return;
    const format = soundFormatOf(track.media);
    if (format) this.#sound = { track, format };
    this.#emit({ kind: 'sound', codec: soundNameOf(track.media), format });
  }

  #takeSound(bytes: Uint8Array, format: SoundFormat): void {
    const parsed = parseRtpPacket(bytes);
    if (!parsed.ok || parsed.value.payload.length === 0) return;
    const { payload } = parsed.value;
    const units = format.codec === 'AAC' ? (aacUnits(payload, format.packing) ?? []) : [payload];
    for (const unit of units) this.#emit({ kind: 'heard', unit });
  }

  #takePacket(bytes: Uint8Array, track: Track, atMs: number): void {
    const parsed = parseRtpPacket(bytes);
    if (!parsed.ok || this.#reception?.push(parsed.value, atMs) === 'refused') return; // the probe reports malformed packets; a picture goes on without them
    const clockHz = track.media.clockRate ?? DEFAULT_CLOCK_HZ;
    if (track.media.codec === 'JPEG') {
      const picture = this.#jpeg.push(parsed.value);
      if (this.#jpeg.fault) return this.#giveUp(this.#jpeg.fault.message, atMs);
      if (picture) this.#give(picture.file, true, this.#takenAt(picture.rtpTimestamp, clockHz));
      return;
    }
    const { codec } = track.media;
    if (!this.#units || (codec !== 'H264' && codec !== 'H265')) return;
    const units = this.#units.push(parsed.value);
    if (this.#units.fault) return this.#giveUp(this.#units.fault.message, atMs);
    for (const unit of units) this.#giveUnit(unit, codec, clockHz);
  }

  /** What comes is no picture: that is told, and the camera is sent TEARDOWN. */
  #giveUp(message: string, atMs: number): void {
    if (this.#isLeaving) return;
    this.#emit({ kind: 'ended', message });
    this.#leave(atMs);
  }

  #giveUnit(unit: AccessUnit, codec: NalCodec, clockHz: number): void {
    const sps = unit.nals.find((nal) => isSps(codec, nal));
    this.#announce(sps, codec);
    const nals = unit.isKeyFrame && !sps ? [...this.#parameterSets, ...unit.nals] : unit.nals;
    this.#give(annexB(nals), unit.isKeyFrame, this.#takenAt(unit.rtpTimestamp, clockHz));
  }

  #takenAt(rtpTimestamp: number, clockHz: number): number | null {
    const report = this.#reception?.senderReport;
    return report ? takenUnixMs(report, rtpTimestamp, clockHz) : null;
  }

  #give(accessUnit: Uint8Array, isKeyFrame: boolean, takenAtUnixMs: number | null): void {
    this.#emit({ kind: 'picture', accessUnit, isKeyFrame, takenUnixMs: takenAtUnixMs });
  }

  #end(message: string | null): void {
    if (message !== null && !this.#isLeaving) this.#emit({ kind: 'ended', message });
    this.#isOver = true;
    this.#emit({ kind: 'done' });
  }

  #emit(effect: LiveEffect): void {
    this.#effects.push(effect);
  }
}
