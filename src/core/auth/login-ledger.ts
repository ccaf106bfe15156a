/**
 * Refused logins of one account in all before a person is asked. Many devices lock an account at three or five, and other
 * programs with an old password spend attempts too [A].
 */
export const MOST_REFUSED_LOGINS = 2;
/** How long a refusal is remembered: most devices forget it within five to ten minutes [A]. */
export const LEDGER_MS = 10 * 60_000;
/** A proof whose outcome nobody told by then was not answered: every answer is waited for shorter than this. */
const UNDER_WAY_MS = 60_000;
/** So long after it was accepted a password is taken for right: somebody may change it at the device meanwhile. */
const GOOD_MS = 60_000;
/** More accounts than any house has; of those, the oldest is forgotten. */
const MOST_ACCOUNTS = 4096;

/** Whose login: an account at a host, with one password. `mark` stands for the password and tells nothing of it. */
export interface LoginKey {
  readonly host: string;
  readonly user: string;
  readonly mark: string;
}

/**
 * What came of one proof of an account.
 * - `accepted`: what it asked for was given
 * - `passed`: refused for another reason than the login (no such path, no session left)
 * - `refused`: refused, or failed in a way that a refused login looks like
 * - `locked`: a device that looks at no login any more, or forbids the account
 * - `unanswered`: no answer came; the device may have counted it
 */
export type ProofEnd = 'accepted' | 'passed' | 'refused' | 'locked' | 'unanswered';

/** Why a login is not sent without a person's word. */
export interface HeldLogin {
  readonly why: 'refused' | 'locked' | 'under-way';
  /** Refused in the last ten minutes. */
  readonly refused: number;
}

/** What the ledger tells of one account; never its password. */
export interface LedgerLine {
  readonly host: string;
  readonly user: string;
  readonly refused: number;
  readonly isLocked: boolean;
  /** It is held until a person says otherwise, or this many ms have gone by. */
  readonly isHeld: boolean;
  readonly forgottenInMs: number;
}

interface Refusal {
  readonly atMs: number;
  /** What was asked for: accepted for one thing says nothing about another. */
  readonly what: string;
}

interface Account {
  readonly key: LoginKey;
  refusals: Refusal[];
  lockedAtMs: number | null;
  /** It was accepted, and not refused since. */
  isGood: boolean;
  acceptedAtMs: number;
  underWay: UnderWay[];
}
interface UnderWay {
  readonly atMs: number;
  /** Begun where this password was accepted before: no attempt at an unknown one. */
  readonly isTrusted: boolean;
}

/**
 * Every login that was not accepted, for account, host and password, over all protocols, ports and presses. Time is given: a
 * monotonic clock in ms.
 */
export class LoginLedger {
  readonly #accounts = new Map<string, Account>();
  /** Hosts that offered a login which does not send the password readable, and when. */
  readonly #better = new Map<string, number>();
  readonly #digest = new Map<string, number>();

  constructor(private readonly nowMs: () => number) {}

  /**
   * Before a proof leaves: `null` when it may, which counts it as under way until `end`.
   * @param isTrusted it goes where this password was accepted before, and waits for no other
   */
  begin(key: LoginKey, isTrusted = false): HeldLogin | null {
    const account = this.#of(key);
    const held = this.#held(account, isTrusted);
    if (!held) account.underWay.push({ atMs: this.nowMs(), isTrusted });
    return held;
  }
  /** One beyond the limit, which a person allowed knowing how many were refused. */
  beginAllowed(key: LoginKey): void {
    this.#of(key).underWay.push({ atMs: this.nowMs(), isTrusted: false });
  }

  /** A login that a person allowed was accepted: the account is not locked, and what was refused before is over. */
  forgive(key: LoginKey): void {
    const account = this.#of(key);
    account.refusals = [];
    account.lockedAtMs = null;
    account.isGood = true;
    account.acceptedAtMs = this.nowMs();
  }

  /** What came of a proof that was begun. @param what was asked for @param isTrusted as it was begun */
  end(key: LoginKey, how: ProofEnd, what: string, isTrusted = false): void {
    const account = this.#of(key);
    const ended = account.underWay.find((one) => one.isTrusted === isTrusted);
    account.underWay = account.underWay.filter((one) => one !== ended);
    switch (how) {
      case 'passed':
        return;
      case 'accepted':
        account.refusals = account.refusals.filter((one) => one.what !== what);
        if (account.refusals.length > 0) return;
        account.lockedAtMs = null;
        account.isGood = true;
        account.acceptedAtMs = this.nowMs();
        return;
      case 'unanswered':
        if (account.isGood) return; // it was accepted before: a silence is of something else
        account.refusals.push({ atMs: this.nowMs(), what });
        return;
      case 'locked':
        account.lockedAtMs = this.nowMs();
        account.isGood = false;
        account.refusals.push({ atMs: this.nowMs(), what });
        return;
      case 'refused':
        account.isGood = false;
        account.refusals.push({ atMs: this.nowMs(), what });
    }
  }

