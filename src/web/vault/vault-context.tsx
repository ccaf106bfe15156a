import { createContext, useContext, useSyncExternalStore } from 'react';
import { createMemoryVault, type Vault } from './vault.ts';

export const VaultContext = createContext<Vault>(createMemoryVault());

/** The vault of this visit; the component renders again when a secret changes. */
export function useVault(): Vault {
  const vault = useContext(VaultContext);
  useSyncExternalStore(vault.subscribe, () => vault.version);
  return vault;
}
