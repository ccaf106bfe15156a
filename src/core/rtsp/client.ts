import type { ChosenChallenge } from '../auth/challenge.ts';
import { bytesOf, textOf } from '../base/bytes.ts';
import { redactText } from '../net/redact-text.ts';
import { withoutAccount } from '../net/stream-url.ts';
import type { ProbeStepName } from '../probe/probe-types.ts';
import { parseSdp } from '../sdp/sdp-parser.ts';
import { type ClientFailure, failureOfMalformed, failureOfStatus, followRedirect } from './client-failures.ts';
import {
  CLIENT_MOVES,
  type ClientAction,
  type ClientPhase,
  type ClientSignal,
  STEP_OF_PHASE,
  signalOf,
} from './client-moves.ts';
import type { ClientEffect, ClientInput, RtspClientOptions } from './client-types.ts';
import { Login } from './login.ts';
import { type RtspEvent, RtspMessageParser } from './message-parser.ts';
import {
  headerOf,
  headersOf,
  type RtspHeader,
  type RtspRequest,
  type RtspResponse,
  writeRequest,
  writeResponse,
} from './rtsp-message.ts';
import { meaningOf } from './status-codes.ts';
import { TrackPlan } from './track-plan.ts';
import { parseSession, parseTransport } from './transport.ts';

/** Longest wait between signs of life, whatever the session timeout. */
const MAX_KEEP_ALIVE_MS = 30_000;

interface Pending {
  readonly method: string;
  readonly uri: string;
  readonly headers: readonly RtspHeader[];
  readonly cseq: number;
  readonly step: ProbeStepName | null;
  readonly authorised: boolean;
}

/**
 * An RTSP 1.0 client that draws a stream over interleaved TCP: OPTIONS, DESCRIBE, login, SETUP, PLAY, keep-alive,
 * TEARDOWN. Inputs in, effects out; it owns no socket and no timer. Redirects to another host and controls on another
 * host are never dialled: everything goes over the one connection.
 * Source: RFC 2326; login RFC 7616 and RFC 7617.
 */
export class RtspClient {
  #phase: ClientPhase = 'idle';
  readonly #parser = new RtspMessageParser();
  #effects: ClientEffect[] = [];
  #atMs = 0;
  #cseq = 0;
  #pending: Pending | null = null;
  /** The request that was answered last, and its answer. */
  #answered: Pending | null = null;
  #response: RtspResponse | null = null;
  #nonsense: ClientFailure | null = null;
  #requestUrl: string;
  #redirects = 0;
  readonly #login: Login;
  #control: string | null = null;
  #plan: TrackPlan | null = null;
  #sessionId: string | null = null;
  #sessionTimeoutS: number | null = null;
  #methods = '';
  #server: string | null = null;

  constructor(private readonly options: RtspClientOptions) {
    this.#requestUrl = withoutAccount(options.url);
    this.#login = new Login(options.credentials, options.cnonce);
  }

  get phase(): ClientPhase {
    return this.#phase;
  }
  get challenge(): ChosenChallenge | null {
    return this.#login.challenge;
  }
  get server(): string | null {
    return this.#server;
  }
  get sessionTimeoutS(): number | null {
    return this.#sessionTimeoutS;
  }

