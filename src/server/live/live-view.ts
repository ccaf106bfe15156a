import { encodeLiveFrame } from '../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, type LiveRequest } from '../../contract/probe-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import { fillUrl } from '../../core/net/path-login.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import { readTarget } from '../../core/net/target.ts';
import { takenUnixMs } from '../../core/rtp/camera-clock.ts';
import { REPORT_INTERVAL_MS, writeReceiverReport } from '../../core/rtp/receiver-report.ts';
import { parseRtpPacket } from '../../core/rtp/rtp-packet.ts';
import { TrackReception } from '../../core/rtp/track-reception.ts';
import { RtspClient } from '../../core/rtsp/client.ts';
import type { ClientEffect, ClientInput, Track } from '../../core/rtsp/client-types.ts';
import { declaredParameterSets } from '../../core/sdp/sdp-parser.ts';
import { type AccessUnit, annexB, H264Depacketiser, h264CodecString } from '../../core/video/h264-depacketiser.ts';
import { JpegDepacketiser } from '../../core/video/jpeg-depacketiser.ts';
import { H264_NAL, h264NalType } from '../../core/video/nal.ts';
import { CameraLine, GOODBYE_MS } from '../camera-line.ts';
import { logFault, underGuard } from '../last-guard.ts';
import { DialFailure } from '../ports.ts';
import { type ProbeWorld, USER_AGENT } from '../probe/run-probe.ts';
import { createSafely, nameOfFault } from '../safely.ts';

export interface LiveSink {
  text(message: LiveMessage): void;
  binary(bytes: Uint8Array<ArrayBuffer>): void;
  close(): void;
}

type LiveTimer = 'answer' | 'keepAlive' | 'report' | 'goodbye';

const ANSWER_TIMEOUT_MS = 5000;
const DEFAULT_CLOCK_HZ = 90_000;

/**
 * Draws a stream and hands its pictures on as they complete, until `signal` aborts or the camera ends it; then the camera
 * is told goodbye, for half a second at most, and the promise resolves. A codec that no page can be given is said plainly.
 */
export async function runLiveView(
  request: LiveRequest,
  world: ProbeWorld,
  signal: AbortSignal,
  sink: LiveSink,
): Promise<void> {
  const target = readTarget(request.url, request.user, request.secret);
  if (!target.ok) {
    sink.text({ kind: 'ended', message: target.error.note });
    return sink.close();
  }
  await new Promise<void>((onEnd) => {
    const view = new LiveView({ ...target.value, world, sink, signal, onEnd });
    underGuard(view.broken, view.start);
  });
}

interface LiveOptions {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly world: ProbeWorld;
  readonly sink: LiveSink;
  readonly signal: AbortSignal;
  readonly onEnd: () => void;
}

class LiveView {
  readonly #client: RtspClient;
  readonly #h264 = new H264Depacketiser();
  readonly #jpeg = new JpegDepacketiser();
  readonly #line: CameraLine;
  readonly #ownSsrc: number;
  readonly #timers = new Map<LiveTimer, NodeJS.Timeout>();
  #reception: TrackReception | null = null;
  #video: Track | null = null;
  #parameterSets: readonly Uint8Array[] = [];
  #announced: string | null = null;
  #isOver = false;
  #isLeaving = false;

