import type { HeldLogin, ProofEnd } from './login-ledger.ts';

/**
 * What stands between a machine and the proof of an account: asked before each proof leaves, told what came of it. It is made
 * for one account at one host; the ledger behind it is shared by everything that talks there.
 */
export interface ProofGate {
  /** `null` when a proof may leave. */
  begin(): HeldLogin | null;
  /** @param what was asked for: accepted for one thing says nothing about another */
  end(how: ProofEnd, what: string): void;
  /** The device gave what it was asked for without any proof. */
  notAsked(): void;
  /** It takes an HTTP digest by ONVIF: what is seen once spares each later talk a token that is refused. */
  noteDigest(): void;
  takesDigest(): boolean;
  /** The device offers a login that does not send the password readable. */
  noteBetter(): void;
  /** The password may go readable: nothing better was offered, or a person said so for this device. */
  mayGoReadable(): boolean;
  /** A person wants Basic of this device: what hides the password is broken there. */
  readonly byBasic: boolean;
}

/** Counts nothing and holds nothing: for whoever has no account. */
export const NO_GATE: ProofGate = {
  begin: () => null,
  end: () => {},
  notAsked: () => {},
  noteDigest: () => {},
  takesDigest: () => false,
  noteBetter: () => {},
  mayGoReadable: () => true,
  byBasic: false,
};

/** One proof after the other on one line: each is ended once. */
export class OpenProof {
  #isOpen = false;

  constructor(private readonly gate: ProofGate) {}

  begin(): HeldLogin | null {
    if (this.#isOpen) this.end('unanswered', '');
    const held = this.gate.begin();
    this.#isOpen = held === null;
    return held;
  }
  end(how: ProofEnd, what: string): void {
    if (!this.#isOpen) {
      if (how === 'accepted') this.gate.notAsked();
      return;
    }
    this.#isOpen = false;
    this.gate.end(how, what);
  }
}

/** Why no login was sent, as a sentence. */
export function sayHeld({ why, refused }: HeldLogin, user: string): string {
  const times = refused === 1 ? 'once' : refused === 2 ? 'twice' : `${refused} times`;
  switch (why) {
    case 'locked':
      return `Login not sent: in the last ten minutes the device answered account “${user}” as if it were locked or forbidden.`;
    case 'refused':
      return `Login not sent: account “${user}” was refused ${times} in the last ten minutes, and many devices lock an account after three or five refusals.`;
    case 'under-way':
      return `Login not sent: another login with account “${user}” is still under way.`;
  }
}

/** Refusals that say nothing about a login: the request was understood, and something else was wrong with it. */
const OTHER_REASONS: ReadonlySet<number> = new Set([404, 405, 406, 415, 501, 505, 551]);
const LOCKED: ReadonlySet<number> = new Set([403, 423, 429]);

/**
 * What an answer says of the proof that its request carried. Whatever is not clearly given, and not clearly refused for another
 * reason, counts as not accepted. Source: RFC 9110 §15, RFC 6585 §4 (429), RFC 4918 §11.3 (423); RFC 2326 §7.1.1 (451 to 462).
 */
export function proofEndOf(status: number): ProofEnd {
  if (status >= 200 && status < 300) return 'accepted';
  if (status >= 300 && status < 400) return 'passed';
  if (LOCKED.has(status)) return 'locked';
  return OTHER_REASONS.has(status) || (status >= 451 && status <= 462) ? 'passed' : 'refused';
}