  /** Whether it would be held now; nothing is counted. */
  heldNow(key: LoginKey): HeldLogin | null {
    const account = this.#accounts.get(nameOf(key));
    return account ? this.#held(this.#fresh(account)) : null;
  }

  /** `good` for a while after it was accepted, if it was not refused since; `asked` while a proof is under way of which nobody knows the end. */
  stateOf(key: LoginKey): 'good' | 'asked' | 'unknown' {
    const account = this.#accounts.get(nameOf(key));
    if (!account) return 'unknown';
    const { underWay } = this.#fresh(account);
    return this.#isGoodNow(account) ? 'good' : underWay.length > 0 ? 'asked' : 'unknown';
  }
  #isGoodNow({ isGood, acceptedAtMs }: Account): boolean {
    return isGood && this.nowMs() - acceptedAtMs < GOOD_MS;
  }

  refused(key: LoginKey): number {
    const account = this.#accounts.get(nameOf(key));
    return account ? this.#fresh(account).refusals.length : 0;
  }

  noteBetter(host: string): void {
    this.#note(this.#better, host);
  }
  /** It offered a login within the last ten minutes that does not send the password readable. */
  offeredBetter(host: string): boolean {
    return this.#isNoted(this.#better, host);
  }
  noteDigest(host: string): void {
    this.#note(this.#digest, host);
  }
  /** It took an HTTP digest within the last ten minutes where it is spoken to by ONVIF. */
  takesDigest(host: string): boolean {
    return this.#isNoted(this.#digest, host);
  }

  /** All accounts with a refusal that is remembered. */
  lines(): readonly LedgerLine[] {
    const lines: LedgerLine[] = [];
    for (const account of this.#accounts.values()) {
      const { key, refusals, lockedAtMs } = this.#fresh(account);
      if (refusals.length === 0) continue;
      const lastMs = refusals.at(-1)?.atMs ?? 0;
      lines.push({
        host: key.host,
        user: key.user,
        refused: refusals.length,
        isLocked: lockedAtMs !== null,
        isHeld: this.#held(account) !== null,
        forgottenInMs: LEDGER_MS - (this.nowMs() - lastMs),
      });
    }
    return lines;
  }

  #held(account: Account, isTrusted = false): HeldLogin | null {
    const { refusals, lockedAtMs, underWay } = account;
    const refused = refusals.length;
    if (lockedAtMs !== null) return { why: 'locked', refused };
    if (refused >= MOST_REFUSED_LOGINS) return { why: 'refused', refused };
    const tried = underWay.filter((one) => !one.isTrusted).length;
    return !this.#isGoodNow(account) && !isTrusted && refused + tried >= MOST_REFUSED_LOGINS
      ? { why: 'under-way', refused }
      : null;
  }

  #of(key: LoginKey): Account {
    const name = nameOf(key);
    const known = this.#accounts.get(name);
    const account = known
      ? this.#fresh(known)
      : { key, refusals: [], lockedAtMs: null, isGood: false, acceptedAtMs: 0, underWay: [] };
    this.#accounts.delete(name);
    this.#accounts.set(name, account); // the one that was used last stands last
    this.#forgetOldest(this.#accounts);
    return account;
  }

  #fresh(account: Account): Account {
    const lostMs = this.nowMs() - UNDER_WAY_MS;
    for (const { atMs } of account.underWay.filter((one) => one.atMs <= lostMs))
      if (!account.isGood) account.refusals.push({ atMs, what: '' });
    if (account.underWay.some(({ atMs }) => atMs <= lostMs))
      account.underWay = account.underWay.filter(({ atMs }) => atMs > lostMs);
    const sinceMs = this.nowMs() - LEDGER_MS;
    if (account.refusals.some(({ atMs }) => atMs <= sinceMs))
      account.refusals = account.refusals.filter(({ atMs }) => atMs > sinceMs);
    if (account.lockedAtMs !== null && account.lockedAtMs <= sinceMs) account.lockedAtMs = null;
    return account;
  }

  #note(hosts: Map<string, number>, host: string): void {
    hosts.delete(host);
    hosts.set(host, this.nowMs());
    this.#forgetOldest(hosts);
  }
  #isNoted(hosts: ReadonlyMap<string, number>, host: string): boolean {
    const at = hosts.get(host);
    return at !== undefined && this.nowMs() - at < LEDGER_MS;
  }
  #forgetOldest(map: Map<string, unknown>): void {
    const [oldest] = map.keys();
    if (map.size > MOST_ACCOUNTS && oldest !== undefined) map.delete(oldest);
  }
}

const nameOf = ({ host, user, mark }: LoginKey): string => JSON.stringify([host.toLowerCase(), user, mark]);
