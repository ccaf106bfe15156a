import { Link } from 'react-router';
import { editRedone, selectRedoLabel } from '../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useSiteId } from '../store/use-site-id.ts';
import { Button } from '../ui/button.tsx';

/** Stands where a camera stood: its adding was taken back, it was removed, or an old address leads here. */
export function NoSuchCamera() {
  const siteId = useSiteId();
  const dispatch = useAppDispatch();
  const redo = useAppSelector(selectRedoLabel);
  return (
    <>
      <h1 tabIndex={-1} className="text-title outline-none">
        This camera is not in the site
      </h1>
      <p className="mt-2">It was removed, adding it was undone, or the address is wrong.</p>
      <p className="mt-4 flex flex-wrap items-center gap-3">
        {redo !== null && <Button onClick={() => dispatch(editRedone())}>Redo: {redo}</Button>}
        <Link to={`/site/${siteId}`} className="inline-flex min-h-8 items-center font-strong text-verdigris">
          Back to Cameras →
        </Link>
      </p>
    </>
  );
}
