import type { Credentials } from '../auth/authorization.ts';
import { base64Of, bytesOf, hexOf } from '../base/bytes.ts';
import { SECRET_PLACE } from '../net/path-places.ts';
import { percentEncode } from '../net/percent.ts';
import { redactText } from '../net/redact-text.ts';
import { SERVICE_NAMES } from '../onvif/namespaces.ts';
import { PROBE_STEPS } from '../rtsp/exchange-types.ts';

/** Shorter passwords stand in any text by chance: masking them would garble it and tell them. */
const SHORTEST_MASKED = 4;
/** Base64 and hex of fewer bytes than this stand in texts by chance. */
const SHORTEST_CODED = 5;
/** No text that leaves is longer; what is, is cut before it is looked at. */
const MOST_CHARS = 64 * 1024;
/** Texts that a veil remembers: as many as a probe tells, none that is long. */
const MOST_REMEMBERED = 300;
const LONGEST_REMEMBERED = 400;
/** Deeper than anything that is told. */
const MOST_DEPTH = 24;
/** Fields that hold words of ours alone, never a device's: masking in them would only break what reads them. */
const OWN_WORDS: ReadonlySet<string> = new Set([
  'kind',
  'cause',
  'rule',
  'severity',
  'verdict',
  'step',
  'direction',
  'trial',
  'transport',
  'via',
  'tells',
  'kept',
  'scheme',
  'qop',
  'reason',
  'why',
]);
/** The same, where only these words are ours: a device has names too. */
const OWN_NAMES: ReadonlySet<string> = new Set([...PROBE_STEPS, ...SERVICE_NAMES]);

/** Base64 without its padding, of which there are two characters at most. */
const unpadded = (code: string): string =>
  code.slice(0, code.length - (code.endsWith('==') ? 2 : code.endsWith('=') ? 1 : 0));

/** Base64 of a text that stands anywhere in a longer one: the characters that do not hang on what is before and behind. */
function base64Inside(bytes: Uint8Array): readonly string[] {
  return [0, 1, 2].flatMap((before) => {
    const padded = new Uint8Array(before + bytes.length);
    padded.set(bytes, before);
    const code = unpadded(base64Of(padded));
    const from = Math.ceil((before * 8) / 6);
    const to = Math.floor(((before + bytes.length) * 8) / 6);
    return to - from >= SHORTEST_CODED ? [code.slice(from, to)] : [];
  });
}

