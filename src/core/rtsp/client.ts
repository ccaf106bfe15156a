import type { ChosenChallenge } from '../auth/challenge.ts';
import { proofEndOf, sayHeld } from '../auth/proof-gate.ts';
import { withoutAccount } from '../net/stream-url.ts';
import {
  type ClientFailure,
  dismissalOf,
  failureOfMalformed,
  failureOfStatus,
  followRedirect,
} from './client-failures.ts';
import {
  CLIENT_MOVES,
  type ClientAction,
  type ClientPhase,
  type ClientSignal,
  STEP_OF_PHASE,
  signalOf,
} from './client-moves.ts';
import type { ClientEffect, ClientInput, RtspClientOptions } from './client-types.ts';
import { Conversation, type Exchange } from './conversation.ts';
import { readDescription } from './description.ts';
import type { ProbeCause, ProbeStepName } from './exchange-types.ts';
import { isEncrypted, spokenUrl } from './http-tunnel.ts';
import { Login } from './login.ts';
import { type RtspEvent, RtspMessageParser } from './message-parser.ts';
import { MAX_SCANNED_CHARS, sayOfPeer } from './peer-words.ts';
import { headerOf, type RtspHeader, type RtspResponse } from './rtsp-message.ts';
import { keepAliveAfterMs, rtcpEffect, SignsOfLife } from './session-upkeep.ts';
import { outcomeOfStep } from './step-outcome.ts';
import { TrackPlan } from './track-plan.ts';

/** What no other transport would change: who asks, for what, and for how many. */
const SAME_OVER_UDP: ReadonlySet<ProbeCause> = new Set([
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'login-held',
  'forbidden',
  'not-found',
  'too-many-sessions',
]);
/** A goodbye that is not answered is none of the person's waiting. */
const GOODBYE_MS = 500;
const UNAUTHORIZED = 401;
/** A server that closes after every 401 wants one; with more of them an account would be tried too often. */
const MAX_REDIALS = 1;

/**
 * An RTSP 1.0 client that draws a stream, its packets inside the connection or over UDP: OPTIONS, DESCRIBE, login, SETUP, PLAY, keep-alive,
 * TEARDOWN. Inputs in, effects out; it owns no socket and no timer. Redirects to another host and controls on another
 * host are never dialled: everything goes over the one connection, and UDP to its very address.
 * Source: RFC 2326; login RFC 7616 and RFC 7617.
 */
export class RtspClient {
  #phase: ClientPhase = 'idle';
  #parser = new RtspMessageParser();
  #effects: ClientEffect[] = [];
  #atMs = 0;
  readonly #talk: Conversation;
  #nonsense: ClientFailure | null = null;
  #requestUrl: string;
  #redirects = 0;
  readonly #login: Login;
  #control: string | null = null;
  #plan: TrackPlan | null = null;
  #methods = '';
  readonly #signs = new SignsOfLife();
  #server: string | null = null;
  #portsFault = '';
  #dismissal = '';
  #redials = 0;
  #redialledIn: ClientPhase = 'describing';

