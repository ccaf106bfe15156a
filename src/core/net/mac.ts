/** A MAC address in one spelling, and what its first octet says of it. */
export interface Mac {
  /** Lower case, with colons. */
  readonly mac: string;
  /** Given by software, not by the maker: it may be another one tomorrow. Bit 1 of the first octet. */
  readonly isLocal: boolean;
  /** Of a group, so of no device. Bit 0 of the first octet. */
  readonly isGroup: boolean;
}

/** Longer texts are none, and are not looked at. */
const LONGEST = 20;
/** As it is kept: read at every edit, so it goes first. */
const CANONICAL = /^[0-9a-f]{2}(?::[0-9a-f]{2}){5}$/;
const PAIRS = /^[0-9a-f]{1,2}([:-])[0-9a-f]{1,2}(?:\1[0-9a-f]{1,2}){4}$/i;
const QUADS = /^[0-9a-f]{4}\.[0-9a-f]{4}\.[0-9a-f]{4}$/i;
const BARE = /^[0-9a-f]{12}$/i;

function digitsOf(text: string): string | null {
  if (PAIRS.test(text))
    return text
      .split(/[:-]/)
      .map((pair) => pair.padStart(2, '0'))
      .join('');
  if (QUADS.test(text)) return text.replaceAll('.', '');
  return BARE.test(text) ? text : null;
}

/**
 * A MAC address in whatever notation devices print it: `44-00-5E-00-53-21`, `0:1:2:a:b:c`, `da1a.2b3c.4d5e`,
 * `00005E005310`; `null` when it is none, such as with two kinds of separators.
 * Source: IEEE 802 §8.2 (U/L and I/G bits).
 */
export function parseMac(text: string): Mac | null {
  if (CANONICAL.test(text)) return macOf(text);
  const trimmed = text.length > 2 * LONGEST ? '' : text.trim();
  const digits = trimmed.length > LONGEST ? null : digitsOf(trimmed)?.toLowerCase();
  if (!digits) return null;
  return macOf(digits.match(/../g)?.join(':') ?? '');
}

function macOf(mac: string): Mac {
  const first = Number.parseInt(mac.slice(0, 2), 16);
  return { mac, isLocal: (first & 2) !== 0, isGroup: (first & 1) !== 0 };
}

/** Addresses that say “none”: all zeros, as tables hold them for whom nobody answered, and all ones. */
export const isNoMac = (mac: string): boolean => mac === '00:00:00:00:00:00' || mac === 'ff:ff:ff:ff:ff:ff';
