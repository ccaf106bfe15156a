import { useEffect, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { useVault } from '../../vault/vault-context.tsx';

/** Long enough to type it into a television’s form, short enough that nobody else reads it. */
const SHOWN_MS = 20_000;

/** Shows one secret for a short while, by one act of its own; then the mask is back. */
export function ShownSecret({ mask, secret }: { mask: string; secret: () => string | null }) {
  const [held, setHeld] = useState<string | null>(null);
  const vault = useVault();
  // What the vault does not give away any more, since it was locked, is not held here either.
  const shown = held !== null && secret() === held ? held : null;
  useEffect(() => {
    if (vault.state === 'locked') setHeld(null);
  }, [vault.state]);
  useEffect(() => {
    if (shown === null) return;
    const hide = (): void => setHeld(null);
    const timer = setTimeout(hide, SHOWN_MS);
    document.addEventListener('visibilitychange', hide);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('visibilitychange', hide);
    };
  }, [shown]);
  return (
    <span className="inline-flex items-center gap-2">
      <span className="font-mono break-all print:hidden">{shown ?? mask}</span>
      <span className="hidden font-mono print:inline">{mask}</span>
      <Button
        className="no-print md:min-h-6 md:py-0 md:text-small"
        aria-label={shown === null ? 'Show the password' : 'Hide the password'}
        onClick={() => setHeld(shown === null ? secret() : null)}
      >
        {shown === null ? 'Show' : 'Hide'}
      </Button>
    </span>
  );
}
