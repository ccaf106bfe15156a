/**
 * Secrets of this visit, in memory and nowhere else: not in the store, the document, an export or the log. They are gone
 * with the page.
 */
export interface Vault {
  get(secretRef: string): string | null;
  set(secretRef: string, secret: string): void;
  has(secretRef: string): boolean;
  /** Tells when a secret was added or changed; never which. */
  subscribe(listener: () => void): () => void;
  /** Grows with every change, for useSyncExternalStore. */
  readonly version: number;
}

export function createMemoryVault(): Vault {
  const secrets = new Map<string, string>();
  const listeners = new Set<() => void>();
  let version = 0;
  return {
    get: (secretRef) => secrets.get(secretRef) ?? null,
    has: (secretRef) => secrets.has(secretRef),
    set: (secretRef, secret) => {
      if (secrets.get(secretRef) === secret) return;
      secrets.set(secretRef, secret);
      version += 1;
      for (const listener of listeners) listener();
    },
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    get version() {
      return version;
    },
  };
}