  constructor(private readonly options: LiveOptions) {
    const { url, credentials, world } = options;
    this.#client = new RtspClient({
      ...fillUrl(url, credentials),
      credentials,
      transport: 'auto',
      userAgent: USER_AGENT,
      play: true,
      cnonce: () => world.entropy.hex(8),
    });
    this.#ownSsrc = Number.parseInt(world.entropy.hex(4), 16);
    this.#line = new CameraLine({
      dialer: world.dialer,
      limits: { timeoutMs: ANSWER_TIMEOUT_MS, signal: options.signal },
      now: () => this.#now(),
      put: (input) => this.#put(input),
      safely: this.#safely,
    });
  }

  readonly start = (): void => {
    if (this.options.signal.aborted) return this.#end(null);
    this.options.signal.addEventListener('abort', this.#leave, { once: true });
    void this.#dial();
  };

  async #dial(): Promise<void> {
    try {
      const { host, port } = this.options.url;
      const isOpen = await this.#line.dial(await this.#line.resolve(host, port));
      if (isOpen) this.#safely(() => this.#put({ kind: 'connected', atMs: this.#now() }));
    } catch (error) {
      if (error instanceof DialFailure) this.#end(error.message);
      else this.broken(error);
    }
  }

  /** The page went away: the camera is told goodbye, and its answer is not waited for beyond half a second. */
  readonly #leave = (): void => {
    this.#isLeaving = true;
    this.#arm('goodbye', GOODBYE_MS, () => this.#end(null));
    this.#safely(() => this.#put({ kind: 'stop', atMs: this.#now() }));
  };

  /** Something of ours threw: this view ends with it, and says so. */
  readonly broken = (error: unknown): void => {
    if (this.#isOver) return;
    logFault(error);
    this.#end(
      `Clear Tap met a fault of its own (${nameOfFault(error)}) and closed the picture. Its console says more.`,
    );
  };
  readonly #safely = createSafely(this.broken);

  #arm(timer: LiveTimer, afterMs: number, ring: () => void): void {
    clearTimeout(this.#timers.get(timer));
    if (!this.#isOver)
      this.#timers.set(
        timer,
        setTimeout(() => this.#safely(ring), afterMs),
      );
  }

  #now(): number {
    return this.options.world.clock.monotonicMs();
  }

  #put(input: ClientInput): void {
    if (this.#isOver) return;
    for (const effect of this.#client.handle(input)) this.#carryOut(effect);
  }

  #carryOut(effect: ClientEffect): void {
    switch (effect.kind) {
      case 'send':
      case 'openUdp':
      case 'sendDatagram':
        return this.#line.carryOut(effect);
      case 'armAnswer':
        return this.#arm('answer', ANSWER_TIMEOUT_MS, () => this.#put({ kind: 'answerTimer', atMs: this.#now() }));
      case 'disarmAnswer':
        return clearTimeout(this.#timers.get('answer'));
      case 'armKeepAlive':
        return this.#arm('keepAlive', effect.afterMs, () => this.#put({ kind: 'keepAliveTimer', atMs: this.#now() }));
      case 'playing':
        return this.#begin(effect.tracks);
      case 'rtp':
        if (effect.track === this.#video) this.#takePacket(effect.packet, effect.track);
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
    this.options.sink.text({ kind: 'ended', message: note });
    this.#isLeaving = true;
    this.#arm('goodbye', GOODBYE_MS, () => this.#end(null));
  }

  #begin(tracks: readonly Track[]): void {
    const video = tracks.find(({ media }) => media.kind === 'video');
    const codec = video?.media.codec ?? null;
    if (!video || (codec !== 'H264' && codec !== 'JPEG')) {
      this.options.sink.text({ kind: 'format', codec: codec ?? 'unknown', codecString: null });
      this.#put({ kind: 'stop', atMs: this.#now() });
      return;
    }
    this.#video = video;
    this.#reception = new TrackReception(video.media.clockRate ?? DEFAULT_CLOCK_HZ);
    this.#sendReport(video);
    if (codec === 'JPEG') return this.options.sink.text({ kind: 'format', codec, codecString: JPEG_PICTURES });
    this.#parameterSets = declaredParameterSets(video.media);
    this.#announce(this.#parameterSets.find((nal) => h264NalType(nal[0] ?? 0) === H264_NAL.sps));
  }

  /** A camera may end a session that never reports; over UDP the report also keeps the way back open. */
  #sendReport(track: Track): void {
    const report = this.#reception?.report(this.#now()) ?? null;
    const packet = writeReceiverReport(this.#ownSsrc, report);
    this.#put({ kind: 'sendRtcp', track, packet, atMs: this.#now() });
    this.#arm('report', REPORT_INTERVAL_MS, () => this.#sendReport(track));
  }

  /** The decoder is set up anew whenever the profile changes: what arrives wins over what was described. */
  #announce(sps: Uint8Array | undefined): void {
    const codecString = sps ? h264CodecString(sps) : null;
    if (codecString === null || codecString === this.#announced) return;
    this.#announced = codecString;
    this.options.sink.text({ kind: 'format', codec: 'H264', codecString });
  }

  #takePacket(bytes: Uint8Array, track: Track): void {
    const parsed = parseRtpPacket(bytes);
    if (!parsed.ok || this.#reception?.push(parsed.value, this.#now()) === 'refused') return; // the probe reports malformed packets; a picture goes on without them
    const clockHz = track.media.clockRate ?? DEFAULT_CLOCK_HZ;
    if (track.media.codec === 'JPEG') {
      const picture = this.#jpeg.push(parsed.value);
      if (this.#jpeg.fault) return this.#giveUp(this.#jpeg.fault.message);
      if (picture) this.#send(picture.file, { isKeyFrame: true, rtpTimestamp: picture.rtpTimestamp, clockHz });
      return;
    }
    const units = this.#h264.push(parsed.value);
    if (this.#h264.fault) return this.#giveUp(this.#h264.fault.message);
    for (const unit of units) this.#give(unit, clockHz);
  }

  /** What comes is no picture: the page is told, and the camera goodbye. */
  #giveUp(message: string): void {
    if (this.#isLeaving) return;
    this.options.sink.text({ kind: 'ended', message });
    this.#leave();
  }

  #give(unit: AccessUnit, clockHz: number): void {
    const sps = unit.nals.find((nal) => h264NalType(nal[0] ?? 0) === H264_NAL.sps);
    this.#announce(sps);
    const nals = unit.isKeyFrame && !sps ? [...this.#parameterSets, ...unit.nals] : unit.nals;
    this.#send(annexB(nals), { isKeyFrame: unit.isKeyFrame, rtpTimestamp: unit.rtpTimestamp, clockHz });
  }

  #send(
    accessUnit: Uint8Array,
    { isKeyFrame, rtpTimestamp, clockHz }: { isKeyFrame: boolean; rtpTimestamp: number; clockHz: number },
  ): void {
    this.options.sink.binary(
      encodeLiveFrame({
        isKeyFrame,
        arrivedUnixMs: this.options.world.clock.unixMs(),
        takenUnixMs: this.#reception?.senderReport
          ? takenUnixMs(this.#reception.senderReport, rtpTimestamp, clockHz)
          : null,
        accessUnit,
      }),
    );
  }

  #end(message: string | null): void {
    if (this.#isOver) return;
    this.#isOver = true;
    for (const timer of this.#timers.values()) clearTimeout(timer);
    this.options.signal.removeEventListener('abort', this.#leave);
    this.#line.close();
    createSafely(logFault)(() => {
      if (message !== null && !this.#isLeaving) this.options.sink.text({ kind: 'ended', message });
      this.options.sink.close();
    });
    this.options.onEnd();
  }
}
