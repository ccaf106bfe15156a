import { useEffect, useState } from 'react';

export type CopyOutcome = 'none' | 'copied' | 'refused';

/** Puts text on the clipboard and says for a moment how that went. `null` is text that is not there to be copied. */
export function useCopy(): { readonly outcome: CopyOutcome; readonly copy: (text: string | null) => Promise<void> } {
  const [outcome, setOutcome] = useState<CopyOutcome>('none');
  useEffect(() => {
    if (outcome === 'none') return;
    const timer = setTimeout(() => setOutcome('none'), 1600);
    return () => clearTimeout(timer);
  }, [outcome]);
  const copy = async (text: string | null): Promise<void> => {
    try {
      if (text === null) throw new Error('nothing to copy');
      await navigator.clipboard.writeText(text);
      setOutcome('copied');
    } catch {
      setOutcome('refused');
    }
  };
  return { outcome, copy };
}

/** What the button that copies reads meanwhile. */
export const copyWords = (outcome: CopyOutcome, rest: string): string =>
  outcome === 'copied' ? 'Copied' : outcome === 'refused' ? 'Not copied' : rest;
