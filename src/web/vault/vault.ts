import equal from 'fast-deep-equal';
import { sayMany } from '../../core/base/say.ts';
import { type Bound, isAllowed, type PasswordPlace, withPlace } from './password-place.ts';
import { type KnownElsewhere, type Vault, VaultNotKept, type VaultState, type VaultStorage } from './vault-contract.ts';
import { type Entries, type Entry, entriesOf, type VaultKey } from './vault-entries.ts';

/** Needed when something is sealed or opened, which the first view does not. */
const cryptography = () => import('./vault-crypto.ts');

const UNREADABLE = 'The browser’s storage could not be read, so nothing was tried. Try again, or reload this page.';
const STILL_HERE = 'They are still here, for this visit only. Free some space in the browser’s storage and try again.';

class SealingVault implements Vault {
  readonly #secrets = new Map<string, Entry>();
  readonly #listeners = new Set<() => void>();
  #key: VaultKey | null = null;
  #writing: Promise<void> = Promise.resolve();
  /** Changed here and not yet written: what is kept is not read over these. */
  readonly #dirty = new Set<string>();
  #isWriteWaiting = false;
  #version = 0;
  #problem: string | null = null;

  constructor(
    private readonly storage: VaultStorage,
    private isSealed: boolean,
    /** Rounds of the key's derivation; `null` as many as are asked of a passphrase. */
    private readonly iterations: number | null,
    /** The site that is open: a reference means nothing in another one. */
    private readonly siteId: () => string,
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
  get unkept(): number {
    return this.#key ? this.#dirty.size : this.#secrets.size;
  }
  readonly keeps = (secretRef: string): boolean => {
    const key = this.#keyOf(secretRef);
    return this.#key !== null && this.#secrets.has(key) && !this.#dirty.has(key);
  };
  get version(): number {
    return this.#version;
  }

  /** Under the open site; what an earlier version kept lies under its reference alone, bound to nothing. */
  #keyOf(secretRef: string): string {
    const own = keyOf(this.siteId(), secretRef);
    return !this.#secrets.has(own) && this.#secrets.has(secretRef) ? secretRef : own;
  }
  readonly get = (secretRef: string): string | null => this.#secrets.get(this.#keyOf(secretRef))?.secret ?? null;
  readonly has = (secretRef: string): boolean => this.#secrets.has(this.#keyOf(secretRef));
  readonly boundOf = (secretRef: string): Bound | null => this.#secrets.get(this.#keyOf(secretRef))?.bound ?? null;

  readonly set = (secretRef: string, secret: string, bound: Bound): void =>
    this.setFor(this.siteId(), secretRef, secret, bound);
  readonly setFor = (siteId: string, secretRef: string, secret: string, bound: Bound): void =>
    this.#put(keyOf(siteId, secretRef), { secret, bound });
  readonly hasFor = (siteId: string, secretRef: string): boolean => this.#secrets.has(keyOf(siteId, secretRef));

