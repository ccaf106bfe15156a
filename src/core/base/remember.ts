import { lruMemoize, weakMapMemoize } from 'reselect';

/** One for the document and one for what is tried on a copy of it. */
const KEPT = 2;

/**
 * Remembers by argument: for each thing its last answers, while it is asked with the same arguments. It is forgotten with
 * the thing. Unlike a memo without bound it does not grow with every number that ever occurred.
 */
export function rememberLast<T extends object, A extends readonly unknown[], R>(
  work: (thing: T, ...given: A) => R,
): (thing: T, ...given: A) => R {
  const answersFor = weakMapMemoize((thing: T) =>
    lruMemoize((...given: unknown[]) => work(thing, ...(given as unknown as A)), { maxSize: KEPT }),
  );
  return (thing, ...given) => answersFor(thing)(...given);
}
