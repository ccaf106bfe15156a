import { createContext, useContext, useSyncExternalStore } from 'react';
import type { Vault } from './vault-contract.ts';

export const VaultContext = createContext<Vault | null>(null);

/** The vault of this browser; the component renders again when a secret or the lock changes. */
export function useVault(): Vault {
  const vault = useContext(VaultContext);
  if (!vault) throw new Error('useVault outside of VaultContext');
  useSyncExternalStore(vault.subscribe, () => vault.version);
  return vault;
}
