import type { Credentials } from '../auth/authorization.ts';
import { type ProofGate, proofEndOf, sayHeld } from '../auth/proof-gate.ts';
import { base64Of } from '../base/bytes.ts';
import { type Header, headersOf } from '../http/headers.ts';
import type { HttpAnswer } from '../http/http-message.ts';
import type { CommonEffect, CommonInput, HttpEffect, HttpInput, Machine } from '../machine/machine.ts';
import { asksForSecret, fillPath } from '../net/path-places.ts';
import { Login } from '../rtsp/login.ts';

/** What came of it: one picture, as base64, or why there is none. */
export type Still =
  | { readonly kind: 'still'; readonly jpeg: string }
  /** `isHeld`: the account was not told, and a person may allow it. */
  | { readonly kind: 'none'; readonly note: string; readonly isHeld?: true };

export type StillInput = CommonInput<never> | HttpInput;
export type StillEffect = CommonEffect<never> | HttpEffect | Still;

export interface StillOptions {
  readonly target: { readonly host: string; readonly port: number; readonly isTls: boolean };
  /** Path and query, with places where a login belongs. */
  readonly path: string;
  readonly credentials: Credentials | null;
  readonly gate: ProofGate;
  readonly knownFingerprint: string | null;
  readonly userAgent: string;
  readonly cnonce: () => string;
}

const TIMEOUT_MS = 5000;
/** A picture of 12 Mpx in good quality is below it. */
const MOST_BYTES = 8 * 1024 * 1024;
/** Start of image. Source: ITU-T T.81 §B.1.1.3. */
const JPEG_STARTS = [0xff, 0xd8] as const;

/** Fetches one picture by HTTP: without a login first, and answering at most one challenge. A still is not worth an account. */
export class StillMachine implements Machine<StillInput, StillEffect> {
  readonly #login: Login;
  readonly #path: string;
  #exchanges = 0;
  #isOver = false;

  constructor(private readonly options: StillOptions) {
    const { credentials, gate, cnonce, path, target } = options;
    this.#login = new Login({ credentials, cnonce, gate, isEncrypted: target.isTls });
    this.#path = credentials ? fillPath(path, credentials.user, credentials.password) : path;
  }

  begin(): readonly StillEffect[] {
    const held = asksForSecret(this.options.path) ? this.#login.beginInPath() : null;
    return held ? this.#held(sayHeld(held, this.#user)) : this.#ask(null);
  }

  handle(input: StillInput): readonly StillEffect[] {
    if (this.#isOver) return [];
    switch (input.kind) {
      case 'responded':
        this.#login.proofEnded(proofEndOf(input.answer.status), 'still');
        return this.#responded(input.answer);
      case 'failed':
      case 'broken':
        return this.#end({ kind: 'none', note: input.note });
      case 'cancel':
        return this.#end({ kind: 'none', note: 'Cancelled.' });
      case 'timer':
        return [];
    }
  }

  #responded(answer: HttpAnswer): readonly StillEffect[] {
    if (answer.status === 401 && this.#exchanges === 1) return this.#prove(answer);
    if (answer.status !== 200)
      return this.#end({ kind: 'none', note: `Asked for a snapshot, it answered ${answer.status}.` });
    return JPEG_STARTS.every((byte, at) => answer.body[at] === byte)
      ? this.#end({ kind: 'still', jpeg: base64Of(answer.body) })
      : this.#end({ kind: 'none', note: 'The snapshot is not a JPEG.' });
  }

  #prove(answer: HttpAnswer): readonly StillEffect[] {
    const failure = this.#login.refused(headersOf(answer, 'WWW-Authenticate'), false);
    if (failure)
      return failure.cause === 'login-held'
        ? this.#held(failure.note)
        : this.#end({ kind: 'none', note: failure.note });
    const proof = this.#login.authorizationFor('GET', this.#path);
    return this.#login.heldBack ? this.#held(sayHeld(this.#login.heldBack, this.#user)) : this.#ask(proof);
  }

  get #user(): string {
    return this.options.credentials?.user ?? '';
  }

  #ask(proof: string | null): readonly StillEffect[] {
    const { target, userAgent, knownFingerprint } = this.options;
    const headers: readonly Header[] = [
      { name: 'User-Agent', value: userAgent },
      ...(proof === null ? [] : [{ name: 'Authorization', value: proof }]),
    ];
    this.#exchanges += 1;
    return [
      {
        kind: 'ask',
        exchange: this.#exchanges,
        line: 'still',
        request: { method: 'GET', ...target, path: this.#path, headers, body: '', knownFingerprint },
        timeoutMs: TIMEOUT_MS,
        mostBytes: MOST_BYTES,
        mayRepeat: proof === null,
        afterMs: 0,
      },
    ];
  }

  #held(note: string): readonly StillEffect[] {
    return this.#end({ kind: 'none', note, isHeld: true });
  }
  #end(still: Still): readonly StillEffect[] {
    this.#isOver = true;
    this.#login.proofEnded('unanswered', 'still');
    return [still, { kind: 'done' }];
  }
}
