import { useState } from 'react';

/**
 * A value while it is being dragged: shown at once, kept when it is let go. What the document says counts again as soon
 * as nothing is held.
 */
export function useDraft<T>(kept: T, keep: (value: T) => void) {
  const [draft, setDraft] = useState<{ readonly value: T } | null>(null);
  return {
    value: draft ? draft.value : kept,
    isHeld: draft !== null,
    hold: (value: T): void => setDraft({ value }),
    letGo: (): void => {
      if (draft) keep(draft.value);
      setDraft(null);
    },
    /** Held and let go at once: a key, a button. */
    set: (value: T): void => {
      setDraft(null);
      keep(value);
    },
  };
}
export type Draft<T> = ReturnType<typeof useDraft<T>>;
