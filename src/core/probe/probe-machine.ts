import { driveEffectOf } from '../machine/client-drive.ts';
import type { Machine } from '../machine/machine.ts';
import { type CertificateSeen, sayCertificate } from '../net/certificate.ts';
import { fillUrl, redactLogins, type VeiledUrl } from '../net/path-login.ts';
import { pathAndQuery, withoutAccount } from '../net/stream-url.ts';
import { FIRST_REPORT_MS, REPORT_INTERVAL_MS, writeReceiverReport } from '../rtp/receiver-report.ts';
import { RtspClient } from '../rtsp/client.ts';
import type { ClientEffect, ClientInput, Track } from '../rtsp/client-types.ts';
import type { ProbeCause, TapeEntry } from '../rtsp/exchange-types.ts';
import { packetAsText } from '../rtsp/packet-words.ts';
import type { SdpSession } from '../sdp/sdp-types.ts';
import { CameraClock } from './camera-clock.ts';
import type { ProbeEffect, ProbeInput, ProbeOptions } from './probe-options.ts';
import { composeReport } from './probe-report.ts';
import { StepWatch, tenths } from './step-watch.ts';
import { TrackMeter } from './track-meter.ts';

/** A camera that sent nothing for this long before the sample ended has stopped, however slow its pictures are. */
const STOPPED_AFTER_MS = 1500;
/** How many entries of the wire tape are kept, each clipped where it is made: a hostile peer fills no memory. */
const MAX_TAPE_ENTRIES = 200;

/**
 * One probe from name look-up to TEARDOWN: an RTSP client with a stopwatch and meters. Inputs in, effects out; the driver
 * owns sockets and timers. It ends by itself: every wait has a timer.
 */
export class ProbeMachine implements Machine<ProbeInput, ProbeEffect> {
  readonly #client: RtspClient;
  readonly #veiled: VeiledUrl;
  readonly #watch = new StepWatch((effect) => this.#emit(effect));
  readonly #meters = new Map<number, TrackMeter>();
  #effects: ProbeEffect[] = [];
  #session: SdpSession | null = null;
  #failure: { cause: ProbeCause; note: string } | null = null;
  #stage: 'handshake' | 'firstPacket' | 'firstKeyframe' | 'sample' | 'over' = 'handshake';
  readonly #clock: CameraClock;
  #tracks: readonly Track[] = [];
  #transportReason: string | null = null;
  #certificate: CertificateSeen | null = null;
  #tapeEntries = 0;
  #reported = false;
  #unitFault: string | null = null;