  handle(input: ClientInput): readonly ClientEffect[] {
    this.#effects = [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'connected':
        this.#signal('connected');
        break;
      case 'bytes':
        for (const event of this.#parser.push(input.chunk)) this.#take(event);
        break;
      case 'closed':
        for (const event of this.#parser.end()) this.#take(event);
        this.#signal('hangUp');
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

  #take(event: RtspEvent): void {
    if (this.#phase === 'closed') return;
    switch (event.kind) {
      case 'interleaved': {
        const target = this.#plan?.targetOf(event.channel);
        if (!target) return;
        const kind = target.isRtcp ? 'rtcp' : 'rtp';
        this.#emit({ kind, track: target.track, packet: event.payload, atMs: this.#atMs });
        return;
      }
      case 'request':
        this.#answerRequest(event.request);
        return;
      case 'malformed':
        this.#tape('remark', `${event.code} at byte ${event.byteOffset}: ${event.excerpt}`);
        if (event.code === 'rtsp.truncated') return; // the hang-up that follows says it
        this.#nonsense = failureOfMalformed(event.code, event.excerpt);
        this.#signal('nonsense');
        return;
      case 'response':
        this.#takeResponse(event.response);
    }
  }

  #takeResponse(response: RtspResponse): void {
    if (response.status < 200) return; // "100 Continue": the answer is still to come
    const pending = this.#pending;
    const cseq = headerOf(response, 'CSeq');
    this.#tape('received', response.head + (response.body.length > 0 ? `\n\n${textOf(response.body)}` : ''));
    if (!pending || (cseq !== undefined && Number(cseq) !== pending.cseq)) {
      this.#tape('remark', `An answer to no open request (CSeq ${cseq ?? 'missing'}); passed over.`);
      return;
    }
    this.#response = response;
    this.#pending = null;
    this.#emit({ kind: 'disarmAnswer' });
    this.#server = headerOf(response, 'Server') ?? this.#server;
    this.#methods = headerOf(response, 'Public') ?? this.#methods;
    const signal = signalOf(response.status);
    if (signal === 'success' && pending.authorised) this.#login.accepted();
    this.#endStep(pending, response, signal);
    this.#answered = pending;
    this.#signal(signal);
  }

  #endStep(pending: Pending, response: RtspResponse, signal: ClientSignal): void {
    if (!pending.step) return;
    if (pending.step === 'setup' && signal === 'success' && (this.#plan?.waitingCount ?? 0) > 1) return; // more tracks to come
    const firstAsk = signal === 'unauthorized' && !pending.authorised;
    const note = firstAsk
      ? 'asks for a login'
      : signal === 'success'
        ? this.#noteOf(pending.step, response)
        : meaningOf(response.status).means;
    const isOk = signal === 'success' || (firstAsk && this.options.credentials !== null) || pending.step === 'options';
    this.#emit({ kind: 'stepEnded', name: pending.step, atMs: this.#atMs, ok: isOk, status: response.status, note });
  }

  #noteOf(step: ProbeStepName, response: RtspResponse): string | null {
    if (step === 'authenticate') return this.#login.describe();
    if (step === 'options') return headerOf(response, 'Server') ?? null;
    if (step === 'setup') {
      const pairs = this.#plan?.tracks.map((track) => `${track.rtpChannel}–${track.rtcpChannel}`) ?? [];
      const last = parseTransport(headerOf(response, 'Transport') ?? '').interleaved;
      return `TCP, channels ${[...pairs, last ? last.join('–') : ''].filter(Boolean).join(', ')}`;
    }
    return null;
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
        this.#login.readChallenges(this.#response ? headersOf(this.#response, 'WWW-Authenticate') : []);
        return;
      case 'describe':
        return this.#request('DESCRIBE', this.#requestUrl, this.#login.isArmed ? 'authenticate' : 'describe', [
          { name: 'Accept', value: 'application/sdp' },
        ]);
      case 'authorise':
        return this.#authorise();
      case 'follow':
        return this.#follow();
      case 'readDescription':
        return this.#readDescription();
      case 'noteTrack':
        return this.#noteTrack();
      case 'trackRefused':
        return this.#trackRefused();
      case 'noteStart':
        this.#emit({ kind: 'playing', tracks: this.#plan?.tracks ?? [] });
        return this.#armKeepAlive();
      case 'keepAlive':
        return;
      case 'tearDown':
        return this.#tearDown();
      case 'finish':
        return this.#finish();
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
    }
  }

  get #pendingMethod(): string {
    return this.#pending?.method ?? (this.#phase === 'idle' ? 'the connection' : 'anything more');
  }
  get #statusFailure(): ClientFailure {
    const method = this.#answered?.method ?? 'a request';
    return this.#response
      ? failureOfStatus(this.#response, method)
      : { cause: 'protocol-error', note: `${method} was refused.` };
  }

  /** A failure in a phase that ends here also hangs up; one that still tears down leaves that to the next action. */
  #failAnd(failure: ClientFailure): void {
    this.#fail(failure);
    if (this.#phase !== 'closed') return;
    if (this.#sessionId) this.#sendTearDown(); // goodbye without waiting: the peer cannot be understood or is gone
    this.#finish();
  }

  #authorise(): void {
    const refused = this.#answered;
    if (!refused || !this.#response) return;
    const failure = this.#login.refused(headersOf(this.#response, 'WWW-Authenticate'), refused.authorised);
    if (failure) {
      if (this.#phase === 'tearingDown') return this.#finish(); // a refused goodbye is no failure, and not said twice
      this.#fail(failure);
      return this.#abandon();
    }
    this.#request(
      refused.method,
      refused.uri,
      refused.method === 'DESCRIBE' ? 'authenticate' : refused.step,
      refused.headers,
    );
  }

  /** Ends here, with TEARDOWN when there is a session to end. */
  #abandon(): void {
    this.#phase = 'tearingDown';
    this.#tearDown();
  }

  #follow(): void {
    this.#redirects += 1;
    const location = this.#response ? (headerOf(this.#response, 'Location') ?? '') : '';
    const followed = followRedirect(location, this.options.url, this.#redirects);
    if ('cause' in followed) {
      this.#fail(followed);
      return this.#abandon();
    }
    this.#requestUrl = followed.url;
    this.#tape('remark', `Sent on to ${followed.url}`);
    this.#perform('describe');
  }

  #readDescription(): void {
    const response = this.#response;
    if (!response) return;
    const type = headerOf(response, 'Content-Type') ?? 'application/sdp';
    const text = textOf(response.body);
    if (!/^application\/sdp\b/i.test(type) && !/^v=0/.test(text.trimStart())) {
      this.#fail({
        cause: 'protocol-error',
        note: `Expected a stream description (application/sdp), got ${type.slice(0, 40)}.`,
      });
      return this.#abandon();
    }
    const base = headerOf(response, 'Content-Base') ?? headerOf(response, 'Content-Location') ?? this.#requestUrl;
    const { session, faults } = parseSdp(text, base);
    this.#control = session.control;
    this.#plan = new TrackPlan(session);
    this.#emit({ kind: 'described', session, faults });
    for (const fault of faults) this.#tape('remark', fault.message);
    if (!this.#plan.hasVideo) {
      const kinds = session.media.map((media) => media.kind).join(', ');
      this.#fail({ cause: 'no-video', note: `The description has no video: ${kinds || 'it is empty'}.` });
      return this.#abandon();
    }
    this.#setUpNext();
  }

  #setUpNext(): void {
    const next = this.#plan?.next();
    if (next) return this.#request('SETUP', next.control, 'setup', [{ name: 'Transport', value: next.transport }]);
    if (!this.options.play) return this.#abandon();
    this.#phase = 'starting';
    this.#request('PLAY', this.#aggregateUrl, 'play', [{ name: 'Range', value: 'npt=0.000-' }]);
  }

  #noteTrack(): void {
    if (!this.#response) return;
    const session = parseSession(headerOf(this.#response, 'Session') ?? '');
    this.#sessionId = session.id || this.#sessionId;
    this.#sessionTimeoutS = session.timeoutS;
    this.#plan?.grant(headerOf(this.#response, 'Transport') ?? '');
    this.#setUpNext();
  }

  #trackRefused(): void {
    const place = this.#plan?.refuse();
    if (!this.#plan || this.#plan.tracks.length === 0) {
      this.#fail(this.#statusFailure);
      return this.#abandon();
    }
    this.#tape('remark', `Track ${place} was refused; the picture goes on without it.`);
    this.#setUpNext();
  }

  get #aggregateUrl(): string {
    return this.#control ?? this.#requestUrl;
  }

  #tearDown(): void {
    if (!this.#sessionId) return this.#finish();
    this.#emit({ kind: 'stepBegan', name: 'teardown', atMs: this.#atMs });
    this.#sendTearDown('teardown');
  }
  #sendTearDown(step: ProbeStepName | null = null): void {
    this.#send('TEARDOWN', this.#aggregateUrl, step, []);
  }
  #sendKeepAlive(): void {
    // GET_PARAMETER without a body is the sign of life of RFC 2326 §10.8; OPTIONS where it is not offered.
    const method = /\bGET_PARAMETER\b/.test(this.#methods) ? 'GET_PARAMETER' : 'OPTIONS';
    this.#send(method, this.#aggregateUrl, null, []);
    this.#emit({ kind: 'disarmAnswer' }); // a camera that streams but answers late is alive
    this.#armKeepAlive();
  }
  #armKeepAlive(): void {
    const halfTimeoutMs = ((this.#sessionTimeoutS ?? 60) * 1000) / 2;
    this.#emit({ kind: 'armKeepAlive', afterMs: Math.min(MAX_KEEP_ALIVE_MS, halfTimeoutMs) });
  }

  #request(method: string, uri: string, step: ProbeStepName | null, headers: readonly RtspHeader[] = []): void {
    if (step && !(step === 'setup' && (this.#plan?.tracks.length ?? 0) > 0))
      this.#emit({ kind: 'stepBegan', name: step, atMs: this.#atMs });
    this.#send(method, uri, step, headers);
  }

  #send(method: string, uri: string, step: ProbeStepName | null, headers: readonly RtspHeader[]): void {
    this.#cseq += 1;
    const all: RtspHeader[] = [{ name: 'CSeq', value: String(this.#cseq) }];
    const authorization = this.#login.authorizationFor(method, uri);
    if (authorization !== null) all.push({ name: 'Authorization', value: authorization });
    if (this.#sessionId) all.push({ name: 'Session', value: this.#sessionId });
    all.push(...headers, { name: 'User-Agent', value: this.options.userAgent });
    this.#pending = { method, uri, headers, cseq: this.#cseq, step, authorised: authorization !== null };
    const text = writeRequest(method, uri, all);
    this.#tape('sent', text.trimEnd(), step ?? undefined);
    this.#emit({ kind: 'send', bytes: bytesOf(text) });
    this.#emit({ kind: 'armAnswer' });
  }

  /** Some cameras ask back. OPTIONS is answered, everything else is not implemented here. */
  #answerRequest(request: RtspRequest): void {
    this.#tape('received', request.head);
    const headers = [{ name: 'CSeq', value: headerOf(request, 'CSeq') ?? '0' }];
    const text =
      request.method === 'OPTIONS'
        ? writeResponse(200, 'OK', [...headers, { name: 'Public', value: 'OPTIONS' }])
        : writeResponse(501, 'Not Implemented', headers);
    this.#tape('sent', text.trimEnd());
    this.#emit({ kind: 'send', bytes: bytesOf(text) });
  }

  #fail(failure: ClientFailure): void {
    this.#emit({ kind: 'failed', ...failure });
  }
  #finish(): void {
    this.#phase = 'closed';
    this.#emit({ kind: 'disarmAnswer' });
    this.#emit({ kind: 'close' });
    this.#emit({ kind: 'ended' });
  }
  #emit(effect: ClientEffect): void {
    this.#effects.push(effect);
  }
  #tape(direction: 'sent' | 'received' | 'remark', text: string, step?: ProbeStepName): void {
    const at = step ?? this.#pending?.step ?? STEP_OF_PHASE[this.#phase];
    this.#emit({ kind: 'tape', entry: { atMs: this.#atMs, step: at, direction, text: redactText(text) } });
  }
}
