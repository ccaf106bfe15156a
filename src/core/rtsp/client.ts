import type { ChosenChallenge } from '../auth/challenge.ts';
import { proofEndOf, sayHeld } from '../auth/proof-gate.ts';
import { headerOf } from '../http/headers.ts';
import { ClientCourse } from './client-course.ts';
import { dismissalOf, failureOfMalformed } from './client-failures.ts';
import { type ClientPhase, type ClientSignal, STEP_OF_PHASE, signalOf } from './client-moves.ts';
import type { ClientEffect, ClientInput, RtspClientOptions } from './client-types.ts';
import { Conversation, type Exchange } from './conversation.ts';
import { isEncrypted } from './http-tunnel.ts';
import { Login } from './login.ts';
import { type RtspEvent, RtspMessageParser } from './message-parser.ts';
import { MAX_SCANNED_CHARS, sayOfPeer } from './peer-words.ts';
import type { RtspResponse } from './rtsp-message.ts';
import { rtcpEffect } from './session-upkeep.ts';
import { outcomeOfStep } from './step-outcome.ts';

/**
 * An RTSP 1.0 client that draws a stream, its packets inside the connection or over UDP: OPTIONS, DESCRIBE, login, SETUP, PLAY, keep-alive,
 * TEARDOWN. Inputs in, effects out; it owns no socket and no timer. Redirects to another host and controls on another
 * host are never dialled: everything goes over the one connection, and UDP to its very address.
 * Source: RFC 2326; login RFC 7616 and RFC 7617.
 */
export class RtspClient {
  #parser = new RtspMessageParser();
  #effects: ClientEffect[] = [];
  #atMs = 0;
  readonly #talk: Conversation;
  readonly #course: ClientCourse;
  readonly #login: Login;
  #server: string | null = null;