  constructor(private readonly options: ProbeOptions) {
    const { credentials, transport, userAgent, media, cnonce, loginBy = 'any', gate, knownFingerprint } = options;
    this.#clock = new CameraClock(options.startedAtUnixMs);
    this.#veiled = fillUrl(options.url, credentials);
    const onRtp = (track: Track, packet: Uint8Array, atMs: number): void => this.#takePacket(track, packet, atMs);
    this.#client = new RtspClient({
      ...this.#veiled,
      credentials,
      gate,
      knownFingerprint,
      transport,
      userAgent,
      play: media,
      cnonce,
      loginBy,
      onRtp,
    });
  }

  /** The effects that start it; the driver then resolves the host. */
  begin(atMs: number): readonly ProbeEffect[] {
    this.#effects = [];
    this.#watch.begin('resolve', atMs);
    return this.#effects;
  }

  handle(input: ProbeInput): readonly ProbeEffect[] {
    this.#effects = [];
    const { atMs } = input;
    switch (input.kind) {
      case 'resolved':
        this.#watch.end('resolve', atMs, { note: input.note });
        this.#watch.begin('connect', atMs);
        break;
      case 'dialFailed':
        this.#fail(input.cause, input.note);
        this.#endOpenSteps(atMs, input.note);
        this.#report();
        break;
      case 'broken':
        if (!input.isLast) this.#giveUp(input.note, atMs);
        this.#fail('protocol-error', input.note);
        if (input.isLast || this.#client.phase === 'closed') this.#report();
        break;
      case 'connected':
        this.#certificate = input.certificate ?? null;
        this.#watch.end('connect', atMs, { note: this.#certificate ? sayCertificate(this.#certificate) : null });
        this.#drive(input);
        break;
      case 'bytes':
      case 'closed':
      case 'udpOpened':
      case 'udpFailed':
      case 'datagram':
        this.#drive(input);
        break;
      case 'timer':
        if (input.timer === 'answer') this.#drive({ kind: 'answerTimer', atMs });
        else if (input.timer === 'keepAlive') this.#drive({ kind: 'keepAliveTimer', atMs });
        else if (input.timer === 'receiverReport') this.#sendReports(atMs, REPORT_INTERVAL_MS);
        else this.#mediaTimer(atMs);
        break;
      case 'enough':
        if (this.#stage === 'sample') this.#mediaTimer(atMs);
        break;
      case 'cancel':
        this.#stopMedia();
        this.#drive({ kind: 'stop', atMs });
        break;
    }
    return this.#effects;
  }

  #drive(input: ClientInput): void {
    for (const effect of this.#client.handle(input)) this.#take(effect, input.atMs);
    const fault = this.#unitFault;
    this.#unitFault = null;
    if (fault !== null) this.#giveUp(fault, input.atMs);
  }

  #take(effect: ClientEffect, atMs: number): void {
    const done = driveEffectOf(effect, this.options.timeoutMs);
    if (done) return this.#emit(done);
    switch (effect.kind) {
      case 'tape':
        this.#tape(effect.entry);
        break;
      case 'stepBegan':
        this.#watch.begin(effect.name, effect.atMs);
        break;
      case 'stepEnded':
        this.#watch.end(effect.name, effect.atMs, effect);
        break;
      case 'described':
        this.#session = effect.session;
        break;
      case 'playing':
        this.#tracks = effect.tracks;
        this.#transportReason = effect.transportReason;
        this.#awaitPackets(atMs);
        // Over UDP the first report goes at once: it opens the way back through a firewall that keeps state.
        if (this.#isOverUdp) this.#sendReports(atMs, FIRST_REPORT_MS);
        else this.#emit({ kind: 'arm', timer: 'receiverReport', afterMs: FIRST_REPORT_MS });
        break;
      case 'rtp':
        this.#takePacket(effect.track, effect.packet, effect.atMs);
        break;
      case 'rtcp':
        this.#takeRtcp(effect.track, effect.packet, effect.atMs);
        break;
      case 'failed':
        this.#fail(effect.cause, effect.note);
        break;
      case 'ended':
        this.#stopMedia();
        this.#endOpenSteps(atMs, this.#failure?.note ?? null);
        this.#report();
    }
  }

  #awaitPackets(atMs: number): void {
    this.#watch.begin('first-packet', atMs);
    this.#stage = 'firstPacket';
    this.#emit({ kind: 'arm', timer: 'media', afterMs: this.options.timeoutMs });
    // Packets may overtake the answer to PLAY; then the first one is here already.
    const [early] = [...this.#meters.values()].map((meter) => meter.lastAtMs).filter((at) => at !== null);
    if (early !== undefined) this.#packetArrived(atMs, this.#earlyKeyFrame);
  }
  #earlyKeyFrame = false;

  #meterOf(track: Track): TrackMeter {
    let meter = this.#meters.get(track.mediaIndex);
    if (!meter) {
      meter = new TrackMeter(track.media);
      this.#meters.set(track.mediaIndex, meter);
    }
    return meter;
  }

  get #isOverUdp(): boolean {
    return this.#tracks.some(({ path }) => path.transport === 'udp');
  }

  /** Tells the camera how each track arrives, as RFC 3550 §6.4.2 asks of a receiver. */
  #sendReports(atMs: number, nextAfterMs: number): void {
    const { ownSsrc } = this.options;
    for (const track of this.#tracks) {
      const report = this.#meters.get(track.mediaIndex)?.report(atMs) ?? null;
      this.#drive({ kind: 'sendRtcp', track, packet: writeReceiverReport(ownSsrc, report), atMs });
    }
    this.#emit({ kind: 'arm', timer: 'receiverReport', afterMs: nextAfterMs });
  }

  #takePacket(track: Track, bytes: Uint8Array, atMs: number): void {
    const meter = this.#meterOf(track);
    const metered = meter.push(bytes, atMs);
    if (!metered || track.media.kind !== 'video' || this.#stage === 'over') return;
    // told while its client is at work, and acted on once that is done
    if (meter.unitFault) this.#unitFault = meter.unitFault.message;
    if (this.#unitFault !== null) return;
    if (this.#stage === 'handshake') this.#earlyKeyFrame ||= metered.startsKeyFrame;
    if (this.#stage === 'firstPacket') {
      const channel = track.path.transport === 'tcp' ? track.path.rtpChannel : null;
      this.#tape({ atMs, step: 'first-packet', direction: 'received', text: packetAsText(bytes, channel) });
    }
    this.#packetArrived(atMs, metered.startsKeyFrame, !meter.knowsPictures);
  }

  /** What comes is no stream: the session is ended, with what was measured so far. */
  #giveUp(note: string, atMs: number): void {
    this.#fail('protocol-error', note);
    this.#endOpenSteps(atMs, note);
    this.#stopMedia();
    this.#drive({ kind: 'stop', atMs });
  }

  #packetArrived(atMs: number, startsKeyFrame: boolean, keyFramesUnknown = false): void {
    if (this.#stage === 'firstPacket') {
      this.#watch.end('first-packet', atMs);
      this.#watch.begin('first-keyframe', atMs);
      this.#stage = 'firstKeyframe';
      this.#emit({ kind: 'arm', timer: 'media', afterMs: this.options.timeoutMs });
    }
    if (this.#stage === 'firstKeyframe' && (startsKeyFrame || keyFramesUnknown)) {
      if (keyFramesUnknown)
        this.#fail(
          'unsupported-codec',
          'Packets arrive, but this codec is not known here: only loss and rate were measured.',
        );
      this.#watch.end('first-keyframe', atMs, { ok: !keyFramesUnknown });
      this.#watch.begin('sample', atMs);
      this.#stage = 'sample';
      this.#emit({ kind: 'arm', timer: 'media', afterMs: this.options.sampleMs });
    }
  }

  #takeRtcp(track: Track, packet: Uint8Array, atMs: number): void {
    const report = this.#meterOf(track).pushRtcp(packet, atMs);
    const text = report && this.#clock.take(report.unixMs, atMs);
    if (text) this.#tape({ atMs, step: 'sample', direction: 'received', text });
  }

  #mediaTimer(atMs: number): void {
    if (this.#stage === 'firstPacket')
      this.#fail(
        'no-packets',
        `PLAY was answered, but no packet came in ${this.options.timeoutMs / 1000} s${this.#udpDoubt}.`,
      );
    else if (this.#stage === 'firstKeyframe')
      this.#fail(
        'no-video',
        `Packets arrive, but no key frame in ${this.options.timeoutMs / 1000} s: no picture can start.`,
      );
    else if (this.#stage === 'sample') this.#endSample(atMs);
    else return;
    if (this.#failure) this.#endOpenSteps(atMs, this.#failure.note);
    this.#stopMedia();
    this.#drive({ kind: 'stop', atMs });
  }

  /** Over UDP silence has one more reason than over TCP. */
  get #udpDoubt(): string {
    const ports = this.#tracks.map(({ path }) => (path.transport === 'udp' ? path.clientPorts.join('–') : ''));
    return this.#isOverUdp ? ` to UDP ports ${ports.join(', ')}; a firewall may drop them` : '';
  }

  #endSample(atMs: number): void {
    const arrivals = [...this.#meters]
      .filter(([index]) => this.#session?.media[index]?.kind === 'video')
      .map(([, meter]) => meter.lastAtMs ?? 0);
    const silentMs = atMs - Math.max(0, ...arrivals);
    if (silentMs > Math.min(STOPPED_AFTER_MS, this.options.sampleMs / 2))
      return this.#fail(
        'no-packets',
        `The packets stopped: none in the last ${(silentMs / 1000).toFixed(1)} s of the sample.`,
      );
    this.#watch.end('sample', atMs);
  }

  #stopMedia(): void {
    this.#stage = 'over';
    this.#emit({ kind: 'disarm', timer: 'media' });
    this.#emit({ kind: 'disarm', timer: 'keepAlive' });
    this.#emit({ kind: 'disarm', timer: 'receiverReport' });
  }

  #endOpenSteps(atMs: number, note: string | null): void {
    this.#watch.endOpen(atMs, { ok: this.#failure === null, note });
  }
  /** The first failure is the cause; what follows from it is not another. */
  #fail(cause: ProbeCause, note: string): void {
    this.#failure ??= { cause, note };
  }

  #report(): void {
    if (this.#reported) return;
    this.#reported = true;
    const { url } = this.options;
    const report = composeReport({
      target: {
        url: redactLogins(withoutAccount(url)),
        host: url.host,
        port: url.port,
        path: redactLogins(pathAndQuery(url)),
      },
      hide: this.#veiled.hide,
      failure: this.#failure,
      steps: this.#watch.steps,
      challenge: this.#client.challenge,
      login: this.#client.login,
      server: this.#client.server,
      sessionTimeoutS: this.#client.sessionTimeoutS,
      clockErrorMs: this.#clock.errorMs,
      hasSenderReports: this.#clock.hasReported,
      tls: this.#certificate,
      refusedKeepAlive: this.#client.refusedKeepAlive,
      isSampled: this.#watch.steps.some(({ name, ok }) => name === 'sample' && ok),
      transport: this.#tracks[0]?.path.transport ?? null,
      transportReason: this.#transportReason,
      session: this.#session,
      meters: this.#meters,
    });
    this.#emit({ kind: 'report', report });
    this.#emit({ kind: 'done' });
  }

  #tape(entry: TapeEntry): void {
    this.#tapeEntries += 1;
    if (this.#tapeEntries > MAX_TAPE_ENTRIES) return;
    this.#emit({ kind: 'tape', entry: { ...entry, atMs: tenths(entry.atMs) } });
  }
  #emit(effect: ProbeEffect): void {
    this.#effects.push(effect);
  }
}
