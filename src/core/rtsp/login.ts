import { authorizationFor, type Credentials } from '../auth/authorization.ts';
import { type ChosenChallenge, chooseChallenge, parseChallenges } from '../auth/challenge.ts';
import { type HeldLogin, MOST_REFUSED_LOGINS, type ProofEnd } from '../auth/login-ledger.ts';
import { OpenProof, type ProofGate, sayHeld } from '../auth/proof-gate.ts';
import type { ProbeCause } from './exchange-types.ts';

export interface LoginFailure {
  readonly cause: ProbeCause;
  readonly note: string;
}

/** More schemes than any camera asks for. */
const MOST_SCHEMES = 8;
const MOST_SCHEME_CHARS = 24;
const schemesOf = (headers: readonly string[]): readonly string[] =>
  [
    ...new Set(
      headers.flatMap((header) => parseChallenges(header).map(({ scheme }) => scheme.slice(0, MOST_SCHEME_CHARS))),
    ),
  ].slice(0, MOST_SCHEMES);
export interface LoginOptions {
  readonly credentials: Credentials | null;
  readonly cnonce: () => string;
  /** Basic where it is offered, stronger ones left alone: an experiment, never the first choice. */
  readonly by?: 'any' | 'basic';
  readonly gate: ProofGate;
  /** Nobody on the way reads what is sent. */
  readonly isEncrypted: boolean;
}

/** Of a header with several challenges the one for Basic. */
const basicOf = (header: string): string => header.slice(header.search(/\bbasic\b/i));

/**
 * The login of one connection: which challenge is being answered, how often its nonce was used, and when to give up.
 * A wrong password is found out with one attempt; only a stale nonce, or a nonce changed after the login had held, is
 * tried again.
 * Source: RFC 7616 §3.3 (stale), §3.4 (nonce count), §3.4.2 (-sess).
 */
export class Login {
  #challenge: ChosenChallenge | null = null;
  #nonceUses = 0;
  #refusals = 0;
  #held = false;
  #offered: readonly string[] = [];
  #refusedInAll = 0;
  #staleRefusals = 0;
  /** For the -sess algorithms A1 is made once: its cnonce stays as long as the nonce does. */
  #sessionCnonce: string | null = null;
  /** One refusal of a nonce that belonged to a closed connection is no refusal of the account; a second one is. */
  #excuse: 'none' | 'open' | 'used' = 'none';

  readonly #proof: OpenProof;
  #heldBack: HeldLogin | null = null;

  constructor(private readonly options: LoginOptions) {
    this.#proof = new OpenProof(options.gate);
  }

