import equal from 'fast-deep-equal';
import { NO_SECRETS, secretsKnownOf } from '../../core/document/site-secrets.ts';
import type { Vault } from '../vault/vault-contract.ts';
import { judge } from './judge.ts';
import { lanesJudged } from './lanes-slice.ts';
import { guessBitsOf, onStrengthKnown } from './password-strength.ts';
import { selectSite } from './site-slice.ts';
import { store } from './store.ts';

/**
 * Tells whoever judges what can be said of the secrets in reach, whenever a secret, an account or a card changes. The
 * secrets themselves stay here.
 */
export function watchSecrets(vault: Vault): void {
  let told = NO_SECRETS;
  let cameras: unknown = null;
  let models: unknown = null;
  let isDue = false;
  const tell = async (): Promise<void> => {
    isDue = false;
    const known = secretsKnownOf(selectSite(store.getState()), vault.get, guessBitsOf);
    if (equal(known, told)) return;
    told = known;
    const judged = await judge.know(known);
    if (judged) store.dispatch(lanesJudged(judged));
  };
  const ask = (): void => {
    if (isDue) return;
    isDue = true;
    queueMicrotask(() => void tell());
  };
  vault.subscribe(ask);
  onStrengthKnown(ask);
  store.subscribe(() => {
    const site = selectSite(store.getState());
    if (site.cameras === cameras && site.models === models) return;
    cameras = site.cameras;
    models = site.models;
    ask();
  });
  ask();
}
