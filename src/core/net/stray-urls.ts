/** What ends a URL in a text. Control signs but line ends do not: they may stand inside a broken one. */
const ENDS = /([ \t\r\n"<>]+)/;
/** With the key before it, if that is one: letters alone. */
const BEGINS_VALUE = /[?&](?:[A-Za-z]{1,24}=)?|=/;
/** Host and port, with an account or without (RFC 3986 §3.2): what else stands there came from elsewhere in a broken URL. */
const AUTHORITY = /^[A-Za-z0-9._~*:@[\]{}-]*$/;
/** What stands before a value in SDP (RFC 4566 §5). */
const SDP_TYPE = /^[a-z]=(?:[a-z-]{1,24}:)?/;
const MASK = '***';
/** Of a placeholder. */
const PLACE = '{';

/**
 * URLs that a camera sent, when its own path holds a login: one that goes on from what was asked for is told whole, of any
 * other what stands before its first value. A login that was cut, encoded otherwise or garbled is known by nothing else.
 * @param shown path and query that were asked for, with placeholders
 */
export const tellStrayUrls = (text: string, shown: string): string =>
  text
    .split(ENDS)
    .map((word) => toldWord(word, shown))
    .join('');

function toldWord(word: string, shown: string): string {
  const scheme = word.indexOf('://');
  if (scheme < 0) return toldRelative(word, shown);
  const host = scheme + '://'.length;
  const path = word.slice(host).search(/[/?]/);
  const from = path < 0 ? word.length : host + path;
  if (!AUTHORITY.test(word.slice(host, from))) return word.slice(0, host) + MASK;
  let same = 0;
  while (same < shown.length && word.charAt(from + same) === shown.charAt(same)) same += 1;
  if (same === shown.length) return word;
  const alike = shown.slice(0, same);
  if (alike.includes('=') || shown.startsWith(PLACE, same)) return word.slice(0, from + same) + MASK;
  return cutAtValue(word, from + same, alike.includes('?'));
}

/** @param isInQuery where no value is seen to begin, everything counts as one */
function cutAtValue(word: string, from: number, isInQuery = false): string {
  const value = BEGINS_VALUE.exec(word.slice(from));
  if (!value) return isInQuery ? word.slice(0, from) + MASK : word;
  return word.slice(0, from + value.index + value[0].length) + MASK;
}

/** A URL without its host, as controls may be (RFC 2326 §C.1.1), or with a broken scheme: known by its query. */
function toldRelative(word: string, shown: string): string {
  const query = word.search(/[?&]/);
  if (query < 0) return word;
  const asked = shown.indexOf('?');
  if (asked >= 0 && word.startsWith(shown.slice(asked), query)) return word;
  return cutAtValue(word, SDP_TYPE.exec(word)?.[0].length ?? 0);
}