  readonly allow = (secretRef: string, place: PasswordPlace, bound: Bound): void => {
    const entry = this.#secrets.get(this.#keyOf(secretRef));
    if (!entry) return;
    const before = entry.bound ?? { ...bound, places: [] };
    this.#put(keyOf(this.siteId(), secretRef), {
      secret: entry.secret,
      bound: { ...before, places: withPlace(before.places, place) },
    });
  };
  readonly allowReadable = (secretRef: string, bound: Bound): void => {
    const entry = this.#secrets.get(this.#keyOf(secretRef));
    if (!entry) return;
    this.#put(keyOf(this.siteId(), secretRef), {
      secret: entry.secret,
      bound: { ...(entry.bound ?? bound), mayGoReadable: true },
    });
  };

  readonly knownElsewhere = (user: string, place: PasswordPlace): KnownElsewhere | null => {
    for (const { secret, bound } of this.#secrets.values())
      if (bound && bound.user === user && isAllowed(bound.places, place)) return { secret, bound };
    return null;
  };

  readonly copySite = (fromId: string, toId: string): void => {
    const from = keyOf(fromId, '');
    for (const [key, entry] of [...this.#secrets])
      if (key.startsWith(from)) this.#put(keyOf(toId, key.slice(from.length)), entry);
  };

  #put(key: string, entry: Entry): void {
    const before = this.#secrets.get(key);
    if (before && before.secret === entry.secret && equal(before.bound, entry.bound)) return;
    this.#secrets.set(key, entry);
    this.#dirty.add(key);
    if (this.#key) void this.#write();
    this.#tell();
  }

  readonly protect = async (passphrase: string): Promise<void> => {
    await this.#writing;
    const { deriveKey, KDF_ITERATIONS, newSalt, sealSecrets } = await cryptography();
    const key = await deriveKey(passphrase, newSalt(), this.iterations ?? KDF_ITERATIONS);
    try {
      await this.storage.alone(async () => {
        await this.#takeInBeforeProtecting();
        const written = new Map(this.#secrets);
        await this.storage.write(await sealSecrets(key, Object.fromEntries(written)));
        this.#noteWritten(written);
      });
    } catch (error) {
      this.#problem =
        error instanceof VaultNotKept
          ? error.message
          : 'The browser’s storage is full or blocked: they could not be saved encrypted.';
      this.#tell();
      throw error instanceof VaultNotKept ? error : new VaultNotKept(`${this.#problem} ${STILL_HERE}`);
    }
    this.#key = key;
    this.isSealed = true;
    this.#problem = null;
    if (this.#dirty.size > 0) void this.#write(); // typed while the rest was sealed
    this.#tell();
  };

  readonly unlock = async (passphrase: string): Promise<boolean> => {
    const sealed = await this.storage.read().catch(() => 'unreadable' as const);
    if (sealed === 'unreadable') return this.#refused(UNREADABLE);
    if (this.#problem === UNREADABLE) this.#problem = null;
    if (!sealed) {
      this.isSealed = false;
      return this.#refused('No passwords are kept in this browser any more: they were deleted in another tab.');
    }
    if (sealed.format !== 'clear-tap/vault' || (sealed.version !== 1 && sealed.version !== 2))
      return this.#refused('What is stored here was encrypted by a newer Clear Tap, or is damaged.');
    const { deriveKey, openSecrets } = await cryptography();
    const key = await deriveKey(passphrase, sealed.salt, sealed.iterations);
    const kept = await openSecrets(key, sealed);
    if (!kept) return false;
    this.#merge(kept);
    this.#key = key;
    this.#problem = null;
    if (this.#dirty.size > 0) await this.#write();
    this.#tell();
    return true;
  };

  readonly lock = async (): Promise<boolean> => {
    await this.#writing;
    if (this.#key && this.#dirty.size > 0) await this.#write();
    if (!this.#key) return true;
    if (this.#dirty.size > 0)
      return this.#refused(
        `The browser could not save ${sayMany(this.#dirty.size, 'password')}, and locking would lose ${this.#dirty.size === 1 ? 'it' : 'them'}. Not locked: free some space in its storage, then lock again.`,
      );
    this.#key = null;
    this.#secrets.clear();
    this.#tell();
    return true;
  };

  readonly forget = async (): Promise<boolean> => {
    await this.#writing;
    try {
      await this.storage.alone(() => this.storage.remove());
    } catch {
      return this.#refused(
        'The browser’s storage is blocked: nothing was deleted, the encrypted passwords are still in it. Try again, or clear this page’s data in the browser.',
      );
    }
    this.#key = null;
    this.isSealed = false;
    this.#secrets.clear();
    this.#dirty.clear();
    this.#problem = null;
    this.#tell();
    return true;
  };

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  #refused(problem: string): false {
    this.#problem = problem;
    this.#tell();
    return false;
  }

  #merge(kept: Entries): void {
    for (const [key, entry] of entriesOf(kept)) if (!this.#dirty.has(key)) this.#secrets.set(key, entry);
  }

  /** What another tab kept under the words of before comes along; what it keeps under others is never written over. */
  async #takeInBeforeProtecting(): Promise<void> {
    const sealed = await this.storage.read();
    if (!sealed) return this.#key ? this.#forgotten() : undefined;
    const { openSecrets } = await cryptography();
    const kept = this.#key && (await openSecrets(this.#key, sealed));
    if (kept) return this.#merge(kept);
    this.isSealed = true;
    this.#shutOut();
    throw new VaultNotKept(this.#problem ?? '');
  }

  /** Another tab set or changed the passphrase: what it keeps is not written over under another one. */
  #shutOut(): void {
    this.#key = null;
    this.#problem = 'The passphrase was changed in another tab. Unlock with the new one; what you typed is saved then.';
    this.#tell();
  }

  /** Another tab forgot them all: what was kept is gone here too; what was typed here and not written yet stays. */
  #forgotten(): void {
    for (const ref of [...this.#secrets.keys()]) if (!this.#dirty.has(ref)) this.#secrets.delete(ref);
    this.#key = null;
    this.isSealed = false;
    this.#problem = 'All passwords were deleted in another tab. What you typed since lasts for this visit only.';
    this.#tell();
  }

  #noteWritten(written: ReadonlyMap<string, Entry>): void {
    for (const ref of this.#dirty) if (written.get(ref) === this.#secrets.get(ref)) this.#dirty.delete(ref);
  }

  /** Writes one after the other, over all tabs, and takes in first what another tab added under the same key. */
  #write(): Promise<void> {
    if (this.#isWriteWaiting) return this.#writing; // it will take this change with it
    this.#isWriteWaiting = true;
    this.#writing = this.#writing.then(async () => {
      try {
        await this.storage.alone(() => this.#writeAlone());
      } catch {
        this.#isWriteWaiting = false;
        this.#problem =
          'The browser’s storage is full or blocked: what you typed last could not be saved, and lasts for this visit only.';
        this.#tell();
      }
    });
    return this.#writing;
  }

  async #writeAlone(): Promise<void> {
    this.#isWriteWaiting = false;
    const key = this.#key;
    if (!key) return;
    const sealed = await this.storage.read();
    if (!sealed) return this.#forgotten();
    const { openSecrets, sealSecrets } = await cryptography();
    const kept = await openSecrets(key, sealed);
    if (!kept) return this.#shutOut();
    this.#merge(kept);
    const written = new Map(this.#secrets);
    await this.storage.write(await sealSecrets(key, Object.fromEntries(written)));
    this.#noteWritten(written);
    this.#problem = null;
    this.#tell();
  }

  #tell(): void {
    this.#version += 1;
    for (const listener of this.#listeners) listener();
  }
}

/** The vault of this browser: locked when one is kept, else in memory. Storage that cannot be read counts as empty. */
export async function createVault(
  storage: VaultStorage,
  siteId: () => string,
  iterations: number | null = null,
): Promise<Vault> {
  const sealed = await storage.read().catch(() => null);
  return new SealingVault(storage, sealed !== null, iterations, siteId);
}

/** No site has a blank in its id, and no reference of an earlier version had one. */
const keyOf = (siteId: string, secretRef: string): string => `${siteId} ${secretRef}`;
