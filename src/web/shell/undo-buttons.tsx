import { Redo2, Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { editRedone, editUndone, selectRedoLabel, selectUndoLabel } from '../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useShortcut } from '../ui/shortcut.ts';

/** Takes edits back and does them again, from whichever view; each button says what it would do. */
export function UndoButtons() {
  const dispatch = useAppDispatch();
  const undo = useAppSelector(selectUndoLabel);
  const redo = useAppSelector(selectRedoLabel);
  useShortcut('mod+z', () => {
    if (undo !== null) dispatch(editUndone());
  });
  useShortcut('mod+shift+z', () => {
    if (redo !== null) dispatch(editRedone());
  });
  const undoWords = undo === null ? 'Nothing to undo' : `Undo: ${undo}`;
  const redoWords = redo === null ? 'Nothing to redo' : `Redo: ${redo}`;
  return (
    <span className="flex">
      <StepButton words={undoWords} isIdle={undo === null} onClick={() => dispatch(editUndone())}>
        <Undo2 size={16} aria-hidden="true" />
      </StepButton>
      <StepButton
        words={redoWords}
        isIdle={redo === null}
        onClick={() => dispatch(editRedone())}
        className="max-md:hidden"
      >
        <Redo2 size={16} aria-hidden="true" />
      </StepButton>
    </span>
  );
}

interface StepButtonProps {
  readonly words: string;
  readonly isIdle: boolean;
  readonly onClick: () => void;
  readonly className?: string;
  readonly children: ReactNode;
}

function StepButton({ words, isIdle, onClick, className = '', children }: StepButtonProps) {
  return (
    <button
      type="button"
      className={`inline-flex size-8 items-center justify-center rounded-control enabled:hover:bg-verdigris-wash disabled:opacity-35 pointer-coarse:size-11 ${className}`}
      disabled={isIdle}
      aria-label={words}
      title={words}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
