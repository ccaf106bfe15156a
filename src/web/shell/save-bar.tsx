import {
  editUndone,
  refusalRead,
  selectRefusal,
  selectSave,
  selectSite,
  selectUndoLabel,
} from '../store/site-slice.ts';
import { keepOurs, takeOver, useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { sayWhen } from '../ui/say-when.ts';
import { exportOpenSite } from './export-open-site.ts';

const BAR = 'flex flex-wrap items-center gap-2 border-b border-brick bg-brick-wash px-5 py-2';

/** Says when the last changes are in this page only, or were not made, and offers what can be done; else silent. */
export function SaveBar() {
  return (
    // Where somebody stands on a long page, it is seen too.
    <div className="no-print sticky top-0 z-10">
      <RefusalBar />
      <StateBar />
    </div>
  );
}

/** A change that would have left a site that cannot be opened again was not made. */
function RefusalBar() {
  const dispatch = useAppDispatch();
  const refusal = useAppSelector(selectRefusal);
  if (refusal === null) return null;
  return (
    <div role="alert" className={BAR}>
      <p className="mr-auto">
        Not done: the site could not have been opened again. {refusal} Everything else is unchanged.
      </p>
      <Button onClick={() => dispatch(refusalRead())}>Close</Button>
    </div>
  );
}

function StateBar() {
  const dispatch = useAppDispatch();
  const save = useAppSelector(selectSave);
  const site = useAppSelector(selectSite);
  const undoLabel = useAppSelector(selectUndoLabel);
  if (save.status !== 'failed' && save.status !== 'clash' && save.status !== 'unfit') return null;
  const exportIt = <Button onClick={() => void exportOpenSite()}>Export this site</Button>;
  return (
    <div role="alert" className={BAR}>
      {save.status === 'failed' && (
        <>
          <p className="mr-auto">{save.message}</p>
          {exportIt}
        </>
      )}
      {save.status === 'unfit' && (
        <>
          <p className="mr-auto">
            In its present state this site could not be opened again, and it is not saved: {save.message} What was saved
            before is untouched. Undo the last change, or export the site as it is.
          </p>
          {exportIt}
          {undoLabel !== null && (
            <Button kind="main" title={undoLabel} onClick={() => dispatch(editUndone())}>
              Undo
            </Button>
          )}
        </>
      )}
      {save.status === 'clash' && (
        <>
          <p className="mr-auto">
            {site.name} was also changed in another tab, {sayWhen(save.savedAt)}. Nothing was overwritten: choose one.
          </p>
          {exportIt}
          <Button onClick={() => void takeOver()}>Use the other tab’s version</Button>
          <Button kind="main" onClick={() => void keepOurs()}>
            Use this tab’s version
          </Button>
        </>
      )}
    </div>
  );
}
