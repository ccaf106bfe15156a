/** A text cut to at most `max` UTF-16 units, “…” as its last sign; never between the two halves of one sign. */
export function clipText(text: string, max: number): string {
  if (text.length <= max) return text;
  const last = text.charCodeAt(max - 2);
  const isHalved = last >= 0xd800 && last <= 0xdbff;
  return `${text.slice(0, isHalved ? max - 2 : max - 1)}…`;
}

/** How far back from the limit a blank is looked for: what is longer without one is no text. */
const LONGEST_WORD = 1024;
const isBlank = (code: number): boolean => code === 0x20 || (code >= 0x09 && code <= 0x0d);

/**
 * A text cut at a blank at or before `max`, and how much was left out. A word is kept whole or not at all: of a URL that
 * is cut before its “@”, nobody could tell any more which part is a password.
 */
export function clipAtBlank(text: string, max: number): { readonly kept: string; readonly leftOut: number } {
  if (text.length <= max) return { kept: text, leftOut: 0 };
  let at = max;
  while (at > 0 && max - at < LONGEST_WORD && !isBlank(text.charCodeAt(at))) at -= 1;
  if (!isBlank(text.charCodeAt(at))) at = 0;
  return { kept: text.slice(0, at), leftOut: text.length - at };
}