  constructor(private readonly options: RtspClientOptions) {
    this.#requestUrl = withoutAccount(spokenUrl(options.url));
    const { credentials, cnonce, loginBy: by = 'any', gate } = options;
    this.#login = new Login({ credentials, cnonce, by, gate, isEncrypted: isEncrypted(options.url) });
    this.#talk = new Conversation({
      login: this.#login,
      userAgent: options.userAgent,
      hide: options.hide,
      emit: (effect) => this.#emit(effect),
      nowMs: () => this.#atMs,
      currentStep: () => STEP_OF_PHASE[this.#phase],
    });
  }

  get phase(): ClientPhase {
    return this.#phase;
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
  /** A sign of life that the camera offered and refused. */
  get refusedKeepAlive(): string | null {
    return this.#signs.refused;
  }

  handle(input: ClientInput): readonly ClientEffect[] {
    this.#effects = [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'connected':
        if (this.#mayTalk(input.certificate?.fingerprint ?? null)) this.#signal('connected');
        break;
      case 'bytes':
        for (const event of this.#parser.push(input.chunk, this.#onFrame)) this.#take(event);
        break;
      case 'closed':
        for (const event of this.#parser.end()) this.#take(event);
        if (this.#mayRedial) this.#redial();
        else this.#signal('hangUp');
        break;
      case 'udpOpened':
        this.#plan?.portsOpened(input.ports);
        this.#signal('portsOpened');
        break;
      case 'udpFailed':
        this.#portsFault = input.note;
        this.#signal('portsFailed');
        break;
      case 'datagram': {
        const track = this.#plan?.tracks[input.place];
        if (!track || this.#phase === 'closed') break;
        this.#emit({ kind: input.isRtcp ? 'rtcp' : 'rtp', track, packet: input.chunk, atMs: this.#atMs });
        break;
      }
      case 'sendRtcp':
        if (this.#phase === 'streaming') {
          const effect = rtcpEffect(input.track, input.packet);
          if (effect) this.#emit(effect);
        }
        break;
      case 'answerTimer':
        this.#signal('silence');
        break;
      case 'keepAliveTimer':
        if (this.#phase === 'streaming') this.#sendKeepAlive();
        break;
      case 'stop':
        this.#signal('stop');
        break;
    }
    return this.#effects;
  }

  /** Whether anything may be said on this line: a login in the path is said with the first word. */
  #mayTalk(fingerprint: string | null): boolean {
    const { knownFingerprint = null, provesInPath = false, credentials } = this.options;
    if (knownFingerprint !== null && fingerprint !== null && fingerprint !== knownFingerprint) {
      this.#fail({
        cause: 'certificate-changed',
        note: `It showed a certificate with the SHA-256 fingerprint ${fingerprint}, where ${knownFingerprint} is known. Nothing was asked, and no password was sent.`,
      });
      this.#finish();
      return false;
    }
    const held = provesInPath && this.#phase === 'idle' ? this.#login.beginInPath() : null;
    if (!held) return true;
    this.#fail({ cause: 'login-held', note: sayHeld(held, credentials?.user ?? '') });
    this.#finish();
    return false;
  }

  /** It hung up on the answer to its own question for a login: some servers close after every 401. */
  get #mayRedial(): boolean {
    const { open, last, sessionId } = this.#talk;
    const isAsking = this.#phase === 'describing' || this.#phase === 'settingUp';
    const wasAsked = open?.authorised === true && last?.response.status === UNAUTHORIZED;
    return isAsking && wasAsked && sessionId === null && this.#redials < MAX_REDIALS;
  }

  #redial(): void {
    this.#redials += 1;
    this.#redialledIn = this.#phase;
    this.#phase = 'redialling';
    this.#parser = new RtspMessageParser();
    this.#login.reconnected();
    this.#talk.tape('remark', 'It closed the connection after asking for the login; connecting anew.');
    this.#emit({ kind: 'disarmAnswer' });
    this.#emit({ kind: 'redial' });
  }

  #resume(): void {
    this.#phase = this.#redialledIn;
    const { open } = this.#talk;
    if (open) this.#talk.send(open.method, open.uri, open.step, open.headers);
  }

  readonly #onFrame = (channel: number, packet: Uint8Array): void => {
    const target = this.#plan?.targetOf(channel);
    if (!target || this.#phase === 'closed') return;
    const { track } = target;
    if (target.isRtcp) return this.#emit({ kind: 'rtcp', track, packet, atMs: this.#atMs });
    if (this.options.onRtp) this.options.onRtp(track, packet, this.#atMs);
    else this.#emit({ kind: 'rtp', track, packet, atMs: this.#atMs });
  };

  #take(event: RtspEvent): void {
    if (this.#phase === 'closed') return;
    switch (event.kind) {
      case 'interleaved':
        return this.#onFrame(event.channel, event.payload);
      case 'request':
        this.#talk.reply(event.request);
        this.#dismissal = dismissalOf(event.request.method) ?? '';
        if (this.#dismissal !== '') this.#signal('dismissed');
        return;
      case 'malformed':
        this.#talk.tape('remark', `${event.code} at byte ${event.byteOffset}: ${event.excerpt}`);
        if (event.code === 'rtsp.truncated') return; // the hang-up that follows says it
        this.#nonsense = failureOfMalformed(event.code, event.excerpt, this.#talk.last !== null);
        this.#signal('nonsense');
        return;
      case 'response':
        this.#takeResponse(event.response);
    }
  }

  #takeResponse(response: RtspResponse): void {
    const exchange = this.#talk.take(response);
    if (!exchange) return;
    const server = headerOf(response, 'Server');
    if (server !== undefined) this.#server = sayOfPeer(server, this.options.hide);
    this.#methods = headerOf(response, 'Public')?.slice(0, MAX_SCANNED_CHARS) ?? this.#methods;
    const signal = signalOf(response.status);
    if (signal === 'success' && exchange.request.authorised) this.#login.accepted();
    this.#judgeProof(exchange);
    this.#endStep(exchange, signal);
    this.#signal(signal);
  }

  /** Servers answer OPTIONS and TEARDOWN without a look at the login: these prove nothing. */
  #judgeProof({ request: { method, authorised }, response: { status } }: Exchange): void {
    const isJudged = method === 'DESCRIBE' || method === 'SETUP' || method === 'PLAY';
    const how = proofEndOf(status);
    if (isJudged) this.#login.proofEnded(how, 'rtsp');
    else if (authorised || how === 'refused' || how === 'locked')
      this.#login.proofEnded(how === 'accepted' ? 'passed' : how, 'rtsp');
  }

  #endStep(exchange: Exchange, signal: ClientSignal): void {
    const { request, response } = exchange;
    if (!request.step) return;
    if (request.step === 'setup' && signal === 'success' && (this.#plan?.waitingCount ?? 0) > 1) return; // more tracks to come
    const hasAccount = this.options.credentials !== null;
    const { ok, note } = outcomeOfStep(exchange, signal, { login: this.#login, plan: this.#plan, hasAccount });
    this.#emit({
      kind: 'stepEnded',
      name: request.step,
      atMs: this.#atMs,
      ok,
      status: response.status,
      note: note && sayOfPeer(note, this.options.hide),
    });
  }

  #signal(signal: ClientSignal): void {
    const move = CLIENT_MOVES[this.#phase][signal];
    if (!move) {
      this.#fail({
        cause: 'protocol-error',
        note: `The camera answered out of turn (${signal} while ${this.#phase}).`,
      });
      this.#finish();
      return;
    }
    const [phase, ...actions] = move;
    this.#phase = phase;
    for (const action of actions) this.#perform(action);
  }

  #perform(action: ClientAction): void {
    switch (action) {
      case 'askOptions':
        return this.#request('OPTIONS', this.#requestUrl, 'options');
      case 'noteChallenge':
        this.#login.readChallenges(this.#talk.lastChallenges);
        return;
      case 'describe':
        return this.#request('DESCRIBE', this.#requestUrl, this.#login.isArmed ? 'authenticate' : 'describe', [
          { name: 'Accept', value: 'application/sdp' },
        ]);
      case 'authorise':
        return this.#authorise();
      case 'resume':
        return this.#resume();
      case 'follow':
        return this.#follow();
      case 'readDescription':
        return this.#readDescription();
      case 'askSetUp':
        return this.#setUpNext();
      case 'noteTrack':
        return this.#noteTrack();
      case 'trackRefused':
        return this.#trackRefused();
      case 'noteStart':
        this.#emit({
          kind: 'playing',
          tracks: this.#plan?.tracks ?? [],
          transportReason: this.#plan?.reason ?? '',
        });
        return this.#armKeepAlive();
      case 'keepAlive':
        return this.#noteSignOfLife();
      case 'tearDown':
        return this.#tearDown();
      case 'finish':
        return this.#finish();
      case 'goodbyeAnswered':
        return this.#goodbyeAnswered();
      case 'failTimeout':
        return this.#failAnd({ cause: 'timeout', note: `No answer to ${this.#pendingMethod} in time.` });
      case 'failClosed':
        return this.#failAnd({
          cause: 'closed',
          note: `The camera hung up instead of answering ${this.#pendingMethod}.`,
        });
      case 'failNonsense':
        return this.#failAnd(this.#nonsense ?? { cause: 'protocol-error', note: 'The answer could not be read.' });
      case 'failStatus':
        return this.#failAnd(this.#statusFailure);
      case 'failDismissed':
        return this.#failAnd({ cause: 'session-lost', note: this.#dismissal });
      case 'failPorts':
        return this.#failAnd({ cause: 'transport-refused', note: this.#portsFault });
    }
  }

  get #pendingMethod(): string {
    return this.#talk.open?.method ?? (this.#phase === 'idle' ? 'the connection' : 'anything more');
  }
  get #statusFailure(): ClientFailure {
    const { last } = this.#talk;
    return last
      ? failureOfStatus(last.response, last.request.method)
      : { cause: 'protocol-error', note: 'A request was refused.' };
  }

  /** A failure in a phase that ends here also hangs up; one that still tears down leaves that to the next action. */
  #failAnd(failure: ClientFailure): void {
    this.#fail(failure);
    if (this.#phase !== 'closed') return;
    if (this.#talk.sessionId) this.#sendTearDown(); // goodbye without waiting: the peer cannot be understood or is gone
    this.#finish();
  }

  #authorise(): void {
    const refused = this.#talk.last?.request;
    if (!refused) return;
    if (this.#phase === 'tearingDown' && refused.method !== 'TEARDOWN') return this.#finish(); // nothing to end
    const failure = this.#login.refused(this.#talk.lastChallenges, refused.authorised);
    if (failure && this.#phase === 'tearingDown') return this.#finish(); // a refused goodbye is no failure, nor said twice
    if (failure) return this.#giveUp(failure);
    this.#request(
      refused.method,
      refused.uri,
      refused.method === 'DESCRIBE' ? 'authenticate' : refused.step,
      refused.headers,
    );
  }

  #giveUp(failure: ClientFailure): void {
    this.#fail(failure);
    this.#abandon();
  }
  /** Ends here, with TEARDOWN when there is a session to end. */
  #abandon(): void {
    this.#phase = 'tearingDown';
    this.#tearDown();
  }

  #follow(): void {
    this.#redirects += 1;
    const followed = followRedirect(
      this.#talk.lastHeader('Location') ?? '',
      spokenUrl(this.options.url),
      this.#redirects,
    );
    if ('cause' in followed) return this.#giveUp(followed);
    this.#requestUrl = followed.url;
    this.#talk.tape('remark', `Sent on to ${followed.url}`);
    this.#perform('describe');
  }

  #readDescription(): void {
    const response = this.#talk.last?.response;
    if (!response) return;
    const read = readDescription(response, this.#requestUrl);
    if ('cause' in read) return this.#giveUp(read);
    const { session, faults } = read;
    this.#control = session.control;
    this.#plan = new TrackPlan(session, this.options.transport);
    this.#emit({ kind: 'described', session, faults });
    for (const fault of faults) this.#talk.tape('remark', fault.message);
    if (!this.#plan.hasVideo) {
      const kinds = session.media.map((media) => media.kind).join(', ');
      this.#fail({ cause: 'no-video', note: `The description has no video: ${kinds || 'it is empty'}.` });
      return this.#abandon();
    }
    this.#setUpNext();
  }

  #setUpNext(): void {
    const next = this.#plan?.next();
    if (next?.kind === 'openPorts') {
      this.#phase = 'openingPorts';
      return this.#emit({ kind: 'openUdp', place: next.place });
    }
    if (next) return this.#request('SETUP', next.control, 'setup', [{ name: 'Transport', value: next.transport }]);
    if (!this.options.play) return this.#abandon();
    this.#phase = 'starting';
    this.#request('PLAY', this.#aggregateUrl, 'play', [{ name: 'Range', value: 'npt=0.000-' }]);
  }

  #noteTrack(): void {
    this.#talk.noteSession();
    const header = this.#talk.lastHeader('Transport') ?? '';
    if (!this.#plan?.grant(header)) {
      const note = `${this.#plan?.transport.toUpperCase()} was asked for, the camera answered “${header.slice(0, 80)}”.`;
      return this.#giveUp({ cause: 'transport-refused', note });
    }
    this.#setUpNext();
  }

  #trackRefused(): void {
    const status = this.#talk.last?.response.status;
    const other = this.#statusFailure.cause === 'not-found' || status === 400 ? this.#plan?.tryOtherControl() : null;
    if (other) {
      this.#talk.tape('remark', `Nothing is at the address of this track; trying ${this.options.hide(other)}.`);
      return this.#setUpNext();
    }
    // 461 says so; other servers answer an interleaved SETUP that they do not take with 400, 406 or 501
    const mayHelp = !SAME_OVER_UDP.has(this.#statusFailure.cause);
    if (mayHelp && this.#plan?.fallBackToUdp(`the camera refused TCP with ${status}`)) {
      this.#talk.tape('remark', `TCP was refused with ${status}; asking for UDP.`);
      return this.#setUpNext();
    }
    const place = this.#plan?.refuse();
    if (!this.#plan || this.#plan.tracks.length === 0) {
      return this.#giveUp(this.#statusFailure);
    }
    this.#talk.tape('remark', `Track ${place} was refused; the picture goes on without it.`);
    this.#setUpNext();
  }

  get #aggregateUrl(): string {
    return this.#control ?? this.#requestUrl;
  }

  #tearDown(): void {
    if (!this.#talk.sessionId) {
      if (this.#talk.open?.method === 'SETUP') return; // its answer names the session that must be ended
      return this.#finish();
    }
    this.#emit({ kind: 'stepBegan', name: 'teardown', atMs: this.#atMs });
    this.#sendTearDown('teardown');
  }
  /** Told to stop while SETUP was under way: the session that it opened is ended as well. */
  #goodbyeAnswered(): void {
    if (this.#talk.last?.request.method !== 'SETUP') return this.#finish();
    this.#talk.noteSession();
    this.#tearDown();
  }
  #sendTearDown(step: ProbeStepName | null = null): void {
    this.#talk.send('TEARDOWN', this.#aggregateUrl, step, []);
    this.#emit({ kind: 'armAnswer', mostMs: GOODBYE_MS });
  }
  #sendKeepAlive(): void {
    this.#talk.send(this.#signs.next(this.#methods), this.#aggregateUrl, null, []);
    this.#emit({ kind: 'disarmAnswer' }); // a camera that streams but answers late is alive
    this.#armKeepAlive();
  }
  /** One that the camera does not take keeps nothing alive: the next is tried at once. */
  #noteSignOfLife(): void {
    const { last } = this.#talk;
    if (!last || !this.#signs.answered(last.request.method, last.response.status)) return;
    this.#talk.tape(
      'remark',
      `${last.request.method} is offered and refused with ${last.response.status}; trying another.`,
    );
    this.#sendKeepAlive();
  }
  #armKeepAlive(): void {
    this.#emit({ kind: 'armKeepAlive', afterMs: keepAliveAfterMs(this.#talk.sessionTimeoutS) });
  }

  #request(method: string, uri: string, step: ProbeStepName | null, headers: readonly RtspHeader[] = []): void {
    if (step && !(step === 'setup' && (this.#plan?.tracks.length ?? 0) > 0))
      this.#emit({ kind: 'stepBegan', name: step, atMs: this.#atMs });
    this.#talk.send(method, uri, step, headers);
  }

  #fail(failure: ClientFailure): void {
    this.#emit({ kind: 'failed', cause: failure.cause, note: sayOfPeer(failure.note, this.options.hide) });
  }
  #finish(): void {
    this.#login.proofEnded('unanswered', 'rtsp');
    this.#phase = 'closed';
    this.#emit({ kind: 'disarmAnswer' });
    this.#emit({ kind: 'close' });
    this.#emit({ kind: 'ended' });
  }
  #emit(effect: ClientEffect): void {
    this.#effects.push(effect);
  }
}
