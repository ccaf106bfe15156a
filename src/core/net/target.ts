import type { Credentials } from '../auth/authorization.ts';
import { hasControl } from '../base/control-signs.ts';
import { err, ok, type Result } from '../base/result.ts';
import { takeLoginOut } from './path-login.ts';
import { asksForLogin } from './path-places.ts';
import { pathAndQuery, type StreamUrl, withPath } from './stream-url.ts';
import { parseStreamUrl } from './stream-url-parser.ts';

/** Whom to dial and as whom. A login that stood in the path stands there no more: a placeholder does. */
export interface Target {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
}

export interface TargetFault {
  readonly cause: 'bad-url' | 'auth-required';
  /** What is wrong, as a sentence without the URL. */
  readonly note: string;
}

const isHttp = ({ scheme }: StreamUrl): boolean => scheme === 'http' || scheme === 'https';

/**
 * Reads what somebody asks to be dialled: a URL, and an account that counts before one inside it.
 * @param user the account given beside the URL; `null` when none was
 * @param secret its secret; `null` takes that of the URL
 * @param isTunnel RTSP inside HTTP is meant by an http:// URL
 */
export function readTarget(
  text: string,
  user: string | null,
  secret: string | null,
  isTunnel = false,
): Result<Target, TargetFault> {
  const parsed = parseStreamUrl(text);
  if (!parsed.ok) return err({ cause: 'bad-url', note: `${parsed.error.message}.` });
  const { url } = parsed.value;
  // a page of a camera is no stream: RTSP inside HTTP is asked for by whoever knows that it is there
  if (isHttp(url) && !isTunnel)
    return err({ cause: 'bad-url', note: `Expected an rtsp:// URL, got ${url.scheme}://.` });
  if (user !== null && hasControl(user))
    return err({ cause: 'bad-url', note: 'The account has a line break or another control character in it.' });
  const given = user ?? url.user;
  const login = takeLoginOut(pathAndQuery(url));
  if (login.kind === 'login' && (given === null || (login.user ?? given) === given)) {
    const known = secret ?? url.password;
    if (known === null || known === login.secret)
      return ok({
        url: withPath(url, login.path),
        credentials: { user: given ?? login.user ?? '', password: login.secret },
      });
  }
  // Two logins, or none in the path: what stands in the path is sent as it stands, and masked wherever it is told.
  const credentials = given === null ? null : { user: given, password: secret ?? url.password ?? '' };
  if (credentials === null && asksForLogin(pathAndQuery(url)))
    return err({ cause: 'auth-required', note: 'The path needs a login, and no account was given.' });
  return ok({ url, credentials });
}
