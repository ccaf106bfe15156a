import { MASK } from './path-places.ts';

/** A shorter run of signs that a secret has too stands in texts by chance, and gives little of it away. */
const SHORTEST_PART = 5;

function partsOf(text: string): readonly string[] {
  return Array.from({ length: Math.max(0, text.length - SHORTEST_PART + 1) }, (_, at) =>
    text.slice(at, at + SHORTEST_PART),
  );
}

/**
 * Masks what is left of a secret where a camera sends it back cut or garbled: every run of five signs or more that one of
 * its forms has as well. Goes over the text once.
 * @param known what is told anyway: parts that stand in it stay
 */
export function createPartMask(forms: Iterable<string>, known: string): (text: string) => string {
  const parts = new Set([...forms].flatMap(partsOf));
  for (const part of partsOf(known)) parts.delete(part);
  return (text) => {
    let told = '';
    let end = 0;
    for (let at = 0; at + SHORTEST_PART <= text.length; at++) {
      if (!parts.has(text.slice(at, at + SHORTEST_PART))) continue;
      if (at >= end) told += text.slice(end, at) + MASK;
      end = at + SHORTEST_PART;
    }
    return told + text.slice(end);
  };
}
