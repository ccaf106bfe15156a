import type { Camera, Stream } from '../../core/document/chapters/cameras/camera.ts';
import { asksForSecret } from '../../core/net/path-places.ts';
import type { Vault } from './vault-contract.ts';

/** The camera is known to ask for a login, and its secret is nowhere in reach: a probe would spend an attempt on nothing. */
export const lacksSecret = ({ account }: Camera, { path }: Stream, vault: Pick<Vault, 'has'>): boolean =>
  account !== null && (account.user !== '' || asksForSecret(path)) && !vault.has(account.secretRef);
