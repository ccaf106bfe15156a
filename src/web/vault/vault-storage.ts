import localforage from 'localforage';
import type { VaultStorage } from './vault-contract.ts';
import type { SealedVault } from './vault-entries.ts';

const KEY = 'vault';

/** The sealed vault in this browser, apart from the sites. */
export function browserVaultStorage(): VaultStorage {
  const store = localforage.createInstance({ name: 'clear-tap', storeName: 'vault' });
  return {
    read: () => store.getItem<SealedVault>(KEY),
    write: async (vault) => void (await store.setItem(KEY, vault)),
    remove: () => store.removeItem(KEY),
    // A browser without locks has only its own order.
    alone: (work) => (navigator.locks ? navigator.locks.request('clear-tap:vault', work) : work()),
  };
}
