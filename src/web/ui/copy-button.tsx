import { Button } from './button.tsx';
import { copyWords, useCopy } from './use-copy.ts';

interface CopyButtonProps {
  /** Asked for only when pressed, so that a secret is not held. */
  readonly text: () => string | null;
  readonly label: string;
  readonly children?: string;
}

/** Copies text and says so on itself for a moment. */
export function CopyButton({ text, label, children = 'Copy' }: CopyButtonProps) {
  const { outcome, copy } = useCopy();
  const words = copyWords(outcome, children);
  return (
    <Button
      aria-label={outcome === 'none' ? label : words}
      onClick={() => void copy(text())}
      className="min-w-16 md:min-h-6 md:py-0 md:text-small"
    >
      {words}
    </Button>
  );
}
