import { bytesOf, textOf } from '../base/bytes.ts';
import { clipAtBlank } from '../base/clip.ts';
import { type Header, headerOf, headersOf } from '../http/headers.ts';
import { redactText } from '../net/redact-text.ts';
import type { ClientEffect } from './client-types.ts';
import type { ProbeStepName } from './exchange-types.ts';
import type { Login } from './login.ts';
import { type RtspRequest, type RtspResponse, wireUri, writeRequest, writeResponse } from './rtsp-message.ts';
import { parseSession } from './transport.ts';

/** What the wire tape keeps of one message: longer ones are no camera's. Clipped before anything is looked for in it. */
const MAX_TAPE_CHARS = 8 * 1024;

/** A request that was sent, kept to send it again or to say what was refused. */
export interface SentRequest {
  readonly method: string;
  readonly uri: string;
  readonly headers: readonly Header[];
  readonly cseq: number;
  readonly step: ProbeStepName | null;
  readonly authorised: boolean;
}

/** What a server may ask of a client that is only there to look. */
const ANSWERED: ReadonlySet<string> = new Set(['OPTIONS', 'GET_PARAMETER', 'SET_PARAMETER', 'TEARDOWN', 'REDIRECT']);

const bodyText = (body: Uint8Array): string =>
  body.length === 0 ? '' : `\n\n${textOf(body.subarray(0, 2 * MAX_TAPE_CHARS))}`;

/** An answer with the request it belongs to. */
export interface Exchange {
  readonly request: SentRequest;
  readonly response: RtspResponse;
}

export interface ConversationOptions {
  readonly login: Login;
  readonly userAgent: string;
  /** Tells a text without the login that a path may hold. */
  readonly hide: (text: string) => string;
  readonly emit: (effect: ClientEffect) => void;
  readonly nowMs: () => number;
  /** The step that what is said belongs to when no request is open. */
  readonly currentStep: () => ProbeStepName;
}

/**
 * Who said what on one connection: numbers requests, adds login and session, matches answers by CSeq, and writes the
 * wire tape. It decides nothing. Source: RFC 2326 §12.17 (CSeq), §12.37 (Session).
 */
export class Conversation {
  #cseq = 0;
  #open: SentRequest | null = null;
  #last: Exchange | null = null;
  #sessionId: string | null = null;
  #sessionTimeoutS: number | null = null;

  constructor(private readonly options: ConversationOptions) {}

  /** The request that waits for its answer. */
  get open(): SentRequest | null {
    return this.#open;
  }
  /** The exchange that was finished last. */
  get last(): Exchange | null {
    return this.#last;
  }
  /** From the answer to SETUP; carried by every later request. */
  get sessionId(): string | null {
    return this.#sessionId;
  }
  /** How long the camera keeps the session without a word. */
  get sessionTimeoutS(): number | null {
    return this.#sessionTimeoutS;
  }
  /** The last answer names the session that it opened. */
  noteSession(): void {
    const { id, timeoutS } = parseSession(this.lastHeader('Session') ?? '');
    this.#sessionId = id || this.#sessionId;
    this.#sessionTimeoutS = timeoutS;
  }
  lastHeader(name: string): string | undefined {
    return this.#last ? headerOf(this.#last.response, name) : undefined;
  }
  get lastChallenges(): readonly string[] {
    return this.#last ? headersOf(this.#last.response, 'WWW-Authenticate') : [];
  }

  send(method: string, target: string, step: ProbeStepName | null, headers: readonly Header[]): void {
    const uri = wireUri(target); // the proof of a password is of the line as it is sent
    this.#cseq += 1;
    const all: Header[] = [{ name: 'CSeq', value: String(this.#cseq) }];
    const authorization = this.options.login.authorizationFor(method, uri);
    if (authorization !== null) all.push({ name: 'Authorization', value: authorization });
    if (this.#sessionId) all.push({ name: 'Session', value: this.#sessionId });
    all.push(...headers, { name: 'User-Agent', value: this.options.userAgent });
    this.#open = { method, uri, headers, cseq: this.#cseq, step, authorised: authorization !== null };
    this.#say(writeRequest(method, uri, all), step ?? undefined);
    this.options.emit({ kind: 'armAnswer' });
  }

  /** Takes an answer: the exchange it ends, or `null` when it ends none (100 Continue, a stray or late answer). */
  take(response: RtspResponse): Exchange | null {
    if (response.status < 200) return null;
    const request = this.#open;
    const cseq = headerOf(response, 'CSeq');
    this.tape('received', response.head + bodyText(response.body));
    if (!request || (cseq !== undefined && Number(cseq) !== request.cseq)) {
      this.tape('remark', `An answer to no open request (CSeq ${cseq ?? 'missing'}); ignored.`);
      return null;
    }
    this.#open = null;
    this.#last = { request, response };
    this.options.emit({ kind: 'disarmAnswer' });
    return this.#last;
  }

  /** Some cameras ask back, to see whether somebody is still there, or to take their leave. Source: RFC 2326 §10. */
  reply(request: RtspRequest): void {
    this.tape('received', request.head);
    const headers = [{ name: 'CSeq', value: headerOf(request, 'CSeq') ?? '0' }];
    const session = headerOf(request, 'Session');
    if (session !== undefined) headers.push({ name: 'Session', value: session });
    if (request.method === 'OPTIONS') headers.push({ name: 'Public', value: [...ANSWERED].join(', ') });
    const isTaken = ANSWERED.has(request.method);
    this.#say(isTaken ? writeResponse(200, 'OK', headers) : writeResponse(501, 'Not Implemented', headers));
  }

  tape(direction: 'sent' | 'received' | 'remark', text: string, step?: ProbeStepName): void {
    const at = step ?? this.#open?.step ?? this.options.currentStep();
    const { kept, leftOut } = clipAtBlank(text, MAX_TAPE_CHARS);
    const shown = redactText(this.options.hide(kept)) + (leftOut > 0 ? `\n… ${leftOut} more characters` : '');
    this.options.emit({ kind: 'tape', entry: { atMs: this.options.nowMs(), step: at, direction, text: shown } });
  }

  #say(text: string, step?: ProbeStepName): void {
    this.tape('sent', text.trimEnd(), step);
    this.options.emit({ kind: 'send', bytes: bytesOf(text) });
  }
}
