import {
  deriveKey,
  KDF_ITERATIONS,
  newSalt,
  openSecrets,
  type SealedVault,
  type Secrets,
  sealSecrets,
  type VaultKey,
} from './vault-crypto.ts';

/** `memory`: for this visit only. `locked`: kept, but not readable now. `open`: kept, and readable until it locks. */
export type VaultState = 'memory' | 'locked' | 'open';

/** Where the sealed vault lies. */
export interface VaultStorage {
  read(): Promise<SealedVault | null>;
  write(vault: SealedVault): Promise<void>;
  remove(): Promise<void>;
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
  get(secretRef: string): string | null;
  set(secretRef: string, secret: string): void;
  has(secretRef: string): boolean;
  /** Begins to keep what is in memory, under a passphrase; also changes the passphrase of an open vault. */
  protect(passphrase: string): Promise<void>;
  /** False when the passphrase is not the right one. What was typed while it was locked is kept too. */
  unlock(passphrase: string): Promise<boolean>;
  lock(): Promise<void>;
  /** Forgets every secret, sealed and in memory. */
  forget(): Promise<void>;
  /** Tells when something changed; never what. */
  subscribe(listener: () => void): () => void;
  /** Grows with every change, for useSyncExternalStore. */
  readonly version: number;
}

class SealingVault implements Vault {
  readonly #secrets = new Map<string, string>();
  readonly #listeners = new Set<() => void>();
  #key: VaultKey | null = null;
  #writing: Promise<void> = Promise.resolve();
  /** Changed here and not yet written: what is kept is not read over these. */
  readonly #dirty = new Set<string>();
  #isWriteWaiting = false;
  /** The key is newer than what is kept: it need not open it. */
  #isRekeyed = false;
  #version = 0;
  #problem: string | null = null;

  constructor(
    private readonly storage: VaultStorage,
    private isSealed: boolean,
    private readonly iterations: number,
  ) {}

  get state(): VaultState {
    return this.#key ? 'open' : this.isSealed ? 'locked' : 'memory';
  }
  get problem(): string | null {
    return this.#problem;
  }
  get size(): number {
    return this.#secrets.size;
  }
  get version(): number {
    return this.#version;
  }
  readonly get = (secretRef: string): string | null => this.#secrets.get(secretRef) ?? null;
  readonly has = (secretRef: string): boolean => this.#secrets.has(secretRef);

  readonly set = (secretRef: string, secret: string): void => {
    if (this.#secrets.get(secretRef) === secret) return;
    this.#secrets.set(secretRef, secret);
    this.#dirty.add(secretRef);
    if (this.#key) void this.#write();
    this.#tell();
  };

  readonly protect = async (passphrase: string): Promise<void> => {
    await this.#writing;
    await this.#takeIn(this.#key); // what another tab kept under the old words comes along
    this.#key = await deriveKey(passphrase, newSalt(), this.iterations);
    this.#isRekeyed = true;
    this.isSealed = true;
    for (const ref of this.#secrets.keys()) this.#dirty.add(ref);
    await this.#write();
    this.#tell();
  };

  readonly unlock = async (passphrase: string): Promise<boolean> => {
    const sealed = await this.storage.read();
    if (sealed?.format !== 'clear-tap/vault' || sealed.version !== 1) {
      this.#problem = 'What is kept here was sealed by a newer Clear Tap, or is damaged.';
      this.#tell();
      return false;
    }
    const key = await deriveKey(passphrase, sealed.salt, sealed.iterations);
    const kept = await openSecrets(key, sealed);
    if (!kept) return false;
    this.#merge(kept);
    this.#key = key;
    if (this.#dirty.size > 0) await this.#write();
    this.#tell();
    return true;
  };

  readonly lock = async (): Promise<void> => {
    await this.#writing;
    if (!this.#key) return;
    this.#key = null;
    this.#secrets.clear();
    this.#dirty.clear();
    this.#tell();
  };

  readonly forget = async (): Promise<void> => {
    await this.#writing;
    await this.storage.remove();
    this.#key = null;
    this.isSealed = false;
    this.#secrets.clear();
    this.#dirty.clear();
    this.#problem = null;
    this.#tell();
  };

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  #merge(kept: Secrets): void {
    for (const [ref, secret] of Object.entries(kept)) if (!this.#dirty.has(ref)) this.#secrets.set(ref, secret);
  }

  /** Takes in what is kept, as far as it was not changed here; false when the key does not open it. */
  async #takeIn(key: VaultKey | null): Promise<boolean> {
    const sealed = key && (await this.storage.read());
    if (!key || !sealed) return true;
    const kept = await openSecrets(key, sealed);
    if (kept) this.#merge(kept);
    return kept !== null;
  }

  /** Another tab changed the passphrase: what it keeps is not written over with the old one. */
  #shutOut(): void {
    this.#key = null;
    this.#problem = 'The passphrase was changed in another tab. Unlock with the new one; what you typed is kept then.';
    this.#tell();
  }

  /** Writes one after the other, and takes in first what another tab added under the same key. */
  #write(): Promise<void> {
    if (this.#isWriteWaiting) return this.#writing; // it will take this change with it
    this.#isWriteWaiting = true;
    this.#writing = this.#writing.then(async () => {
      this.#isWriteWaiting = false;
      const key = this.#key;
      if (!key) return;
      try {
        if (!this.#isRekeyed && !(await this.#takeIn(key))) return this.#shutOut();
        this.#isRekeyed = false;
        const written = new Map(this.#secrets);
        await this.storage.write(await sealSecrets(key, Object.fromEntries(written)));
        for (const ref of this.#dirty) if (written.get(ref) === this.#secrets.get(ref)) this.#dirty.delete(ref);
        this.#problem = null;
      } catch {
        this.#problem = 'The browser could not keep the secret: it lasts for this visit only.';
        this.#tell();
      }
    });
    return this.#writing;
  }

  #tell(): void {
    this.#version += 1;
    for (const listener of this.#listeners) listener();
  }
}

/** The vault of this browser: locked when one is kept, else in memory. Storage that cannot be read counts as empty. */
export async function createVault(storage: VaultStorage, iterations = KDF_ITERATIONS): Promise<Vault> {
  const sealed = await storage.read().catch(() => null);
  return new SealingVault(storage, sealed !== null, iterations);
}
