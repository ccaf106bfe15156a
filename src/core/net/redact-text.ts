import { redactAuthorization } from '../auth/authorization.ts';
import { redactUrl } from './stream-url.ts';

/** A message head as it may be kept and shown: proofs of a password and passwords in URLs masked, all else as it came. */
export function redactText(text: string): string {
  return text
    .replace(
      /^((?:proxy-)?authorization:\s*)(.*)$/gim,
      (_, head: string, value: string) => head + redactAuthorization(value),
    )
    .replace(/\b[A-Za-z][A-Za-z0-9+.-]*:\/\/[^\s"<>]+/g, (url) => redactUrl(url));
}