  constructor(private readonly options: RtspClientOptions) {
    const { credentials, cnonce, loginBy: by = 'any', gate } = options;
    const emit = (effect: ClientEffect): void => void this.#effects.push(effect);
    const nowMs = (): number => this.#atMs;
    this.#login = new Login({ credentials, cnonce, by, gate, isEncrypted: isEncrypted(options.url) });
    this.#talk = new Conversation({
      login: this.#login,
      userAgent: options.userAgent,
      hide: options.hide,
      emit,
      nowMs,
      currentStep: () => STEP_OF_PHASE[this.phase],
    });
    this.#course = new ClientCourse({ client: options, login: this.#login, talk: this.#talk, emit, nowMs });
  }

  get phase(): ClientPhase {
    return this.#course.phase;
  }
  get challenge(): ChosenChallenge | null {
    return this.#login.challenge;
  }
  /** What became of logging in. */
  get login(): Pick<Login, 'offered' | 'refusedInAll' | 'staleEachTime' | 'heldBack'> {
    return this.#login;
  }
  get server(): string | null {
    return this.#server;
  }
  get sessionTimeoutS(): number | null {
    return this.#talk.sessionTimeoutS;
  }
  /** A keep-alive that the camera offered and refused. */
  get refusedKeepAlive(): string | null {
    return this.#course.refusedKeepAlive;
  }

  handle(input: ClientInput): readonly ClientEffect[] {
    this.#effects = [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'connected':
        this.#parser = new RtspMessageParser(); // what the connection of before left unread is none of this one's
        if (this.#mayTalk(input.certificate?.fingerprint ?? null)) this.#course.signal('connected');
        break;
      case 'bytes':
        for (const event of this.#parser.push(input.chunk, this.#onFrame)) this.#take(event);
        break;
      case 'closed':
        for (const event of this.#parser.end()) this.#take(event);
        if (this.#course.mayRedial) this.#course.redial();
        else if (this.#course.mayAskAfresh) this.#course.askAfresh();
        else if (this.#course.isRefusedByClosing) this.#course.end(this.#login.refusedByClosing());
        else this.#course.signal('hangUp');
        break;
      case 'udpOpened':
        this.#course.plan?.portsOpened(input.ports);
        this.#course.signal('portsOpened');
        break;
      case 'udpFailed':
        this.#course.signal('portsFailed', { cause: 'transport-refused', note: input.note });
        break;
      case 'datagram': {
        const track = this.#course.plan?.tracks[input.place];
        if (!track || this.phase === 'closed') break;
        this.#effects.push({ kind: input.isRtcp ? 'rtcp' : 'rtp', track, packet: input.chunk, atMs: this.#atMs });
        break;
      }
      case 'sendRtcp':
        if (this.phase === 'streaming') {
          const effect = rtcpEffect(input.track, input.packet);
          if (effect) this.#effects.push(effect);
        }
        break;
      case 'answerTimer':
        if (this.#course.mayAskAfresh) this.#course.askAfresh();
        else this.#course.signal('silence');
        break;
      case 'keepAliveTimer':
        if (this.phase === 'streaming') this.#course.sendKeepAlive();
        break;
      case 'stop':
        this.#course.signal('stop');
        break;
    }
    return this.#effects;
  }

  /** Whether anything may be said on this line: a login in the path is said with the first word. */
  #mayTalk(fingerprint: string | null): boolean {
    const { knownFingerprint = null, provesInPath = false, credentials } = this.options;
    if (knownFingerprint !== null && fingerprint !== null && fingerprint !== knownFingerprint) {
      this.#course.end({
        cause: 'certificate-changed',
        note: `It showed a certificate with the SHA-256 fingerprint ${fingerprint}, where ${knownFingerprint} is known. No request and no password was sent.`,
      });
      return false;
    }
    const held = provesInPath && this.phase === 'idle' ? this.#login.beginInPath() : null;
    if (!held) return true;
    this.#course.end({ cause: 'login-held', note: sayHeld(held, credentials?.user ?? '') });
    return false;
  }

  readonly #onFrame = (channel: number, packet: Uint8Array): void => {
    const target = this.#course.plan?.targetOf(channel);
    if (!target || this.phase === 'closed') return;
    const { track } = target;
    if (target.isRtcp) this.#effects.push({ kind: 'rtcp', track, packet, atMs: this.#atMs });
    else if (this.options.onRtp) this.options.onRtp(track, packet, this.#atMs);
    else this.#effects.push({ kind: 'rtp', track, packet, atMs: this.#atMs });
  };

  #take(event: RtspEvent): void {
    if (this.phase === 'closed' || this.phase === 'redialling') return; // said on a connection that was let go
    switch (event.kind) {
      case 'interleaved':
        return this.#onFrame(event.channel, event.payload);
      case 'request':
        this.#talk.reply(event.request);
        this.#takeRequest(event.request.method);
        return;
      case 'malformed':
        this.#talk.tape('remark', `${event.code} at byte ${event.byteOffset}: ${event.excerpt}`);
        if (event.code === 'rtsp.truncated') return; // the hang-up that follows says it
        this.#course.signal('nonsense', failureOfMalformed(event.code, event.excerpt, this.#talk.last !== null));
        return;
      case 'response':
        this.#takeResponse(event.response);
    }
  }

  #takeRequest(method: string): void {
    const note = dismissalOf(method);
    if (note !== null) this.#course.signal('dismissed', { cause: 'session-lost', note });
  }

  #takeResponse(response: RtspResponse): void {
    const exchange = this.#talk.take(response);
    if (!exchange) return;
    const server = headerOf(response, 'Server');
    if (server !== undefined) this.#server = sayOfPeer(server, this.options.hide);
    this.#course.methods = headerOf(response, 'Public')?.slice(0, MAX_SCANNED_CHARS) ?? this.#course.methods;
    const signal = signalOf(response.status);
    if (signal === 'success' && exchange.request.authorised) this.#login.accepted();
    this.#judgeProof(exchange);
    this.#endStep(exchange, signal);
    this.#course.signal(signal);
  }

  /** Servers answer OPTIONS and TEARDOWN without a look at the login: these prove nothing. */
  #judgeProof({ request: { method, authorised }, response: { status } }: Exchange): void {
    const isJudged = method === 'DESCRIBE' || method === 'SETUP' || method === 'PLAY';
    const said = proofEndOf(status);
    // what an accepted account is refused by anything but 401 is refused for another reason
    const how = said === 'refused' && status !== 401 && this.#login.wasAccepted ? 'passed' : said;
    if (isJudged) this.#login.proofEnded(how, 'rtsp');
    else if (authorised || how === 'refused' || how === 'locked')
      this.#login.proofEnded(how === 'accepted' ? 'passed' : how, 'rtsp');
  }

  #endStep(exchange: Exchange, signal: ClientSignal): void {
    const { request, response } = exchange;
    if (!request.step) return;
    if (request.step === 'setup' && signal === 'success' && (this.#course.plan?.waitingCount ?? 0) > 1) return; // more tracks to come
    const hasAccount = this.options.credentials !== null;
    const { ok, note } = outcomeOfStep(exchange, signal, { login: this.#login, plan: this.#course.plan, hasAccount });
    this.#effects.push({
      kind: 'stepEnded',
      name: request.step,
      atMs: this.#atMs,
      ok,
      status: response.status,
      note: note && sayOfPeer(note, this.options.hide),
    });
  }
}
