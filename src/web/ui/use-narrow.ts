import { useSyncExternalStore } from 'react';

const narrow = matchMedia('(max-width: 640px)');
const subscribe = (told: () => void): (() => void) => {
  narrow.addEventListener('change', told);
  return () => narrow.removeEventListener('change', told);
};

/** Whether a drawing has a phone's width: it is then drawn for it, not shrunk to it. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => narrow.matches);
