import { useState } from 'react';
import { useFormContext } from 'react-hook-form';
import type { PlanningCommand } from '../../../core/document/site-commands.ts';
import { THING_KINDS, type ThingKind, type ThingName } from '../../../core/document/things.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';

interface ThingActsProps {
  readonly kind: ThingName;
  readonly id: string;
  /** It is gone: whoever shows it closes. */
  readonly onGone: () => void;
  readonly onCopied?: (command: PlanningCommand) => void;
}

/**
 * Copy and remove, the same for everything that can be made. What hangs on a thing is named before it goes; a thing on which
 * nothing hangs goes at once, since undo brings it back.
 */
export function ThingActs({ kind, id, onGone, onCopied }: ThingActsProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [isAsked, setIsAsked] = useState(false);
  // What is typed and not kept yet is on no copy: it would be gone with the form.
  const isTyped = useFormContext()?.formState.isDirty ?? false;
  const row: ThingKind = THING_KINDS[kind];
  const thing = row.all(site).find((one) => one.id === id);
  if (!thing) return null;
  const { name } = thing;
  const remove = row.remove(site, id);
  const hanging = row.hanging(site, id);
  const go = (): void => {
    if (!remove) return;
    onGone();
    dispatch(commandIssued(remove));
  };
  const copy = (): void => {
    const command = row.copy(site, id, () => newId(kind));
    if (!command) return;
    dispatch(commandIssued(command));
    onCopied?.(command);
  };
  if (isAsked)
    return (
      <span
        role="alertdialog"
        aria-label={`Remove ${name}`}
        className="flex flex-col gap-2 border-l-[3px] border-brick pl-3"
      >
        <span>
          With {name} {hanging.length === 1 && /^1\D/.test(hanging[0] ?? '') ? 'goes' : 'go'} {hanging.join(', ')}. Its
          record stays, and undo brings it back.
        </span>
        <span className="flex flex-wrap gap-2">
          <Button autoFocus onClick={() => setIsAsked(false)}>
            Keep {name}
          </Button>
          <Button className="text-brick" onClick={go}>
            Remove it
          </Button>
        </span>
      </span>
    );
  return (
    <span className="flex flex-wrap gap-2">
      <Button
        aria-label={`Copy ${name}`}
        title={isTyped ? 'Save what you typed first' : undefined}
        disabled={isTyped}
        onClick={copy}
      >
        Copy it
      </Button>
      {remove && (
        <Button aria-label={`Remove ${name}`} onClick={() => (hanging.length > 0 ? setIsAsked(true) : go())}>
          Remove it
        </Button>
      )}
    </span>
  );
}
