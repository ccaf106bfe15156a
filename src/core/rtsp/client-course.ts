import type { Header } from '../http/headers.ts';
import { withoutAccount } from '../net/stream-url.ts';
import { type ClientFailure, failureOfStatus, followRedirect } from './client-failures.ts';
import { CLIENT_MOVES, type ClientAction, type ClientPhase, type ClientSignal } from './client-moves.ts';
import type { ClientEffect, RtspClientOptions } from './client-types.ts';
import type { Conversation } from './conversation.ts';
import { readDescription } from './description.ts';
import type { ProbeStepName } from './exchange-types.ts';
import { spokenUrl } from './http-tunnel.ts';
import type { Login } from './login.ts';
import { sayOfPeer } from './peer-words.ts';
import { KeepAlives, keepAliveAfterMs } from './session-upkeep.ts';
import type { TrackPlan } from './track-plan.ts';
import { type SetUpMove, TrackSetUp } from './track-set-up.ts';

/** A TEARDOWN that is not answered is none of the person's waiting. */
const TEARDOWN_MS = 500;
const UNAUTHORIZED = 401;
/** A server that closes after every 401 wants one; with more of them an account would be tried too often. */
const MAX_REDIALS = 1;

/** Why a signal came that ends the exchange, where more is known than that it came. */
const UNREAD: ClientFailure = { cause: 'protocol-error', note: 'The answer could not be read.' };

export interface CourseOptions {
  readonly client: RtspClientOptions;
  readonly login: Login;
  readonly talk: Conversation;
  readonly emit: (effect: ClientEffect) => void;
  readonly nowMs: () => number;
}

/**
 * The course of one exchange: a signal moves it on to its next phase, and what that asks for is done. It goes by
 * `CLIENT_MOVES`; a signal that is not listed for a phase is a fault of the peer.
 */
export class ClientCourse {
  #phase: ClientPhase = 'idle';
  #requestUrl: string;
  #redirects = 0;
  #redials = 0;
  #redialledIn: ClientPhase = 'describing';
  #isAskedAfresh = false;
  /** TCP was refused: why the tracks are asked for over UDP, once the stream was described again. */
  #udpBecause: string | null = null;
  #isDescribed = false;
  #control: string | null = null;
  #setUp: TrackSetUp | null = null;
  readonly #signs = new KeepAlives();
  #told: ClientFailure = UNREAD;
  readonly #login: Login;
  readonly #talk: Conversation;
  readonly #given: RtspClientOptions;
  readonly #emit: (effect: ClientEffect) => void;
  /** What the server says that it takes, from its Public header. */
  methods = '';

  constructor(private readonly options: CourseOptions) {
    this.#given = options.client;
    this.#login = options.login;
    this.#talk = options.talk;
    this.#emit = options.emit;
    this.#requestUrl = withoutAccount(spokenUrl(this.#given.url));
  }

  get phase(): ClientPhase {
    return this.#phase;
  }
  get plan(): TrackPlan | null {
    return this.#setUp?.plan ?? null;
  }
  /** A keep-alive that the camera offered and refused. */
  get refusedKeepAlive(): string | null {
    return this.#signs.refused;
  }

  /** It hung up on the answer to its own question for a login: some servers close after every 401. */
  get mayRedial(): boolean {
    const { open, last, sessionId } = this.#talk;
    const isAsking = this.#phase === 'describing' || this.#phase === 'settingUp';
    const wasAsked = open?.authorised === true && last?.response.status === UNAUTHORIZED;
    return isAsking && wasAsked && sessionId === null && this.#redials < MAX_REDIALS;
  }

  /** It refused an odd request and says nothing more: that it hangs is only so where it hangs afresh too. */
  get mayAskAfresh(): boolean {
    const { open, last, sessionId } = this.#talk;
    const isAsking = this.#phase === 'describing' || this.#phase === 'settingUp';
    const status = last?.response.status ?? 0;
    const wasOdd = status >= 400 && status !== UNAUTHORIZED;
    return isAsking && open !== null && wasOdd && sessionId === null && !this.#isAskedAfresh;
  }

  /** It closes after each 401, that to a login too: that is how it refuses one. */
  get isRefusedByClosing(): boolean {
    const { open, last } = this.#talk;
    return open !== null && last?.request.authorised === true && last.response.status === UNAUTHORIZED;
  }

  redial(): void {
    this.#redials += 1;
    this.#connectAgain('It closed the connection after asking for a login; connecting again.');
  }

