import type { ChosenChallenge } from '../auth/challenge.ts';
import { bytesOf, textOf } from '../base/bytes.ts';
import { redactText } from '../net/redact-text.ts';
import { parseStreamUrl, redactUrl, withoutAccount } from '../net/stream-url.ts';
import type { ProbeCause, ProbeStepName } from '../probe/probe-types.ts';
import { parseSdp } from '../sdp/sdp-parser.ts';
import type { SdpSession } from '../sdp/sdp-types.ts';
import { CLIENT_MOVES, type ClientAction, type ClientPhase, type ClientSignal } from './client-moves.ts';
import type { ClientEffect, ClientInput, RtspClientOptions, Track } from './client-types.ts';
import { Login } from './login.ts';
import { type RtspEvent, type RtspFaultCode, RtspMessageParser } from './message-parser.ts';
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
import { parseSession, parseTransport } from './transport.ts';

/** Cameras have a picture and a sound; a description with more is drawn up to here. */
const MAX_TRACKS = 4;
const MAX_REDIRECTS = 3;
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
  #nonsense: { cause: ProbeCause; note: string } | null = null;
  #requestUrl: string;
  #redirects = 0;
  readonly #login: Login;
  #session: SdpSession | null = null;
  #sessionId: string | null = null;
  #sessionTimeoutS: number | null = null;
  #methods = '';
  #server: string | null = null;
  #waiting: { mediaIndex: number; channel: number }[] = [];
  #tracks: Track[] = [];
  #byChannel = new Map<number, { track: Track; isRtcp: boolean }>();

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
        const target = this.#byChannel.get(event.channel);
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
        this.#nonsense = {
          cause: MALFORMED[event.code].cause,
          note: `${MALFORMED[event.code].note}: “${event.excerpt}”`,
        };
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
    if (pending.step === 'setup' && signal === 'success' && this.#waiting.length > 1) return; // more tracks to come
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
      const pairs = [...this.#tracks.map((track) => `${track.rtpChannel}–${track.rtcpChannel}`)];
      const last = parseTransport(headerOf(response, 'Transport') ?? '').interleaved;
      return `TCP, channels ${[...pairs, last ? last.join('–') : ''].filter(Boolean).join(', ')}`;
    }
    return null;
  }

  #signal(signal: ClientSignal): void {
    const move = CLIENT_MOVES[this.#phase][signal];
    if (!move) {
      this.#fail('protocol-error', `The camera answered out of turn (${signal} while ${this.#phase}).`);
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
      case 'noteStart': {
        this.#emit({ kind: 'playing', tracks: this.#tracks });
        const afterMs = Math.min(MAX_KEEP_ALIVE_MS, ((this.#sessionTimeoutS ?? 60) * 1000) / 2);
        this.#emit({ kind: 'armKeepAlive', afterMs });
        return;
      }
      case 'keepAlive':
        return;
      case 'tearDown':
        return this.#tearDown();
      case 'finish':
        return this.#finish();
      case 'failTimeout':
        return this.#failAnd(() =>
          this.#fail('timeout', `No answer to ${this.#pending?.method ?? 'the connection'} in time.`),
        );
      case 'failClosed':
        return this.#failAnd(() =>
          this.#fail(
            'closed',
            this.#pending ? `The camera hung up instead of answering ${this.#pending.method}.` : 'The camera hung up.',
          ),
        );
      case 'failNonsense':
        return this.#failAnd(() =>
          this.#fail(
            this.#nonsense?.cause ?? 'protocol-error',
            this.#nonsense?.note ?? 'The answer could not be read.',
          ),
        );
      case 'failStatus':
        return this.#failAnd(() => this.#failStatus());
    }
  }

  /** A failure in a phase that ends here also hangs up; one that still tears down leaves that to the next action. */
  #failAnd(fail: () => void): void {
    fail();
    if (this.#phase !== 'closed') return;
    if (this.#sessionId) this.#sendTearDown(); // goodbye without waiting: the peer cannot be understood or is gone
    this.#finish();
  }

  #failStatus(): void {
    const status = this.#response?.status ?? 0;
    const meaning = meaningOf(status);
    this.#fail(
      meaning.cause,
      `${status} ${this.#response?.reason || meaning.reason} to ${this.#answered?.method ?? 'a request'}: ${meaning.means}.`,
    );
  }

  #authorise(): void {
    const refused = this.#answered;
    if (!refused || !this.#response) return;
    const failure = this.#login.refused(headersOf(this.#response, 'WWW-Authenticate'), refused.authorised);
    if (failure) {
      this.#fail(failure.cause, failure.note);
      return this.#abandon();
    }
    this.#request(
      refused.method,
      refused.uri,
      refused.method === 'DESCRIBE' ? 'authenticate' : refused.step,
      refused.headers,
    );
  }

  /** Ends after a failure, with TEARDOWN when there is a session to end. */
  #abandon(): void {
    this.#phase = 'tearingDown';
    this.#tearDown();
  }

  #follow(): void {
    const location = this.#response ? headerOf(this.#response, 'Location') : undefined;
    const target = parseStreamUrl(location ?? '');
    const { host, port, scheme } = this.options.url;
    this.#redirects += 1;
    if (!target.ok) {
      this.#fail('protocol-error', `Sent elsewhere, but not to a URL that can be read.`);
      return this.#abandon();
    }
    if (target.value.url.host !== host || target.value.url.port !== port || target.value.url.scheme !== scheme) {
      this.#fail(
        'blocked-by-policy',
        `Sent on to ${redactUrl(location ?? '')}: another address is never followed with this account.`,
      );
      return this.#abandon();
    }
    const next = withoutAccount(target.value.url);
    if (this.#redirects > MAX_REDIRECTS) {
      this.#fail('redirect-loop', `Sent on ${this.#redirects} times, last to ${next}.`);
      return this.#abandon();
    }
    this.#requestUrl = next;
    this.#tape('remark', `Sent on to ${next}`);
    this.#perform('describe');
  }

  #readDescription(): void {
    const response = this.#response;
    if (!response) return;
    const type = headerOf(response, 'Content-Type') ?? 'application/sdp';
    const text = textOf(response.body);
    if (!/^application\/sdp\b/i.test(type) && !/^v=0/.test(text.trimStart())) {
      this.#fail('protocol-error', `Expected a stream description (application/sdp), got ${type.slice(0, 40)}.`);
      return this.#abandon();
    }
    const base = headerOf(response, 'Content-Base') ?? headerOf(response, 'Content-Location') ?? this.#requestUrl;
    const { session, faults } = parseSdp(text, base);
    this.#session = session;
    this.#emit({ kind: 'described', session, faults });
    for (const fault of faults) this.#tape('remark', fault.message);
    const drawn = session.media
      .map((media, mediaIndex) => ({ media, mediaIndex }))
      .filter(({ media }) => media.kind !== 'application' && !media.backchannel);
    // The picture first: if the camera grants only one track, it must be this one.
    drawn.sort((a, b) => Number(b.media.kind === 'video') - Number(a.media.kind === 'video'));
    this.#waiting = drawn.slice(0, MAX_TRACKS).map(({ mediaIndex }, index) => ({ mediaIndex, channel: 2 * index }));
    if (!drawn.some(({ media }) => media.kind === 'video')) {
      this.#fail(
        'no-video',
        `The description has no video: ${session.media.map((media) => media.kind).join(', ') || 'it is empty'}.`,
      );
      return this.#abandon();
    }
    this.#setUpNext();
  }

  #setUpNext(): void {
    const next = this.#waiting[0];
    const media = next && this.#session?.media[next.mediaIndex];
    if (next && media) {
      const headers = [
        { name: 'Transport', value: `RTP/AVP/TCP;unicast;interleaved=${next.channel}-${next.channel + 1}` },
      ];
      return this.#request('SETUP', media.control, 'setup', headers);
    }
    if (!this.options.play) {
      this.#phase = 'tearingDown';
      return this.#tearDown();
    }
    this.#phase = 'starting';
    this.#request('PLAY', this.#session?.control ?? this.#requestUrl, 'play', [{ name: 'Range', value: 'npt=0.000-' }]);
  }

  #noteTrack(): void {
    const setUp = this.#waiting.shift();
    const media = setUp && this.#session?.media[setUp.mediaIndex];
    if (!setUp || !media || !this.#response) return;
    const session = parseSession(headerOf(this.#response, 'Session') ?? '');
    this.#sessionId = session.id || this.#sessionId;
    this.#sessionTimeoutS = session.timeoutS;
    const transport = parseTransport(headerOf(this.#response, 'Transport') ?? '');
    const [rtpChannel, rtcpChannel] = transport.interleaved ?? [setUp.channel, setUp.channel + 1];
    const track: Track = { mediaIndex: setUp.mediaIndex, media, rtpChannel, rtcpChannel };
    this.#tracks.push(track);
    this.#byChannel.set(rtpChannel, { track, isRtcp: false });
    this.#byChannel.set(rtcpChannel, { track, isRtcp: true });
    this.#setUpNext();
  }

  #trackRefused(): void {
    const refused = this.#waiting.shift();
    if (!refused || this.#tracks.length === 0) {
      this.#failStatus();
      return this.#abandon();
    }
    this.#tape('remark', `Track ${refused.mediaIndex + 1} was refused; the picture goes on without it.`);
    this.#setUpNext();
  }

  #tearDown(): void {
    if (!this.#sessionId) return this.#finish();
    this.#emit({ kind: 'stepBegan', name: 'teardown', atMs: this.#atMs });
    this.#sendTearDown('teardown');
  }
  #sendTearDown(step: ProbeStepName | null = null): void {
    this.#send('TEARDOWN', this.#session?.control ?? this.#requestUrl, step, []);
  }
  #sendKeepAlive(): void {
    // GET_PARAMETER without a body is the sign of life of RFC 2326 §10.8; OPTIONS where it is not offered.
    const method = /\bGET_PARAMETER\b/.test(this.#methods) ? 'GET_PARAMETER' : 'OPTIONS';
    this.#send(method, this.#session?.control ?? this.#requestUrl, null, []);
    this.#emit({ kind: 'disarmAnswer' }); // a camera that streams but answers late is alive
    this.#emit({
      kind: 'armKeepAlive',
      afterMs: Math.min(MAX_KEEP_ALIVE_MS, ((this.#sessionTimeoutS ?? 60) * 1000) / 2),
    });
  }

  #request(method: string, uri: string, step: ProbeStepName | null, headers: readonly RtspHeader[] = []): void {
    if (step && !(step === 'setup' && this.#tracks.length > 0))
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

  #fail(cause: ProbeCause, note: string): void {
    this.#emit({ kind: 'failed', cause, note });
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

const STEP_OF_PHASE: Readonly<Record<ClientPhase, ProbeStepName>> = {
  idle: 'connect',
  askingOptions: 'options',
  describing: 'describe',
  settingUp: 'setup',
  starting: 'play',
  streaming: 'sample',
  tearingDown: 'teardown',
  closed: 'teardown',
};

const MALFORMED: Readonly<
  Record<Exclude<RtspFaultCode, 'rtsp.truncated'>, { readonly cause: ProbeCause; readonly note: string }>
> = {
  'rtsp.not-rtsp': { cause: 'not-rtsp', note: 'Something other than RTSP answered' },
  'rtsp.start-line-too-long': { cause: 'not-rtsp', note: 'The answer began with a line longer than any RTSP answer' },
  'rtsp.headers-too-long': { cause: 'protocol-error', note: 'The headers went on beyond 64 KiB, after' },
  'rtsp.bad-content-length': { cause: 'protocol-error', note: 'The answer gives a length that is no number, in' },
  'rtsp.body-too-long': { cause: 'protocol-error', note: 'The answer announces a body above 1 MiB, in' },
};

function signalOf(status: number): ClientSignal {
  if (status < 300) return 'success';
  if (status === 401 || status === 407) return 'unauthorized';
  return status === 301 || status === 302 || status === 303 || status === 307 ? 'redirect' : 'refused';
}
