/** How the name of a file differs from the one that a boot loader looks for. Only `ok` is found by it. */
export type NameVerdict = 'ok' | 'space' | 'case' | 'extra-extension' | 'copy-suffix' | 'different';

export const NAME_WORDS: Readonly<Record<NameVerdict, string>> = {
  ok: 'the name is exact',
  space: 'a space stands before or after the name',
  case: 'upper and lower case differ',
  'extra-extension': 'a second extension follows, which a desktop often hides',
  'copy-suffix': 'it was saved twice: a number in brackets was added',
  different: 'it is a different name',
};

/** “ (1)” and “(2)” before the ending, as browsers and desktops add them. */
function withoutCopyMark(name: string): string {
  const dot = name.lastIndexOf('.');
  const [stem, ending] = dot < 0 ? [name, ''] : [name.slice(0, dot), name.slice(dot)];
  const close = stem.endsWith(')') ? stem.lastIndexOf('(') : -1;
  const inside = close < 0 ? '' : stem.slice(close + 1, -1);
  return inside !== '' && /^\d{1,4}$/.test(inside) ? `${stem.slice(0, close).trimEnd()}${ending}` : name;
}

/**
 * Compares two names of files letter by letter, as a boot loader does.
 * @param required the name it looks for
 * @param found the name that the file has
 */
export function compareNames(required: string, found: string): NameVerdict {
  if (found === required) return 'ok';
  if (found.trim() === required) return 'space';
  if (found.toLowerCase() === required.toLowerCase()) return 'case';
  if (required !== '' && found.startsWith(`${required}.`)) return 'extra-extension';
  return withoutCopyMark(found) === required ? 'copy-suffix' : 'different';
}

/** Where the first letter differs, counted from 0; `null` when the names are the same. */
export function firstDifference(required: string, found: string): number | null {
  if (required === found) return null;
  const length = Math.min(required.length, found.length);
  for (let at = 0; at < length; at++) if (required[at] !== found[at]) return at;
  return length;
}
