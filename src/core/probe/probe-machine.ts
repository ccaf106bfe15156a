import type { Credentials } from '../auth/authorization.ts';
import type { ProofGate } from '../auth/proof-gate.ts';
import type { DriveEffect, DriveInput, Machine } from '../machine/machine.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import { fillUrl, redactLogins, type VeiledUrl } from '../net/path-login.ts';
import { pathAndQuery, type StreamUrl, withoutAccount } from '../net/stream-url.ts';
import { FIRST_REPORT_MS, REPORT_INTERVAL_MS, writeReceiverReport } from '../rtp/receiver-report.ts';
import { RtspClient } from '../rtsp/client.ts';
import {
  answerWithin,
  type ClientEffect,
  type ClientInput,
  type Track,
  type TransportChoice,
} from '../rtsp/client-types.ts';
import type { ProbeCause, ProbeStepName, TapeEntry } from '../rtsp/exchange-types.ts';
import { packetAsText } from '../rtsp/packet-words.ts';
import type { SdpSession } from '../sdp/sdp-types.ts';
import { composeReport } from './probe-report.ts';
import type { ProbeReport, ProbeStep } from './probe-types.ts';
import { TrackMeter } from './track-meter.ts';

export interface ProbeOptions {
  /** Its path may hold placeholders for the login (path-login.ts); they are filled on the wire alone. */
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  /** Asked before each proof of the account leaves. */
  readonly gate: ProofGate;
  /** The certificate that the camera is known by; `null` takes any. */
  readonly knownFingerprint: string | null;
  readonly loginBy?: 'any' | 'basic';
  readonly transport: TransportChoice;
  readonly sampleMs: number;
  /** Limit of each step, the sample apart. */
  readonly timeoutMs: number;
  /** False: stop after SETUP. */
  readonly media: boolean;
  readonly userAgent: string;
  readonly cnonce: () => string;
  /** Names us to the camera in receiver reports: 32 random bits (RFC 3550 §8.1). */
  readonly ownSsrc: number;
  /** Wall clock at `atMs` 0, ms since 1970: what a camera's clock is held against. */
  readonly startedAtUnixMs: number;
}

export type ProbeTimer = 'answer' | 'keepAlive' | 'media' | 'receiverReport';

export type ProbeInput = DriveInput<ProbeTimer>;