  get credentials(): Credentials | null {
    return this.options.credentials;
  }
  /** Why the last proof was not sent; `null` when it was. */
  get heldBack(): HeldLogin | null {
    return this.#heldBack;
  }
  /** Basic on an open line, from a device that has offered better. */
  get #isTooReadable(): boolean {
    const { isEncrypted, gate } = this.options;
    return this.#challenge?.scheme === 'basic' && !isEncrypted && !gate.mayGoReadable();
  }

  /** What the last challenges asked for. */
  get offered(): readonly string[] {
    return this.#offered;
  }
  get refusedInAll(): number {
    return this.#refusedInAll;
  }
  get staleEachTime(): boolean {
    return this.#staleRefusals > 1 && this.#staleRefusals === this.#refusedInAll;
  }

  get challenge(): ChosenChallenge | null {
    return this.#challenge;
  }
  /** Whether requests carry credentials from now on. */
  get isArmed(): boolean {
    return this.credentials !== null && this.#challenge !== null;
  }

  /** A proof for one request, which is under way from then on; `null` where none is to be sent. */
  authorizationFor(method: string, uri: string): string | null {
    if (!this.credentials || !this.#challenge || this.#isTooReadable) return null;
    this.#heldBack = this.#proof.begin();
    if (this.#heldBack) return null;
    this.#nonceUses += 1;
    const isSession = this.#challenge.scheme === 'digest' && this.#challenge.algorithm.endsWith('-SESS');
    if (isSession) this.#sessionCnonce ??= this.options.cnonce();
    const cnonce = (isSession && this.#sessionCnonce) || this.options.cnonce();
    const request = { method, uri, useCount: this.#nonceUses, cnonce };
    return authorizationFor(this.#challenge, this.credentials, request);
  }

  /** The request itself proves the account: its path holds the login. `null` when it may leave. */
  beginInPath(): HeldLogin | null {
    this.#heldBack = this.#proof.begin();
    return this.#heldBack;
  }

  /** What came of the proof that is under way, if one is. @param what was asked for */
  proofEnded(how: ProofEnd, what: string): void {
    this.#proof.end(how, what);
  }

  /** The request goes out again over a new connection, where a camera may want another nonce. */
  reconnected(): void {
    if (this.#excuse === 'none') this.#excuse = 'open';
  }

  /** A new connection is asked as the first one was: a nonce of the old one would count as a refused login. */
  forgetChallenge(): void {
    this.#challenge = null;
  }
  /** The account was let in on this line before. */
  get wasAccepted(): boolean {
    return this.#held;
  }

  accepted(): void {
    this.#held = true;
    this.#refusals = 0;
  }

  /** Takes the challenges of a 401; `false` when none of them can be answered. */
  readChallenges(headers: readonly string[]): boolean {
    this.#offered = schemesOf(headers);
    const strongest = chooseChallenge(headers);
    if (strongest?.scheme === 'digest') this.options.gate.noteBetter();
    const isByBasic = this.options.by === 'basic' || this.options.gate.byBasic;
    const basic = isByBasic ? headers.filter((header) => /\bbasic\b/i.test(header)).map(basicOf) : [];
    const next = basic.length > 0 ? chooseChallenge(basic) : this.options.by === 'basic' ? null : strongest;
    if (!next) return false;
    const known = this.#challenge;
    const sameNonce = next.scheme === 'digest' && known?.scheme === 'digest' && known.nonce === next.nonce;
    if (!sameNonce) {
      this.#nonceUses = 0;
      this.#sessionCnonce = null;
    }
    this.#challenge = next;
    return true;
  }

  /** What a 401 means: `null` to send the request again, or why not. */
  refused(headers: readonly string[], wasAuthorised: boolean): LoginFailure | null {
    const before = this.#challenge;
    if (!this.readChallenges(headers)) {
      const schemes = headers.map((header) => header.trim().split(/\s/, 1)[0]).join(', ');
      const note =
        headers.length === 0
          ? '401 without a challenge: the camera does not say how to log in.'
          : `It asks for a login method that is not supported here: ${schemes}.`;
      return { cause: 'auth-unsupported', note };
    }
    if (!this.credentials) return { cause: 'auth-required', note: 'The camera needs an account and none was given.' };
    if (this.#isTooReadable)
      return {
        cause: 'login-held',
        note: 'Login not sent: the camera asks for Basic, which sends the password readable, and it has offered a login that protects it.',
      };
    if (this.#heldBack && !wasAuthorised)
      return { cause: 'login-held', note: sayHeld(this.#heldBack, this.credentials.user) };
    if (!wasAuthorised) return null;
    const isNewNonce =
      this.#challenge?.scheme === 'digest' && before?.scheme === 'digest' && this.#challenge.nonce !== before.nonce;
    if (this.#excuse === 'open' && isNewNonce) {
      this.#excuse = 'used';
      return null;
    }
    this.#refusals += 1;
    this.#refusedInAll += 1;
    const isStale = this.#challenge?.scheme === 'digest' && this.#challenge.stale;
    if (isStale) this.#staleRefusals += 1;
    if ((isStale || this.#held) && this.#refusals < MOST_REFUSED_LOGINS) return null;
    return this.#failed('');
  }

  /** It closed the connection on a login that it had answered with 401: that is a refusal, whatever else may have closed it. */
  refusedByClosing(): LoginFailure {
    return this.#failed(' It closes the connection after each 401.');
  }

  #failed(more: string): LoginFailure {
    const user = this.credentials?.user ?? '';
    return { cause: 'auth-failed', note: `The camera refused account “${user}” with this password.${more}` };
  }

  /** “Digest MD5, qop auth”, as it stands beside the login step. */
  describe(): string | null {
    if (!this.#challenge) return null;
    if (this.#challenge.scheme === 'basic') return 'Basic';
    return `Digest ${this.#challenge.algorithm}${this.#challenge.qop ? `, qop ${this.#challenge.qop}` : ''}`;
  }
}
