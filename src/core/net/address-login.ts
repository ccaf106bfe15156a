import { err, ok, type Result } from '../base/result.ts';
import { SHORTEST_TOLD_APART, takeLoginOut } from './path-login.ts';
import { SECRET_PLACE } from './path-places.ts';
import { blanksEncoded } from './percent.ts';
import { encodeUserinfo } from './stream-url.ts';

/** A path and the account that goes with it; empty texts where nothing is known. */
export interface PathAndAccount {
  readonly path: string;
  readonly user: string;
  readonly secret: string;
}

/**
 * The same with no secret in the path: what stood there is the account now, and a placeholder stands in its place. Every
 * way in goes through here: fields, pasted URLs, lists.
 * A blank in the path is written as it is sent.
 * A path with another login than the account, or with two, is refused in words: one account cannot hold both.
 */
export function withLoginOut(given: PathAndAccount): Result<PathAndAccount & { readonly isTaken: boolean }, string> {
  const login = takeLoginOut(given.path);
  if (login.kind === 'two-secrets')
    return err('Two different passwords stand in this path, and an account has one. Remove one of them.');
  let { path, user, secret } = { ...given, path: blanksEncoded(given.path) };
  if (login.kind === 'login') {
    if (secret !== '' && secret !== login.secret)
      return err('The password in this path differs from the account’s. Remove one of the two.');
    if (user !== '' && login.user !== null && user !== login.user)
      return err('The account in this path differs from the one beside it. Remove one of the two.');
    user ||= login.user ?? '';
    secret = login.secret;
    path = blanksEncoded(login.path);
  }
  path = withoutSecret(path, secret);
  return ok({ path, user, secret, isTaken: path !== blanksEncoded(given.path) });
}

/** A known secret that stands in a path without a key before it. Short ones stand in paths by chance. */
export function withoutSecret(path: string, secret: string): string {
  if (secret.length < SHORTEST_TOLD_APART) return path;
  let bare = path;
  for (const form of [encodeUserinfo(secret), secret]) bare = bare.replaceAll(form, () => SECRET_PLACE);
  return bare;
}
