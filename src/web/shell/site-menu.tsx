import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { selectSite } from '../store/site-slice.ts';
import { listSites, type SiteListing } from '../store/site-store.ts';
import { slipAsked } from '../store/slip-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { FileInput } from '../ui/file-input.tsx';
import { exportOpenSite } from './export-open-site.ts';
import { NewSiteForm } from './new-site-form.tsx';
import { useSiteFile } from './use-site-file.tsx';

const ImportSlip = lazy(async () => ({ default: (await import('./import-slip.tsx')).ImportSlip }));

const ITEM =
  'flex min-h-8 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-verdigris-wash pointer-coarse:min-h-11';

type Slip = { kind: 'list'; file: File } | { kind: 'none' } | { kind: 'new' };

/** The site's name, and what can be done with whole sites: switch, begin, open a file, export. */
export function SiteMenu() {
  const site = useAppSelector(selectSite);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const fileInput = useRef<HTMLInputElement>(null);
  const listInput = useRef<HTMLInputElement>(null);
  const [others, setOthers] = useState<readonly SiteListing[]>([]);
  const [slip, setSlip] = useState<Slip>({ kind: 'none' });
  const [isOpen, setIsOpen] = useState(false);
  const siteFile = useSiteFile();

  useEffect(() => {
    if (isOpen) void listSites().then((sites) => setOthers(sites.filter(({ id }) => id !== site.id)));
  }, [isOpen, site.id]);

  return (
    <>
      <DropdownMenu.Root open={isOpen} onOpenChange={setIsOpen}>
        <DropdownMenu.Trigger className="flex min-h-8 items-center gap-1 font-strong">
          <span className="sr-only">Site: </span>
          {site.name}
          <ChevronDown size={14} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={6} className="z-20 min-w-56 border border-ink bg-sheet py-1">
            {others.map(({ id, name }) => (
              <DropdownMenu.Item key={id} className={ITEM} onSelect={() => void navigate(`/site/${id}`)}>
                {name}
              </DropdownMenu.Item>
            ))}
            {others.length > 0 && <DropdownMenu.Separator className="my-1 h-px bg-hair" />}
            <DropdownMenu.Item className={ITEM} onSelect={() => setSlip({ kind: 'new' })}>
              New site
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => fileInput.current?.click()}>
              Open a site file
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => listInput.current?.click()}>
              Import a camera list (CSV)
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void exportOpenSite()}>
              Export this site
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-hair" />
            <DropdownMenu.Item className={ITEM} onSelect={() => void dispatch(slipAsked('site'))}>
              This site: name, notes, copy, remove
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void dispatch(slipAsked('cards'))}>
              Model cards
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void dispatch(slipAsked('assumptions'))}>
              Assumptions
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <FileInput
        ref={fileInput}
        label="Site file"
        accept=".json,application/json"
        onFile={(file) => void siteFile.readFile(file)}
      />
      <FileInput
        ref={listInput}
        label="Camera list"
        accept=".csv,.txt,text/csv,text/plain"
        onFile={(file) => setSlip({ kind: 'list', file })}
      />
      {slip.kind === 'list' && (
        <Suspense fallback={null}>
          <ImportSlip file={slip.file} onClose={() => setSlip({ kind: 'none' })} />
        </Suspense>
      )}
      {siteFile.dialogs}
      <DialogFrame
        title="New site"
        description="One customer’s place: its cameras, destinations and record."
        isOpen={slip.kind === 'new'}
        onOpenChange={() => setSlip({ kind: 'none' })}
      >
        <NewSiteForm onCreated={() => setSlip({ kind: 'none' })} />
      </DialogFrame>
    </>
  );
}
