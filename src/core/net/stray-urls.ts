import { MASK } from './path-places.ts';

/** What ends a URL in a text. Control signs but line ends do not: they may stand inside a broken one. */
const ENDS = /([ \t\r\n"<>]+)/;
/** With the key before it, if that is one: letters alone. */
const BEGINS_VALUE = /[?&](?:[A-Za-z]{1,24}=)?|=/;
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
  const from = scheme + 3 + word.slice(scheme + 3).search(/[/?]/);
  if (from < scheme + 3) return word;
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

/** A URL without its host, as controls may be (RFC 2326 §C.1.1): known by its query. */
function toldRelative(word: string, shown: string): string {
  const query = word.indexOf('?');
  if (query < 0) return word;
  const asked = shown.indexOf('?');
  return asked >= 0 && word.startsWith(shown.slice(asked), query) ? word : cutAtValue(word, query);
}
