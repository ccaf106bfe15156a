import type { Credentials } from '../auth/authorization.ts';
import { asksForSecret, encodeValue, fillPath, isSecretPlace, MASK, SECRET_PLACE, USER_PLACE } from './path-places.ts';
import { percentDecode, percentEncode } from './percent.ts';
import { createPartMask } from './secret-parts.ts';
import { tellStrayUrls } from './stray-urls.ts';
import { pathAndQuery, type StreamUrl } from './stream-url.ts';

/** Names of a password and of an account as devices write them, in lower case. */
const SECRET_KEYS: ReadonlySet<string> = new Set([
  'passw',
  'pass',
  'psw',
  'pw',
  'loginpas',
  'loginpass',
  'userpass',
  'passphrase',
  'passcode',
]);
/** Whatever stands before these (`loginPassword`, `adminPwd`), no word that means something else ends so. */
const SECRET_ENDS = ['password', 'passwd', 'passwort', 'pwd'] as const;
const USER_KEYS: ReadonlySet<string> = new Set(['user', 'username', 'usr', 'loginuse', 'loginuser', 'account']);
const LONGEST_KEY = 24;
const isSecretKey = (key: string): boolean => SECRET_KEYS.has(key) || SECRET_ENDS.some((end) => key.endsWith(end));

/** Ends of a value inside a URL, and inside a text that a URL stands in. */
const ENDS = '&;/?#"<>';
const isLetter = (code: number): boolean => (code >= 0x41 && code <= 0x5a) || (code >= 0x61 && code <= 0x7a);
const endsValue = (text: string, at: number): boolean => text.charCodeAt(at) <= 0x20 || ENDS.includes(text.charAt(at));

interface Value {
  readonly isSecret: boolean;
  readonly from: number;
  readonly to: number;
}

/** The key that stands before an “=”: its letters, of one without end the last ones. */
function keyBefore(text: string, equals: number): { readonly key: string; readonly from: number } {
  let from = equals;
  while (from > 0 && equals - from <= LONGEST_KEY && isLetter(text.charCodeAt(from - 1))) from -= 1;
  return { key: text.slice(from, equals).toLowerCase(), from };
}

/** Whether an “_” at this place begins the next pair, where pairs are strung together by it. */
function beginsPair(text: string, at: number, any: boolean): boolean {
  let to = at + 1;
  while (to - at <= LONGEST_KEY && isLetter(text.charCodeAt(to))) to += 1;
  const key = text.slice(at + 1, to).toLowerCase();
  return text.charAt(to) === '=' && key !== '' && (any || isSecretKey(key) || USER_KEYS.has(key));
}

/** Where accounts and passwords stand in a text, by the key before them. Goes over the text once. */
function* loginValues(text: string): Generator<Value> {
  for (let equals = text.indexOf('='); equals >= 0; equals = text.indexOf('=', equals)) {
    const { key, from } = keyBefore(text, equals);
    equals += 1;
    const isSecret = isSecretKey(key);
    if (!isSecret && !USER_KEYS.has(key)) continue;
    const isStrung = text.charAt(from - 1) === '_';
    let to = equals;
    while (to < text.length && !endsValue(text, to) && !(text.charAt(to) === '_' && beginsPair(text, to, isStrung)))
      to += 1;
    yield { isSecret, from: equals, to };
    equals = to;
  }
}

/** Text with some stretches replaced. */
function replaced(text: string, values: readonly Value[], by: (value: Value) => string): string {
  let out = '';
  let at = 0;
  for (const value of values) {
    out += text.slice(at, value.from) + by(value);
    at = value.to;
  }
  return out + text.slice(at);
}

/** What a path says of a login: nothing, one that can be taken out, or two secrets that no single account can hold. */
export type PathLogin =
  | { readonly kind: 'none' }
  | { readonly kind: 'login'; readonly path: string; readonly user: string | null; readonly secret: string }
  | { readonly kind: 'two-secrets' };

/**
 * Takes the login out of a path with its query: placeholders stand for it in what is left.
 * `/live?user=op&password=a%2Fb&ch=1` → path `/live?user={user}&password={password}&ch=1`, user `op`, secret `a/b`.
 */
export function takeLoginOut(path: string): PathLogin {
  const values = [...loginValues(path)].filter(({ from, to }) => to > from);
  const texts = new Map(values.map((value) => [value, path.slice(value.from, value.to)]));
  const [first, ...others] = values.filter((value) => value.isSecret && !isSecretPlace(texts.get(value)));
  if (!first) return { kind: 'none' };
  if (others.some((other) => texts.get(other) !== texts.get(first))) return { kind: 'two-secrets' };
  const user = values.find((value) => !value.isSecret && texts.get(value) !== USER_PLACE);
  const userText = user && texts.get(user);
  const taken = values.filter((value) => value.isSecret || texts.get(value) === userText);
  return {
    kind: 'login',
    path: replaced(path, taken, ({ isSecret }) => (isSecret ? SECRET_PLACE : USER_PLACE)),
    user: userText === undefined ? null : percentDecode(userText),
    secret: percentDecode(texts.get(first) ?? ''),
  };
}

/** Passwords that stand behind a key such as `password=` masked, wherever in a text; placeholders stay. */
export function redactLogins(text: string): string {
  if (!text.includes('=')) return text;
  const values = [...loginValues(text)].filter(
    ({ isSecret, from, to }) => isSecret && to > from && !isSecretPlace(text.slice(from, to)),
  );
  return values.length === 0 ? text : replaced(text, values, () => MASK);
}

/** Shorter secrets stand in texts by chance. */
export const SHORTEST_TOLD_APART = 4;

/** The URL as it goes over the wire, and how what goes over it is told: with placeholders where the login stands. */
export interface VeiledUrl {
  readonly url: StreamUrl;
  /** The path holds the password: whatever is asked for it proves the account. */
  readonly provesInPath: boolean;
  hide(text: string): string;
}

/**
 * Fills the placeholders of a URL. A camera that sends the URL back, or the secret in one of its own, is told without
 * it too; a camera that sends a placeholder gets nothing filled in.
 */
export function fillUrl(template: StreamUrl, credentials: Credentials | null): VeiledUrl {
  const { user = '', password = '' } = credentials ?? {};
  const url: StreamUrl = {
    ...template,
    path: fillPath(template.path, user, password),
    query: template.query === null ? null : fillPath(template.query, user, password),
  };
  const [shown, sent] = [pathAndQuery(template), pathAndQuery(url)];
  const forms = new Set([percentEncode(password), encodeValue(password), password]);
  const told = [...forms]
    .filter((form) => form.length >= SHORTEST_TOLD_APART && !shown.includes(form))
    .sort((a, b) => b.length - a.length);
  const maskParts = createPartMask(forms, shown);
  return {
    url,
    provesInPath: credentials !== null && asksForSecret(shown),
    hide: (text) => {
      let hidden = shown === sent ? text : text.replaceAll(sent, () => shown);
      if (url.query && url.query !== template.query) hidden = hidden.replaceAll(url.query, () => template.query ?? '');
      for (const form of told) hidden = hidden.replaceAll(form, () => SECRET_PLACE);
      // Only where it goes over the wire as it is can it come back in pieces.
      return asksForSecret(shown) ? tellStrayUrls(maskParts(hidden), shown) : hidden;
    },
  };
}
