import { useEffect, useState } from 'react';
import { Button } from './button.tsx';

type Outcome = 'none' | 'copied' | 'refused';

/** Copies text and says so on itself for a moment. `text` is asked for only when pressed, so that a secret is not held. */
export function CopyButton({
  text,
  label,
  children = 'Copy',
}: {
  text: () => string | null;
  label: string;
  children?: string;
}) {
  const [outcome, setOutcome] = useState<Outcome>('none');
  useEffect(() => {
    if (outcome === 'none') return;
    const timer = setTimeout(() => setOutcome('none'), 1600);
    return () => clearTimeout(timer);
  }, [outcome]);
  const copy = async (): Promise<void> => {
    const value = text();
    try {
      if (value === null) throw new Error('nothing to copy');
      await navigator.clipboard.writeText(value);
      setOutcome('copied');
    } catch {
      setOutcome('refused');
    }
  };
  const words = outcome === 'copied' ? 'Copied' : outcome === 'refused' ? 'Not copied' : children;
  return (
    <Button
      aria-label={outcome === 'none' ? label : words}
      onClick={() => void copy()}
      className="min-w-16 md:min-h-6 md:py-0 md:text-small"
    >
      {words}
    </Button>
  );
}
