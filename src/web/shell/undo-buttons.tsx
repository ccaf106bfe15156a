import { Redo2, Undo2 } from 'lucide-react';
import { editRedone, editUndone, selectRedoLabel, selectUndoLabel } from '../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useShortcut } from './shortcut.ts';

const LOOK =
  'inline-flex size-8 items-center justify-center rounded-control enabled:hover:bg-verdigris-wash disabled:opacity-35 pointer-coarse:size-11';

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
  const undoWords = undo === null ? 'Nothing to take back' : `Take back: ${undo}`;
  const redoWords = redo === null ? 'Nothing to do again' : `Do again: ${redo}`;
  return (
    <span className="flex">
      <button
        type="button"
        className={LOOK}
        disabled={undo === null}
        aria-label={undoWords}
        title={undoWords}
        onClick={() => dispatch(editUndone())}
      >
        <Undo2 size={16} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={`${LOOK} max-md:hidden`}
        disabled={redo === null}
        aria-label={redoWords}
        title={redoWords}
        onClick={() => dispatch(editRedone())}
      >
        <Redo2 size={16} aria-hidden="true" />
      </button>
    </span>
  );
}