export type ProbeEffect =
  | DriveEffect<ProbeTimer>
  | { readonly kind: 'tape'; readonly entry: TapeEntry }
  | { readonly kind: 'stepBegan'; readonly name: ProbeStepName; readonly startMs: number }
  | { readonly kind: 'step'; readonly step: ProbeStep }
  | { readonly kind: 'report'; readonly report: ProbeReport };

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
  readonly #steps: ProbeStep[] = [];
  readonly #began = new Map<ProbeStepName, number>();
  readonly #meters = new Map<number, TrackMeter>();
  #effects: ProbeEffect[] = [];
  #session: SdpSession | null = null;
  #failure: { cause: ProbeCause; note: string } | null = null;
  #stage: 'handshake' | 'firstPacket' | 'firstKeyframe' | 'sample' | 'over' = 'handshake';
  #clockErrorMs: number | null = null;
  #hasReported = false;
  #tracks: readonly Track[] = [];
  #transportReason: string | null = null;
  #certificate: CertificateSeen | null = null;
  #tapeEntries = 0;
  #reported = false;
  #unitFault: string | null = null;

  constructor(private readonly options: ProbeOptions) {
    const { credentials, transport, userAgent, media, cnonce, loginBy = 'any', gate, knownFingerprint } = options;
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
    this.#begin('resolve', atMs);
    return this.#effects;
  }

  handle(input: ProbeInput): readonly ProbeEffect[] {
    this.#effects = [];
    const { atMs } = input;
    switch (input.kind) {
      case 'resolved':
        this.#end('resolve', atMs, { note: input.note });
        this.#begin('connect', atMs);
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
        this.#end('connect', atMs, { note: this.#certificate ? noteOfCertificate(this.#certificate) : null });
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
    switch (effect.kind) {
      case 'send':
      case 'openUdp':
      case 'sendDatagram':
      case 'redial':
        this.#emit(effect);
        break;
      case 'armAnswer':
        this.#emit({ kind: 'arm', timer: 'answer', afterMs: answerWithin(effect, this.options.timeoutMs) });
        break;
      case 'disarmAnswer':
        this.#emit({ kind: 'disarm', timer: 'answer' });
        break;
      case 'armKeepAlive':
        this.#emit({ kind: 'arm', timer: 'keepAlive', afterMs: effect.afterMs });
        break;
      case 'close':
        this.#emit({ kind: 'close' });
        break;
      case 'tape':
        this.#tape(effect.entry);
        break;
      case 'stepBegan':
        this.#begin(effect.name, effect.atMs);
        break;
      case 'stepEnded':
        this.#end(effect.name, effect.atMs, effect);
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
    this.#begin('first-packet', atMs);
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
      this.#end('first-packet', atMs, {});
      this.#begin('first-keyframe', atMs);
      this.#stage = 'firstKeyframe';
      this.#emit({ kind: 'arm', timer: 'media', afterMs: this.options.timeoutMs });
    }
    if (this.#stage === 'firstKeyframe' && (startsKeyFrame || keyFramesUnknown)) {
      if (keyFramesUnknown)
        this.#fail(
          'unsupported-codec',
          'Packets arrive, but this codec is not known here: only loss and rate were measured.',
        );
      this.#end('first-keyframe', atMs, { ok: !keyFramesUnknown });
      this.#begin('sample', atMs);
      this.#stage = 'sample';
      this.#emit({ kind: 'arm', timer: 'media', afterMs: this.options.sampleMs });
    }
  }

  #takeRtcp(track: Track, packet: Uint8Array, atMs: number): void {
    const report = this.#meterOf(track).pushRtcp(packet, atMs);
    if (!report) return;
    const { unixMs } = report;
    if (unixMs === null) {
      if (!this.#hasReported)
        this.#tape({ atMs, step: 'sample', direction: 'received', text: 'RTCP sender report without a clock' });
      this.#hasReported = true;
      return;
    }
    this.#hasReported = true;
    if (this.#clockErrorMs === null)
      this.#tape({
        atMs,
        step: 'sample',
        direction: 'received',
        text: `RTCP sender report: camera clock ${new Date(unixMs).toISOString()}`,
      });
    this.#clockErrorMs ??= Math.round(unixMs - (this.options.startedAtUnixMs + atMs));
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
    this.#end('sample', atMs, {});
  }

  #stopMedia(): void {
    this.#stage = 'over';
    this.#emit({ kind: 'disarm', timer: 'media' });
    this.#emit({ kind: 'disarm', timer: 'keepAlive' });
    this.#emit({ kind: 'disarm', timer: 'receiverReport' });
  }

  #begin(name: ProbeStepName, atMs: number): void {
    this.#began.set(name, atMs);
    this.#emit({ kind: 'stepBegan', name, startMs: atMs });
  }
  #end(
    name: ProbeStepName,
    atMs: number,
    { ok = true, status = null, note = null }: { ok?: boolean; status?: number | null; note?: string | null },
  ): void {
    const startMs = this.#began.get(name);
    if (startMs === undefined) return;
    this.#began.delete(name);
    const step: ProbeStep = { name, startMs: tenths(startMs), durationMs: tenths(atMs - startMs), ok, status, note };
    this.#steps.push(step);
    this.#emit({ kind: 'step', step });
  }
  #endOpenSteps(atMs: number, note: string | null): void {
    for (const name of [...this.#began.keys()])
      this.#end(name, atMs, { ok: this.#failure === null, note: name === 'teardown' ? null : note });
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
      steps: this.#steps,
      challenge: this.#client.challenge,
      login: this.#client.login,
      server: this.#client.server,
      sessionTimeoutS: this.#client.sessionTimeoutS,
      clockErrorMs: this.#clockErrorMs,
      hasSenderReports: this.#hasReported,
      tls: this.#certificate,
      refusedKeepAlive: this.#client.refusedKeepAlive,
      isSampled: this.#steps.some(({ name, ok }) => name === 'sample' && ok),
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

const noteOfCertificate = ({ protocol, subject, isSelfSigned, issuer }: CertificateSeen): string =>
  `${protocol.replace('v', ' ')}, shown as “${subject}”, ${isSelfSigned ? 'signed by itself' : `signed by “${issuer}”`}`;

const tenths = (ms: number): number => Math.round(ms * 10) / 10;
