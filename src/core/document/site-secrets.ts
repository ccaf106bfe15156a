import { type SecretTraits, traitsOf } from '../auth/secret-traits.ts';
import { pushTo } from '../base/push-to.ts';
import type { Site } from './site.ts';

/** What is known of secrets that are in reach, by the reference that an account holds. It lies in no document. */
export type SecretsKnown = Readonly<Record<string, SecretTraits>>;
export const NO_SECRETS: SecretsKnown = {};

type Accounts = Pick<Site, 'cameras' | 'models'>;

/**
 * What can be said of the secrets of all accounts of a site without telling them: each is held against the others here,
 * where they are, and only what was found goes on.
 * @param get a secret by its reference; `null` where it is not in reach
 * @param guessBits how it would be guessed; `null` while that is not known
 */
export function secretsKnownOf(
  { cameras, models }: Accounts,
  get: (secretRef: string) => string | null,
  guessBits: (secret: string, hints: readonly string[]) => number | null = () => null,
): SecretsKnown {
  const factoryOf = new Map(models.map(({ id, factoryLogin }) => [id, factoryLogin?.secret ?? null]));
  const users = new Map<string, string[]>();
  for (const { name, account, adminAccount } of cameras)
    for (const one of [account, adminAccount]) {
      const secret = one && get(one.secretRef);
      if (secret !== null) pushTo(users, secret, name);
    }
  const byLetters = new Map<string, string[]>();
  for (const secret of users.keys()) pushTo(byLetters, secret.toLowerCase(), secret);
  const known: Record<string, SecretTraits> = {};
  for (const { name, modelId, account, adminAccount } of cameras) {
    const factory = modelId === null ? null : (factoryOf.get(modelId) ?? null);
    const administrator = adminAccount && get(adminAccount.secretRef);
    for (const one of [account, adminAccount]) {
      const secret = one && get(one.secretRef);
      if (one === null || secret === null) continue;
      known[one.secretRef] = traitsOf(secret, {
        factory,
        administrator: one === account ? administrator : null,
        sharedWith: [...new Set(users.get(secret))].filter((other) => other !== name),
        sameLetters: byLetters.get(secret.toLowerCase()) ?? [],
        guessBits: guessBits(secret, [name, one.user]),
      });
    }
  }
  return known;
}