  askAfresh(): void {
    this.#isAskedAfresh = true;
    this.#login.forgetChallenge();
    this.#connectAgain('No answer after a refused request; asking again on a new connection.');
  }

  #connectAgain(remark: string | null): void {
    this.#redialledIn = this.#phase;
    this.#phase = 'redialling';
    this.#login.reconnected();
    if (remark !== null) this.#talk.tape('remark', remark);
    this.#emit({ kind: 'disarmAnswer' });
    this.#emit({ kind: 'redial' });
  }

  #resume(): void {
    if (this.#udpBecause !== null) return this.#describe();
    this.#phase = this.#redialledIn;
    const { open } = this.#talk;
    if (open) this.#talk.send(open.method, open.uri, open.step, open.headers);
  }

  /** @param why what ended it, of signals that end it */
  signal(signal: ClientSignal, why: ClientFailure = UNREAD): void {
    this.#told = why;
    const move = CLIENT_MOVES[this.#phase][signal];
    if (!move) {
      const note = `The camera answered out of turn (${signal} while ${this.#phase}).`;
      return this.end({ cause: 'protocol-error', note });
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
        return this.#describe();
      case 'authorise':
        return this.#authorise();
      case 'resume':
        return this.#resume();
      case 'follow':
        return this.#follow();
      case 'readDescription':
        return this.#readDescription();
      case 'askSetUp':
        return void (this.#setUp && this.#goOn(this.#setUp.next()));
      case 'noteTrack':
        return this.#noteTrack();
      case 'trackRefused':
        return this.#trackRefused();
      case 'noteStart':
        this.#emit({
          kind: 'playing',
          tracks: this.plan?.tracks ?? [],
          transportReason: this.plan?.reason ?? '',
        });
        return this.#armKeepAlive();
      case 'keepAlive':
        return this.#noteKeepAlive();
      case 'tearDown':
        return this.#tearDown();
      case 'finish':
        return this.#finish();
      case 'tearDownAnswered':
        return this.#tearDownAnswered();
      case 'failTimeout':
        return this.#failAnd({ cause: 'timeout', note: `No answer to ${this.#pendingMethod} in time.` });
      case 'failClosed':
        return this.#failAnd({
          cause: 'closed',
          note: `The camera closed the connection instead of answering ${this.#pendingMethod}.`,
        });
      case 'failStatus':
        return this.#failAnd(this.#statusFailure);
      case 'failNonsense':
      case 'failDismissed':
      case 'failPorts':
        return this.#failAnd(this.#told);
    }
  }

  /** Asked a second time it is no step of its own. */
  #describe(): void {
    const step = this.#isDescribed ? null : this.#login.isArmed ? 'authenticate' : 'describe';
    this.#request('DESCRIBE', this.#requestUrl, step, [{ name: 'Accept', value: 'application/sdp' }]);
  }

  get #pendingMethod(): string {
    if (this.#phase === 'redialling') return 'the new connection';
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
    if (this.#talk.sessionId) this.#sendTearDown(); // TEARDOWN without waiting: the peer cannot be understood or is gone
    this.#finish();
  }

  #authorise(): void {
    const refused = this.#talk.last?.request;
    if (!refused) return;
    if (this.#phase === 'tearingDown' && refused.method !== 'TEARDOWN') return this.#finish(); // nothing to end
    const failure = this.#login.refused(this.#talk.lastChallenges, refused.authorised);
    if (failure && this.#phase === 'tearingDown') return this.#finish(); // a refused TEARDOWN is no failure, nor said twice
    if (failure) return this.#giveUp(failure);
    const step = refused.method === 'DESCRIBE' && !this.#isDescribed ? 'authenticate' : refused.step;
    this.#request(refused.method, refused.uri, step, refused.headers);
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
      spokenUrl(this.#given.url),
      this.#redirects,
    );
    if ('cause' in followed) return this.#giveUp(followed);
    this.#requestUrl = followed.url;
    this.#talk.tape('remark', `Redirected to ${followed.url}`);
    this.#perform('describe');
  }

  #readDescription(): void {
    const response = this.#talk.last?.response;
    if (!response) return;
    const read = readDescription(response, this.#requestUrl);
    if ('cause' in read) return this.#giveUp(read);
    const { session, faults } = read;
    this.#control = session.control;
    const remark = (sentence: string): void => this.#talk.tape('remark', sentence);
    const setUp = new TrackSetUp(session, this.#given.transport, this.#given.hide, remark);
    this.#setUp = setUp;
    if (this.#udpBecause !== null) setUp.plan.fallBackToUdp(this.#udpBecause);
    if (this.#isDescribed) return this.#goOn(setUp.next());
    this.#isDescribed = true;
    this.#emit({ kind: 'described', session, faults });
    for (const fault of faults) remark(fault.message);
    if (!setUp.plan.hasVideo) {
      const kinds = session.media.map((media) => media.kind).join(', ');
      this.#fail({ cause: 'no-video', note: `The description has no video: ${kinds || 'it is empty'}.` });
      return this.#abandon();
    }
    this.#goOn(setUp.next());
  }

  #goOn(move: SetUpMove): void {
    switch (move.kind) {
      case 'openPorts':
        this.#phase = 'openingPorts';
        return this.#emit({ kind: 'openUdp', place: move.place });
      case 'ask':
        return this.#request('SETUP', move.control, 'setup', [{ name: 'Transport', value: move.transport }]);
      case 'giveUp':
        return this.#giveUp(move.failure);
      case 'afresh':
        this.#udpBecause = move.because;
        this.#login.forgetChallenge();
        return this.#connectAgain(null);
      case 'play':
        if (!this.#given.play) return this.#abandon();
        this.#phase = 'starting';
        return this.#request('PLAY', this.#aggregateUrl, 'play', [{ name: 'Range', value: 'npt=0.000-' }]);
    }
  }

  #noteTrack(): void {
    this.#talk.noteSession();
    if (this.#setUp) this.#goOn(this.#setUp.granted(this.#talk.lastHeader('Transport') ?? ''));
  }

  #trackRefused(): void {
    if (this.#setUp) this.#goOn(this.#setUp.refused(this.#talk.last?.response.status, this.#statusFailure));
  }

  get #aggregateUrl(): string {
    return this.#control ?? this.#requestUrl;
  }

  #tearDown(): void {
    if (!this.#talk.sessionId) {
      if (this.#talk.open?.method === 'SETUP') return; // its answer names the session that must be ended
      return this.#finish();
    }
    this.#emit({ kind: 'stepBegan', name: 'teardown', atMs: this.options.nowMs() });
    this.#sendTearDown('teardown');
  }
  /** Told to stop while SETUP was under way: the session that it opened is ended as well. */
  #tearDownAnswered(): void {
    if (this.#talk.last?.request.method !== 'SETUP') return this.#finish();
    this.#talk.noteSession();
    this.#tearDown();
  }
  #sendTearDown(step: ProbeStepName | null = null): void {
    this.#talk.send('TEARDOWN', this.#aggregateUrl, step, []);
    this.#emit({ kind: 'armAnswer', mostMs: TEARDOWN_MS });
  }
  /** A keep-alive is due. */
  sendKeepAlive(): void {
    this.#talk.send(this.#signs.next(this.methods), this.#aggregateUrl, null, []);
    this.#emit({ kind: 'disarmAnswer' }); // a camera that streams but answers late is alive
    this.#armKeepAlive();
  }
  /** One that the camera does not take keeps nothing alive: the next is tried at once. */
  #noteKeepAlive(): void {
    const { last } = this.#talk;
    if (!last || !this.#signs.answered(last.request.method, last.response.status)) return;
    this.#talk.tape(
      'remark',
      `${last.request.method} is offered and refused with ${last.response.status}; trying another.`,
    );
    this.sendKeepAlive();
  }
  #armKeepAlive(): void {
    this.#emit({ kind: 'armKeepAlive', afterMs: keepAliveAfterMs(this.#talk.sessionTimeoutS) });
  }

  #request(method: string, uri: string, step: ProbeStepName | null, headers: readonly Header[] = []): void {
    if (step && !(step === 'setup' && (this.plan?.tracks.length ?? 0) > 0))
      this.#emit({ kind: 'stepBegan', name: step, atMs: this.options.nowMs() });
    this.#talk.send(method, uri, step, headers);
  }

  /** Nothing more is said on this line. */
  end(failure: ClientFailure): void {
    this.#fail(failure);
    this.#finish();
  }
  #fail(failure: ClientFailure): void {
    this.#emit({ kind: 'failed', cause: failure.cause, note: sayOfPeer(failure.note, this.#given.hide) });
  }
  #finish(): void {
    this.#login.proofEnded('unanswered', 'rtsp');
    this.#phase = 'closed';
    this.#emit({ kind: 'disarmAnswer' });
    this.#emit({ kind: 'close' });
    this.#emit({ kind: 'ended' });
  }
}
