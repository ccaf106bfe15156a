import { encodeLiveFrame } from '../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, type LiveRequest } from '../../contract/probe-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import { parseStreamUrl } from '../../core/net/stream-url-parser.ts';
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
import { CameraLine } from '../camera-line.ts';
import { DialFailure } from '../ports.ts';
import { type ProbeWorld, USER_AGENT } from '../probe/run-probe.ts';

export interface LiveSink {
  text(message: LiveMessage): void;
  binary(bytes: Uint8Array<ArrayBuffer>): void;
  close(): void;
}

const ANSWER_TIMEOUT_MS = 5000;
const DEFAULT_CLOCK_HZ = 90_000;

/**
 * Draws a stream and hands its pictures on as they complete, until `signal` aborts or the camera ends it. A codec that
 * no page can be given is said plainly, and the session is torn down.
 */
export async function runLiveView(
  request: LiveRequest,
  world: ProbeWorld,
  signal: AbortSignal,
  sink: LiveSink,
): Promise<void> {
  const target = parseStreamUrl(request.url);
  if (!target.ok) {
    sink.text({ kind: 'ended', message: `${target.error.message}.` });
    return sink.close();
  }
  const credentials = request.user === null ? null : { user: request.user, password: request.secret ?? '' };
  await new LiveView({ url: target.value.url, credentials, world, sink, signal }).start();
}

interface LiveOptions {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly world: ProbeWorld;
  readonly sink: LiveSink;
  readonly signal: AbortSignal;
}

class LiveView {
  readonly #client: RtspClient;
  readonly #h264 = new H264Depacketiser();
  readonly #jpeg = new JpegDepacketiser();
  readonly #line: CameraLine;
  readonly #ownSsrc: number;
  #reportTimer: NodeJS.Timeout | null = null;
  #reception: TrackReception | null = null;
  #answerTimer: NodeJS.Timeout | null = null;
  #keepAliveTimer: NodeJS.Timeout | null = null;
  #video: Track | null = null;
  #parameterSets: readonly Uint8Array[] = [];
  #announced: string | null = null;
  #isOver = false;

  constructor(private readonly options: LiveOptions) {
    const { url, credentials, world } = options;
    this.#client = new RtspClient({
      url,
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
    });
  }

  async start(): Promise<void> {
    try {
      const { host, port } = this.options.url;
      await this.#line.dial(await this.#line.resolve(host, port));
      if (this.options.signal.aborted) return this.#line.close();
    } catch (error) {
      if (this.options.signal.aborted) return;
      if (error instanceof DialFailure) return this.#end(error.message);
      throw error;
    }
    this.options.signal.addEventListener('abort', () => {
      this.#put({ kind: 'stop', atMs: this.#now() });
      this.#end(null);
    });
    this.#put({ kind: 'connected', atMs: this.#now() });
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
        if (this.#answerTimer) clearTimeout(this.#answerTimer);
        this.#answerTimer = setTimeout(() => this.#put({ kind: 'answerTimer', atMs: this.#now() }), ANSWER_TIMEOUT_MS);
        return;
      case 'disarmAnswer':
        if (this.#answerTimer) clearTimeout(this.#answerTimer);
        return;
      case 'armKeepAlive':
        if (this.#keepAliveTimer) clearTimeout(this.#keepAliveTimer);
        this.#keepAliveTimer = setTimeout(
          () => this.#put({ kind: 'keepAliveTimer', atMs: this.#now() }),
          effect.afterMs,
        );
        return;
      case 'playing':
        return this.#begin(effect.tracks);
      case 'rtp':
        if (effect.track === this.#video) this.#takePacket(effect.packet, effect.track);
        return;
      case 'rtcp':
        if (effect.track === this.#video) this.#reception?.pushRtcp(effect.packet, effect.atMs);
        return;
      case 'failed':
        return this.#end(effect.note);
      case 'ended':
        return this.#end('The camera ended the stream.');
      default:
        return;
    }
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
    this.#reportTimer = setTimeout(() => this.#sendReport(track), REPORT_INTERVAL_MS);
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
      if (picture) this.#send(picture.file, { isKeyFrame: true, rtpTimestamp: picture.rtpTimestamp, clockHz });
      return;
    }
    for (const unit of this.#h264.push(parsed.value)) this.#give(unit, clockHz);
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
    if (this.#answerTimer) clearTimeout(this.#answerTimer);
    if (this.#keepAliveTimer) clearTimeout(this.#keepAliveTimer);
    if (this.#reportTimer) clearTimeout(this.#reportTimer);
    if (message !== null) this.options.sink.text({ kind: 'ended', message });
    this.#line.close();
    this.options.sink.close();
  }
}
