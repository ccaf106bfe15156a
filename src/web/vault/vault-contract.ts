import type { Bound, PasswordPlace } from './password-place.ts';
import type { SealedVault } from './vault-entries.ts';

/** A password that is kept for another camera, or another site, and was typed for the same address. */
export interface KnownElsewhere {
  readonly secret: string;
  readonly bound: Bound;
}

/** `memory`: for this visit only. `locked`: kept, but not readable now. `open`: kept, and readable until it locks. */
export type VaultState = 'memory' | 'locked' | 'open';

/** Where the sealed vault lies. */
export interface VaultStorage {
  read(): Promise<SealedVault | null>;
  write(vault: SealedVault): Promise<void>;
  remove(): Promise<void>;
  /** Runs work while no other tab reads or writes. */
  alone<T>(work: () => Promise<T>): Promise<T>;
}

/** Nothing was sealed: the store refused, or another tab keeps secrets under a passphrase of its own. */
export class VaultNotKept extends Error {
  override readonly name = 'VaultNotKept';
}
/**
 * Secrets of cameras: never in the store, the document, an export or the log. Without a passphrase they are in memory
 * and gone with the page; with one they are kept sealed, and in memory only while the vault is open.
 */
export interface Vault {
  readonly state: VaultState;
  /** Why the last secret could not be kept; `null` when all is well. */
  readonly problem: string | null;
  readonly size: number;
  /** Of these, those that the store does not have yet, or refused. */
  readonly unkept: number;
  /** Whether the store has this secret, sealed, as it is now. */
  keeps(secretRef: string): boolean;
  /** A password of the open site, wherever it may go: who sends it asks `boundOf` first. */
  get(secretRef: string): string | null;
  /** @param bound what it was typed for; typed anew it is bound anew */
  set(secretRef: string, secret: string, bound: Bound): void;
  has(secretRef: string): boolean;
  /** What it was typed for; `null` where an earlier version did not note that. */
  boundOf(secretRef: string): Bound | null;
  /** A person allows one more place. @param bound what it is of, where nothing was noted */
  allow(secretRef: string, place: PasswordPlace, bound: Bound): void;
  /** A person allows that it goes readable to this device. */
  allowReadable(secretRef: string, bound: Bound): void;
  /** Kept for the same account at the same place, under another camera or site. */
  knownElsewhere(user: string, place: PasswordPlace): KnownElsewhere | null;
  /** The same for a site that is not open: the demo's own, and a copy of a site made here. */
  setFor(siteId: string, secretRef: string, secret: string, bound: Bound): void;
  hasFor(siteId: string, secretRef: string): boolean;
  copySite(fromId: string, toId: string): void;
  /**
   * Begins to keep what is in memory, under a passphrase; also changes the passphrase of an open vault.
   * @throws VaultNotKept when nothing was kept; then all is as it was before
   */
  protect(passphrase: string): Promise<void>;
  /** False when the passphrase is not the right one, or the store says nothing. What was typed while it was locked is kept too. */
  unlock(passphrase: string): Promise<boolean>;
  /** Writes what is not written yet and locks. False when that cannot be kept: locking would lose it, so it stays open. */
  lock(): Promise<boolean>;
  /** Forgets every secret, sealed and in memory. False when the store would not: then nothing is forgotten. */
  forget(): Promise<boolean>;
  /** Tells when something changed; never what. */
  subscribe(listener: () => void): () => void;
  /** Grows with every change, for useSyncExternalStore. */
  readonly version: number;
}