const urlSafe = (code: string): string => code.replace(/\+/g, '-').replace(/\//g, '_');

/** The ways in which one character may come back: percent-encoded, as an entity, as an escape of JSON. */
function codesAt(text: string, at: number): { readonly char: string; readonly length: number } | null {
  const first = text.charAt(at);
  if (first === '%') {
    const code = Number.parseInt(/^[0-9a-fA-F]{2}/.exec(text.slice(at + 1, at + 3))?.[0] ?? '', 16);
    return Number.isNaN(code) ? null : { char: String.fromCharCode(code), length: 3 };
  }
  if (first === '\\' && text.charAt(at + 1) === 'u') {
    const hex = /^[0-9a-fA-F]{4}/.exec(text.slice(at + 2, at + 6))?.[0];
    return hex === undefined ? null : { char: String.fromCharCode(Number.parseInt(hex, 16)), length: 6 };
  }
  if (first === '\\') return { char: text.charAt(at + 1), length: 2 };
  if (first !== '&') return null;
  const found = /^&(?:(lt|gt|quot|apos|amp)|#(\d{1,5})|#x([0-9a-fA-F]{1,4}));/.exec(text.slice(at, at + 10));
  if (!found) return null;
  const [whole, name, dec, hex] = found;
  const named: Readonly<Record<string, string>> = { lt: '<', gt: '>', quot: '"', apos: "'", amp: '&' };
  const char =
    name === undefined
      ? String.fromCharCode(dec === undefined ? Number.parseInt(hex ?? '', 16) : Number(dec))
      : (named[name] ?? '');
  return { char, length: whole.length };
}

/** How long the password is that stands at a place of a text, however each of its characters is written; 0 where none does. */
function lengthAt(text: string, from: number, password: string, utf8: string): number {
  for (const wanted of password === utf8 ? [password] : [password, utf8]) {
    let at = from;
    let matched = 0;
    while (matched < wanted.length && at < text.length) {
      const char = wanted.charAt(matched);
      const code = codesAt(text, at);
      if (code?.char === char) at += code.length;
      else if (text.charAt(at) === char || (char === ' ' && text.charAt(at) === '+')) at += 1;
      else break;
      matched += 1;
    }
    if (matched === wanted.length) return at - from;
  }
  return 0;
}

/** Every place of a text at which the password stands with its characters written otherwise. Goes over the text once. */
function maskWritten(text: string, password: string): string {
  const first = password.charAt(0);
  const utf8 = String.fromCharCode(...bytesOf(password));
  if (!/[%&\\+]/.test(text)) return text;
  let out = '';
  let done = 0;
  for (let at = 0; at < text.length; at++) {
    const sign = text.charAt(at);
    if (sign !== first && sign !== utf8.charAt(0) && sign !== '%' && sign !== '&' && sign !== '\\') continue;
    const length = lengthAt(text, at, password, utf8);
    if (length === 0) continue;
    out += text.slice(done, at) + SECRET_PLACE;
    done = at + length;
    at = done - 1;
  }
  return out + text.slice(done);
}

/** Without any of these a text holds no URL, no field, no proof and nothing that is written otherwise than it is. */
const MAY_TELL = /[=:@/%&\\+<?]|basic/i;
/** A proof that is told of: its value, also where the text breaks off before its end. RFC 7616 §3.4, RFC 7617, OASIS WSS. */
const PROOFS = /\b(response)\s*=\s*("?)[0-9a-fA-F]{8,}("?)/gi;
const BASIC = /\b(basic)\s+[A-Za-z0-9+/=_-]{4,}/gi;
const WSS_PASSWORD = /(<(?:[A-Za-z0-9_-]{1,20}:)?Password\b[^<>]{0,300}>)[^<]{1,200}/g;

/**
 * Makes what tells a text without a password: as it is, percent-encoded, as entities, in Base64 and hex, with its account before it; and
 * any login in a URL by its name or its shape, and proofs of one.
 */
export function createVeil(credentials: Credentials | null): (text: string) => string {
  const { user = '', password = '' } = credentials ?? {};
  const isMasked = password.length >= SHORTEST_MASKED;
  // an account that is its own password is named everywhere: masked there it would be told
  const isName = password.toLowerCase() === user.toLowerCase();
  const bytes = bytesOf(password);
  const coded = isMasked
    ? [
        ...(bytes.length >= SHORTEST_CODED ? base64Inside(bytes) : []),
        unpadded(base64Of(bytes)),
        unpadded(base64Of(bytesOf(`${user}:${password}`))),
        hexOf(bytes),
        hexOf(bytes).toUpperCase(),
      ].filter((code) => code.length >= SHORTEST_CODED)
    : [];
  const plain = isMasked && !isName ? [password, percentEncode(password)] : [];
  const forms = [...new Set([...plain, ...coded, ...coded.map(urlSafe)])].sort((a, b) => b.length - a.length);
  const veiled = (text: string): string => {
    if (!MAY_TELL.test(text) && !forms.some((form) => text.includes(form))) return text;
    let told = redactText(text.length > MOST_CHARS ? text.slice(0, MOST_CHARS) : text)
      .replace(PROOFS, (_, name: string, open: string, close: string) => `${name}=${open}***${close}`)
      .replace(BASIC, (_, name: string) => `${name} ***`)
      .replace(WSS_PASSWORD, (_, open: string) => `${open}***`);
    for (const form of forms) if (told.includes(form)) told = told.replaceAll(form, () => SECRET_PLACE);
    return isMasked && !isName ? maskWritten(told, password) : told;
  };
  // what is told as it happens is told again in the report at the end
  const before = new Map<string, string>();
  return (text) => {
    const known = before.get(text);
    if (known !== undefined) return known;
    const told = veiled(text);
    if (text.length <= LONGEST_REMEMBERED && before.size < MOST_REMEMBERED) before.set(text, told);
    return told;
  };
}

/** The same for whatever is told as JSON: every text in it, at any depth; bytes and our own words stay as they are. */
export function createDeepVeil(credentials: Credentials | null): <T>(value: T) => T {
  const veil = createVeil(credentials);
  const told = (value: unknown, key: string, depth: number): unknown => {
    if (typeof value === 'string') {
      if (OWN_WORDS.has(key) && OWN_WORD.test(value)) return value;
      if (key === 'name' && OWN_NAMES.has(value)) return value;
      return veil(value);
    }
    if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return value;
    if (depth > MOST_DEPTH) return null;
    if (Array.isArray(value)) return value.map((one) => told(one, key, depth + 1));
    const copy: Record<string, unknown> = {};
    for (const [name, one] of Object.entries(value)) copy[name] = told(one, name, depth + 1);
    return copy;
  };
  return <T>(value: T): T => told(value, '', 0) as T; // the same shape, its texts told otherwise
}

/** Words of ours are short and have no blanks; a sentence under the same key is looked at. */
const OWN_WORD = /^[A-Za-z][A-Za-z0-9.-]{0,40}$/;
