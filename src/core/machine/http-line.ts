import { HttpAnswerParser } from '../http/http-answer-parser.ts';
import type { HttpAnswer, HttpFaultCode, HttpRequest } from '../http/http-message.ts';
import type { HttpCause } from './machine.ts';

/** What was wrong with the bytes, as a cause. */
const CAUSES: Readonly<Record<HttpFaultCode, HttpCause>> = {
  'http.not-http': 'not-http',
  'http.head-too-large': 'too-large',
  'http.body-too-large': 'too-large',
  'http.bad-length': 'not-http',
  'http.bad-chunk': 'not-http',
  'http.cut': 'cut',
};

export interface HttpLineFailure {
  readonly kind: 'failed';
  readonly cause: HttpCause;
  readonly note: string;
}
export type HttpLineEvent =
  | { readonly kind: 'answer'; readonly answer: HttpAnswer }
  | HttpLineFailure
  /** An answer that nobody had asked for. */
  | { readonly kind: 'extra' };

/**
 * One connection over which exchanges go one after the other, sans-IO: whether it may carry the next one, and what its bytes
 * mean for the one that waits. A peer that answered twice is shut out: its second answer would be taken for that to the next
 * question. Source: RFC 9112 §9.3 (persistence), §9.3.1 (retrying).
 */
export class HttpLine {
  readonly #parser: HttpAnswerParser;
  #isWaiting = false;
  #hasHeard = false;
  #isShut = false;
  /** It spoke before it was asked, and made no sense. */
  #early: HttpLineFailure | null = null;

  /** @param mostBytes of one answer */
  constructor(
    private readonly target: Pick<HttpRequest, 'host' | 'port' | 'isTls'>,
    mostBytes: number,
  ) {
    this.#parser = new HttpAnswerParser(mostBytes);
  }

  /** Whether it may carry another exchange with this peer. */
  carries({ host, port, isTls }: HttpRequest): boolean {
    const { target } = this;
    return !this.#isShut && target.host === host && target.port === port && target.isTls === isTls;
  }
  get isShut(): boolean {
    return this.#isShut;
  }
  /** Nothing was heard since it was asked: a line that is closed then was closed while nobody spoke, which says nothing of the request. */
  get isUnheard(): boolean {
    return !this.#hasHeard;
  }
  shut(): void {
    this.#isShut = true;
    this.#isWaiting = false;
  }

  /** A request is about to go out; the failure where it cannot. */
  ask(): HttpLineFailure | null {
    const { host, port } = this.target;
    if (this.#early) return this.#early;
    if (this.#isShut)
      return {
        kind: 'failed',
        cause: 'closed',
        note: `${host}:${port} closed the connection before a request was sent.`,
      };
    this.#hasHeard = false;
    this.#isWaiting = true;
    return null;
  }

  push(chunk: Uint8Array): readonly HttpLineEvent[] {
    if (this.#isShut) return [];
    this.#hasHeard = true;
    return this.#taken(this.#parser.push(chunk));
  }
  end(): readonly HttpLineEvent[] {
    const events = this.#taken(this.#parser.end());
    const isWaiting = this.#isWaiting;
    this.shut();
    const { host, port } = this.target;
    return isWaiting
      ? [
          ...events,
          { kind: 'failed', cause: 'closed', note: `${host}:${port} closed the connection before it answered.` },
        ]
      : events;
  }

  #taken(events: ReturnType<HttpAnswerParser['push']>): readonly HttpLineEvent[] {
    return events.flatMap((event): HttpLineEvent | readonly HttpLineEvent[] => {
      const isWaiting = this.#isWaiting;
      this.#isWaiting = false;
      if (event.kind === 'malformed') {
        this.shut();
        const failure = { kind: 'failed', cause: CAUSES[event.fault.code], note: event.fault.message } as const;
        if (isWaiting) return failure;
        this.#early = failure;
        return [];
      }
      if (!isWaiting || !event.answer.staysOpen) this.shut();
      return isWaiting ? { kind: 'answer', answer: event.answer } : { kind: 'extra' };
    });
  }
}
