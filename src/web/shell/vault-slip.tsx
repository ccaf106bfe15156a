import { type FormEvent, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { TextField } from '../ui/text-field.tsx';
import { IDLE_LOCK_MS } from '../vault/idle-lock.ts';
import { useVault } from '../vault/vault-context.tsx';

const MIN_PASSPHRASE = 10;
const IDLE_MINUTES = IDLE_LOCK_MS / 60_000;

/** WebCrypto is there only where the page is trusted: over 127.0.0.1, localhost or https. */
const canSeal = globalThis.crypto?.subtle !== undefined;

const count = (size: number): string => (size === 1 ? 'One password' : `${size} passwords`);

/** Where secrets are kept: for this visit, or sealed in this browser under a passphrase. */
export function VaultSlip({ onClose }: { onClose: () => void }) {
  const vault = useVault();
  const words = {
    memory: {
      title: 'Passwords are kept for this visit',
      description: `${count(vault.size)} in memory, deleted when this page is closed.`,
    },
    locked: {
      title: 'Passwords are locked',
      description: 'They are kept in this browser, encrypted with your passphrase.',
    },
    open: {
      title: 'Passwords are unlocked',
      description: `${count(vault.size - vault.unkept)} kept in this browser, encrypted${vault.unkept > 0 ? `; ${vault.unkept} for this visit only` : ''}. They lock after ${IDLE_MINUTES} minutes without use.`,
    },
  }[vault.state];
  return (
    <DialogFrame {...words} isOpen onOpenChange={(isOpen) => !isOpen && onClose()}>
      {vault.state === 'locked' ? <UnlockForm onDone={onClose} /> : <ProtectForm onDone={onClose} />}
      {vault.state !== 'memory' && <Forget onDone={onClose} />}
    </DialogFrame>
  );
}

function UnlockForm({ onDone }: { onDone: () => void }) {
  const vault = useVault();
  const [passphrase, setPassphrase] = useState('');
  const [state, setState] = useState<'idle' | 'working' | 'wrong'>('idle');
  const unlock = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setState('working');
    if (await vault.unlock(passphrase).catch(() => false)) return onDone();
    setPassphrase('');
    setState('wrong');
  };
  return (
    <form onSubmit={(event) => void unlock(event)} className="flex flex-col gap-3">
      <TextField
        label="Passphrase"
        type="password"
        autoComplete="current-password"
        autoFocus
        value={passphrase}
        error={state === 'wrong' ? (vault.problem ?? 'This passphrase is wrong. Nothing was changed.') : null}
        onChange={(event) => setPassphrase(event.target.value)}
      />
      <Button kind="main" type="submit" disabled={state === 'working' || passphrase === ''} className="self-end">
        {state === 'working' ? 'Unlocking …' : 'Unlock'}
      </Button>
    </form>
  );
}

function ProtectForm({ onDone }: { onDone: () => void }) {
  const vault = useVault();
  const [passphrase, setPassphrase] = useState('');
  const [again, setAgain] = useState('');
  const [error, setError] = useState<string | null>(null);
  const [isWorking, setIsWorking] = useState(false);
  const isOpen = vault.state === 'open';
  if (!canSeal)
    return (
      <p className="border-l-[3px] border-brass pl-3">
        This page was opened over plain http from another computer, and browsers then disable encryption. Open Clear Tap
        on 127.0.0.1 to keep passwords beyond the visit.
      </p>
    );
  const protect = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (passphrase.length < MIN_PASSPHRASE)
      return setError(`At least ${MIN_PASSPHRASE} characters; a few words do well.`);
    if (passphrase !== again) return setError('The two are different.');
    setIsWorking(true);
    try {
      await vault.protect(passphrase);
      onDone();
    } catch (problem) {
      setIsWorking(false);
      setError(problem instanceof Error ? problem.message : 'They could not be encrypted.');
    }
  };
  const lock = async (): Promise<void> => {
    if (await vault.lock()) onDone(); // else the reason stands above
  };
  return (
    <form onSubmit={(event) => void protect(event)} className="flex flex-col gap-3">
      {vault.problem && error === null && (
        <p role="alert" className="border-l-[3px] border-brick pl-3">
          {vault.problem}
        </p>
      )}
      {!isOpen && (
        <p>
          Set a passphrase to keep them in this browser, encrypted. It cannot be recovered, not even by this program.
        </p>
      )}
      <TextField
        label={isOpen ? 'New passphrase' : 'Passphrase'}
        type="password"
        autoComplete="new-password"
        value={passphrase}
        error={error}
        onChange={(event) => {
          setError(null);
          setPassphrase(event.target.value);
        }}
      />
      <TextField
        label="The same again"
        type="password"
        autoComplete="new-password"
        value={again}
        onChange={(event) => setAgain(event.target.value)}
      />
      <div className="flex justify-end gap-2">
        {isOpen && (
          <Button onClick={() => void lock()} className="mr-auto">
            Lock now
          </Button>
        )}
        <Button kind={isOpen ? 'plain' : 'main'} type="submit" disabled={isWorking || passphrase === ''}>
          {isWorking ? 'Encrypting …' : isOpen ? 'Change passphrase' : 'Keep them encrypted'}
        </Button>
      </div>
    </form>
  );
}

function Forget({ onDone }: { onDone: () => void }) {
  const vault = useVault();
  const [isAsking, setIsAsking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const forget = async (): Promise<void> => {
    if (await vault.forget()) onDone();
    else setProblem(vault.problem);
  };
  return (
    <div className="mt-4 border-t border-hair pt-3">
      {isAsking ? (
        <p className="flex flex-wrap items-center gap-2">
          <span className="mr-auto">Every password of every site in this browser is then deleted.</span>
          <Button onClick={() => setIsAsking(false)}>Cancel</Button>
          <Button className="border-brick text-brick" onClick={() => void forget()}>
            Delete them
          </Button>
          {/* Where it is open, what goes wrong stands above. */}
          {problem !== null && vault.state === 'locked' && (
            <span role="alert" className="w-full text-small text-brick">
              {problem}
            </span>
          )}
        </p>
      ) : (
        <Button kind="quiet" onClick={() => setIsAsking(true)}>
          Delete all passwords
        </Button>
      )}
    </div>
  );
}
