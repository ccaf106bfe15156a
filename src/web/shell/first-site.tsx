import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { fetchDemo } from '../api/client.ts';
import { deleteRemoved, listRemoved, putBackSite, type RemovedSite } from '../store/removed-sites.ts';
import { selectServer } from '../store/server-slice.ts';
import { useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { Drop } from '../ui/drop.tsx';
import { FileInput } from '../ui/file-input.tsx';
import { sayWhen } from '../ui/say-when.ts';
import { NewSiteForm } from './new-site-form.tsx';
import { useSiteFile } from './use-site-file.tsx';

/** Nothing is open: begin a site, open one from a file, put one back. */
export function FirstSite() {
  const siteFile = useSiteFile();
  const file = useRef<HTMLInputElement>(null);
  const isDemo = useAppSelector(selectServer).network === 'simulated';
  const openDemo = async (): Promise<void> => {
    try {
      const { site } = await fetchDemo();
      await deleteRemoved(site.id).catch(() => {}); // it is here again, as it was delivered
      await siteFile.open(site, `${site.name} opened from the demo`);
    } catch {
      siteFile.refuse('Clear Tap’s own server did not respond. Start it again.');
    }
  };
  return (
    <main className="mx-auto max-w-md px-5 py-20">
      <p className="mb-6 flex items-center gap-2 text-name font-strong">
        <Drop verdict="ok" /> Clear Tap
      </p>
      <h1 className="text-title">Start with a site</h1>
      <p className="mt-1 mb-4 text-soft">
        One customer’s place. Its cameras, measurements and hand-over sheets stay in this browser and in the files you
        export.
      </p>
      <NewSiteForm onCreated={() => {}} />
      <p className="mt-6 flex flex-wrap gap-2 border-t border-hair pt-4">
        <FileInput
          ref={file}
          label="Site file"
          accept=".json,application/json"
          onFile={(chosen) => void siteFile.readFile(chosen)}
        />
        <Button onClick={() => file.current?.click()}>Open a site file</Button>
        {isDemo && <Button onClick={() => void openDemo()}>Open the demo’s site</Button>}
      </p>
      <RemovedSites />
      {siteFile.dialogs}
    </main>
  );
}

/** Sites that were removed, until they are put back or deleted for ever. */
export function RemovedSites({ onLeft }: { onLeft?: () => void }) {
  const navigate = useNavigate();
  const [removed, setRemoved] = useState<readonly RemovedSite[]>([]);
  const read = (): void => void listRemoved().then(setRemoved, () => {});
  useEffect(read, []);
  if (removed.length === 0) return null;
  const putBack = async (id: string): Promise<void> => {
    await putBackSite(id);
    onLeft?.();
    await navigate(`/site/${id}`);
  };
  return (
    <section aria-label="Removed sites" className="mt-6 border-t border-hair pt-4">
      <h2 className="mb-1 text-small">Removed sites</h2>
      <ul>
        {removed.map(({ id, name, removedAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-2 border-b border-hair py-1 last:border-b-0">
            <span className="flex-1">
              {name} <span className="text-small text-soft">removed {sayWhen(removedAt)}</span>
            </span>
            <Button aria-label={`Restore ${name}`} onClick={() => void putBack(id)}>
              Restore
            </Button>
            <Button
              kind="quiet"
              aria-label={`Delete ${name} permanently`}
              onClick={() => void deleteRemoved(id).then(read)}
            >
              Delete permanently
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
