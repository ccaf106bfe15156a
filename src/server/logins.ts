import { createHmac } from 'node:crypto';
import type { Credentials } from '../core/auth/authorization.ts';
import { type LedgerLine, type LoginKey, LoginLedger } from '../core/auth/login-ledger.ts';
import { NO_GATE, type ProofGate } from '../core/auth/proof-gate.ts';
import type { Clock, Entropy } from './ports.ts';

/** What a person said of one account, for one press. */
export interface LoginLeave {
  /** One login beyond the limit. */
  readonly oneMore?: boolean;
  /** The password may go readable, though the device offered better. */
  readonly mayGoReadable?: boolean;
  /** By Basic at once, where it is offered. */
  readonly byBasic?: boolean;
}

/** So long one waits for others with the same account while nobody knows whether it is right. */
const MOST_WAIT_MS = 10_000;
/** Who has the turn and sent no proof by then is waited for no longer: it may be at a host that answers nothing. */
const TURN_MS = 3000;
const LOOK_EVERY_MS = 20;

/** Whose account is about to be tried. */
interface Turn {
  readonly host: string;
  readonly credentials: Credentials | null;
  readonly leave?: LoginLeave | undefined;
}

/** The one ledger of this process, and the gates to it. */
export class Logins {
  readonly #ledger: LoginLedger;
  /** Passwords are told apart by this alone; it goes with the process. */
  readonly #salt: string;
  /** Where names led to: an account is one, by whatever name its host is called. */
  readonly #addresses = new Map<string, string>();
  /** Whose turn it is to try an account of which nobody knows yet whether it is right, and since when. */
  readonly #turns = new Map<string, { readonly sinceMs: number }>();

  constructor(
    private readonly clock: Pick<Clock, 'monotonicMs'>,
    entropy: Entropy,
  ) {
    this.#ledger = new LoginLedger(() => clock.monotonicMs());
    this.#salt = entropy.hex(32);
  }

  noteAddress(host: string, address: string): void {
    if (host === address) return;
    this.#addresses.set(host.toLowerCase(), address);
    const [oldest] = this.#addresses.keys();
    if (this.#addresses.size > 1000 && oldest !== undefined) this.#addresses.delete(oldest);
  }

  /** The gate for one account at one host, over all its ports and protocols. */
  gateFor(host: string, credentials: Credentials | null, leave: LoginLeave = {}): ProofGate {
    if (!credentials) return { ...NO_GATE, noteBetter: () => this.#ledger.noteBetter(this.#addressOf(host)) };
    const mark = this.#markOf(credentials.password);
    const key = (): LoginKey => ({ host: this.#addressOf(host), user: credentials.user, mark });
    // it goes with the press that it was said for: what is not used is given to nobody later
    let isOneMore = leave.oneMore === true;
    let isAllowedOut = false;
    // what was accepted in this very work goes on, whatever another line is just being refused
    let isProven = false;
    const trusted: boolean[] = [];
    return {
      begin: () => {
        const isTrusted = isProven || this.#ledger.stateOf(key()) === 'good';
        const held = this.#ledger.begin(key(), isTrusted);
        if (!held) trusted.push(isTrusted);
        if (!held || held.why === 'under-way' || !isOneMore) return held;
        isOneMore = false;
        isAllowedOut = true;
        trusted.push(false);
        this.#ledger.beginAllowed(key());
        return null;
      },
      end: (how, what) => {
        this.#ledger.end(key(), how, what, trusted.shift());
        if (how !== 'passed' && how !== 'unanswered') isProven = how === 'accepted';
        if (isAllowedOut && how === 'accepted') this.#ledger.forgive(key());
        isAllowedOut = false;
      },
      notAsked: () => {},
      noteDigest: () => this.#ledger.noteDigest(this.#addressOf(host)),
      takesDigest: () => this.#ledger.takesDigest(this.#addressOf(host)),
      noteBetter: () => this.#ledger.noteBetter(this.#addressOf(host)),
      byBasic: leave.byBasic === true,
      mayGoReadable: () => leave.mayGoReadable === true || !this.#ledger.offeredBetter(this.#addressOf(host)),
    };
  }

  /**
   * Does work with the gate for its account. While nobody knows yet whether that is right, one goes first and the others wait
   * for what comes of its login: of sixteen channels of one recorder, each with the same wrong password, two log in.
   */
  async inTurn<T>(
    { host, credentials, leave = {} }: Turn,
    signal: AbortSignal,
    work: (gate: ProofGate) => Promise<T>,
  ): Promise<T> {
    const gate = this.gateFor(host, credentials, leave);
    if (!credentials) return work(gate);
    const key = { host: this.#addressOf(host), user: credentials.user, mark: this.#markOf(credentials.password) };
    const release = await this.#takeTurn(key, signal);
    try {
      const end: ProofGate['end'] = (how, what) => {
        gate.end(how, what);
        if (how !== 'passed') release(); // what was answered for another reason tells nothing of the account
      };
      return await work({ ...gate, end, notAsked: release });
    } finally {
      release();
    }
  }

  /** Resolves with what gives the turn back, when it is one's turn, or when there is nothing to wait for. */
  async #takeTurn(key: LoginKey, signal: AbortSignal): Promise<() => void> {
    const now = (): number => this.clock.monotonicMs();
    const untilMs = now() + MOST_WAIT_MS;
    const name = JSON.stringify(key);
    while (now() < untilMs && !signal.aborted) {
      const state = this.#ledger.stateOf(key);
      const held = this.#ledger.heldNow(key);
      if (state === 'good' || (held && held.why !== 'under-way')) break;
      const other = this.#turns.get(name);
      if (state === 'unknown' && (!other || now() - other.sinceMs > TURN_MS)) {
        const mine = { sinceMs: now() };
        this.#turns.set(name, mine);
        return () => void (this.#turns.get(name) === mine && this.#turns.delete(name));
      }
      await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    }
    return () => {};
  }

  /** Refused in the last ten minutes. */
  refused(host: string, credentials: Credentials | null): number {
    if (!credentials) return 0;
    const mark = this.#markOf(credentials.password);
    return this.#ledger.refused({ host: this.#addressOf(host), user: credentials.user, mark });
  }

  lines(): readonly LedgerLine[] {
    return this.#ledger.lines();
  }

  #addressOf(host: string): string {
    const plain = host.toLowerCase();
    return this.#addresses.get(plain) ?? plain;
  }
  #markOf(password: string): string {
    return createHmac('sha256', this.#salt).update(password).digest('hex').slice(0, 32);
  }
}
