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

/** So long one waits for another login of the same account whose outcome is not known yet. */
const MOST_WAIT_MS = 10_000;
const LOOK_EVERY_MS = 20;

/** The one ledger of this process, and the gates to it. */
export class Logins {
  readonly #ledger: LoginLedger;
  /** Passwords are told apart by this alone; it goes with the process. */
  readonly #salt: string;
  /** Where names led to: an account is one, by whatever name its host is called. */
  readonly #addresses = new Map<string, string>();

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
    return {
      begin: () => {
        const held = this.#ledger.begin(key());
        if (!held || held.why === 'under-way' || !isOneMore) return held;
        isOneMore = false;
        isAllowedOut = true;
        this.#ledger.beginAllowed(key());
        return null;
      },
      end: (how, what) => {
        this.#ledger.end(key(), how, what);
        if (isAllowedOut && how === 'accepted') this.#ledger.forgive(key());
        isAllowedOut = false;
      },
      noteBetter: () => this.#ledger.noteBetter(this.#addressOf(host)),
      byBasic: leave.byBasic === true,
      mayGoReadable: () => leave.mayGoReadable === true || !this.#ledger.offeredBetter(this.#addressOf(host)),
    };
  }

  /** Waits while another login of the same account is under way of which nobody knows yet whether it is right. */
  async turn(host: string, credentials: Credentials | null, signal: AbortSignal): Promise<void> {
    if (!credentials) return;
    const key = { host: this.#addressOf(host), user: credentials.user, mark: this.#markOf(credentials.password) };
    const untilMs = this.clock.monotonicMs() + MOST_WAIT_MS;
    while (this.#ledger.isUnsettled(key) && this.clock.monotonicMs() < untilMs && !signal.aborted)
      await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
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
