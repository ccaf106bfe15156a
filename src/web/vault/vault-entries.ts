import type { Bound } from './password-place.ts';

/** A password, and what it was typed for; `null` where an earlier version did not note that. */
export interface Entry {
  readonly secret: string;
  readonly bound: Bound | null;
}
/** As they are sealed. Of version 1 the password alone, under its reference. */
export type Entries = Readonly<Record<string, Entry | string>>;

export const entriesOf = (kept: Entries): readonly (readonly [string, Entry])[] =>
  Object.entries(kept).map(([key, entry]) => [key, typeof entry === 'string' ? { secret: entry, bound: null } : entry]);

/** A vault as it lies in the browser: nothing in it can be read without the passphrase. */
export interface SealedVault {
  readonly format: 'clear-tap/vault';
  readonly version: 1 | 2;
  /** PBKDF2 with HMAC-SHA-256 (RFC 8018 §5.2). */
  readonly salt: Uint8Array<ArrayBuffer>;
  readonly iterations: number;
  /** AES-GCM with a 256-bit key (NIST SP 800-38D): a fresh 96-bit IV for every writing. */
  readonly iv: Uint8Array<ArrayBuffer>;
  readonly sealed: Uint8Array<ArrayBuffer>;
}

export interface VaultKey {
  readonly key: CryptoKey;
  readonly salt: Uint8Array<ArrayBuffer>;
  readonly iterations: number;
}
