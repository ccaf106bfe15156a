import localforage from 'localforage';
import { useEffect, useState } from 'react';
import type { Take } from '../../../core/gallery/score.ts';

const store = localforage.createInstance({ name: 'clear-tap', storeName: 'faults' });
const KEY = 'takes';
/** The last ones count: what was confused a year ago is learnt by now. */
const MOST_TAKES = 500;

const isTake = (value: unknown): value is Take =>
  typeof value === 'object' &&
  value !== null &&
  ['fault', 'guess', 'was'].every((key) => typeof (value as Record<string, unknown>)[key] === 'string');

const read = async (): Promise<readonly Take[]> => {
  const kept: unknown = await store.getItem(KEY).catch(() => null); // a store that is blocked keeps no score
  return Array.isArray(kept) ? kept.filter(isTake).slice(-MOST_TAKES) : [];
};

export interface Takes {
  /** `null` while they are read. */
  readonly takes: readonly Take[] | null;
  add(take: Take): void;
  /** Forgets all, and gives what was there, to bring it back. */
  set(takes: readonly Take[]): void;
}

/** Faults that somebody took in this browser. */
export function useTakes(): Takes {
  const [takes, setTakes] = useState<readonly Take[] | null>(null);
  useEffect(() => {
    let isHere = true;
    void read().then((kept) => isHere && setTakes(kept));
    return () => {
      isHere = false;
    };
  }, []);
  const set = (next: readonly Take[]): void => {
    setTakes(next);
    store.setItem(KEY, next).catch(() => {}); // the score of this visit stands on the page
  };
  return { takes, set, add: (take) => set([...(takes ?? []), take].slice(-MOST_TAKES)) };
}
