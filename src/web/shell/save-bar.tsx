import { selectSave, selectSite } from '../store/site-slice.ts';
import { keepOurs, takeOver, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { sayWhen } from '../ui/say-when.ts';
import { exportOpenSite } from './export-open-site.ts';

/** Says when the last changes are in this page only, and offers what can be done; silent when all is kept. */
export function SaveBar() {
  const save = useAppSelector(selectSave);
  const site = useAppSelector(selectSite);
  if (save.status !== 'failed' && save.status !== 'clash') return null;
  const exportIt = <Button onClick={() => void exportOpenSite()}>Export this site</Button>;
  return (
    <div
      role="alert"
      className="no-print flex flex-wrap items-center gap-2 border-b border-brick bg-brick-wash px-5 py-2"
    >
      {save.status === 'failed' ? (
        <>
          <p className="mr-auto">{save.message}</p>
          {exportIt}
        </>
      ) : (
        <>
          <p className="mr-auto">
            {site.name} was also changed in another tab, {sayWhen(save.savedAt)}. Nothing was written over: choose one.
          </p>
          {exportIt}
          <Button onClick={() => void takeOver()}>Take the other tab’s</Button>
          <Button kind="main" onClick={() => void keepOurs()}>
            Keep this tab’s
          </Button>
        </>
      )}
    </div>
  );
}
