import { Lock, LockOpen, Search } from 'lucide-react';
import { slipAsked } from '../store/slip-slice.ts';
import { useAppDispatch } from '../store/store.ts';
import { useVault } from '../vault/vault-context.tsx';
import { UndoButtons } from './undo-buttons.tsx';

/** What lies at the right of the head, in every view: it comes a moment after the view itself. */
export function HeadTools() {
  return (
    <>
      <UndoButtons />
      <FindButton />
      <VaultButton />
    </>
  );
}

const TOOL =
  'inline-flex min-h-8 items-center gap-1.5 rounded-control px-1.5 text-small hover:bg-verdigris-wash pointer-coarse:min-h-11 pointer-coarse:min-w-11 pointer-coarse:justify-center';

function FindButton() {
  const dispatch = useAppDispatch();
  return (
    <button type="button" className={TOOL} aria-keyshortcuts="/" onClick={() => dispatch(slipAsked('find'))}>
      <Search size={15} aria-hidden="true" />
      <span className="max-lg:sr-only">Find</span>
    </button>
  );
}

const VAULT_WORDS = {
  memory: 'Passwords: this visit',
  locked: 'Passwords: locked',
  open: 'Passwords: unlocked',
} as const;

function VaultButton() {
  const dispatch = useAppDispatch();
  const { state, problem } = useVault();
  const Icon = state === 'locked' ? Lock : LockOpen;
  return (
    <button
      type="button"
      className={`${TOOL} ${problem === null ? '' : 'text-brick'}`}
      onClick={() => dispatch(slipAsked('vault'))}
    >
      <Icon size={15} aria-hidden="true" />
      <span className="max-lg:sr-only">{problem === null ? VAULT_WORDS[state] : 'Passwords: a problem'}</span>
    </button>
  );
}
