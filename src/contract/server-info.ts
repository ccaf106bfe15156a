import type { LedgerLine } from '../core/auth/login-ledger.ts';
import type { Site } from '../core/document/site.ts';

/** GET /api/info. */
export interface ServerInfo {
  readonly name: 'clear-tap';
  /** With the demo the only network is the simulated one. */
  readonly network: 'real' | 'simulated';
  /** Accounts that devices refused in the last ten minutes; never a password. */
  readonly logins: readonly LedgerLine[];
}

/** GET /api/demo: the demo site, and its cameras' secrets for the vault of this visit. */
export interface DemoSite {
  readonly site: Site;
  readonly secrets: Readonly<Record<string, string>>;
}
