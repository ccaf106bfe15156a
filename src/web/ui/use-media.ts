import { useCallback, useSyncExternalStore } from 'react';

/** Whether a media query holds now, and again when that changes. */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (told: () => void) => {
      const media = matchMedia(query);
      media.addEventListener('change', told);
      return () => media.removeEventListener('change', told);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => matchMedia(query).matches);
}

/** Whether a drawing has a phone's width: it is then drawn for it, not shrunk to it. */
export const useNarrow = (): boolean => useMedia('(max-width: 640px)');
