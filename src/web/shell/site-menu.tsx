import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { clipText } from '../../core/base/clip.ts';
import { TEXT_LIMITS } from '../../core/base/limits.ts';
import type { Site } from '../../core/document/site.ts';
import type { ListTable } from '../../core/imports/camera-list.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued, selectSite, siteOpened } from '../store/site-slice.ts';
import { hasSite, listSites, type SiteListing } from '../store/site-store.ts';
import { slipAsked } from '../store/slip-slice.ts';
import { leaveSite, useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { FileInput } from '../ui/file-input.tsx';
import { exportOpenSite } from './export-open-site.ts';
import { NewSiteForm } from './new-site-form.tsx';
import { unkeptWords } from './open-site.ts';

const ImportSlip = lazy(async () => ({ default: (await import('./import-slip.tsx')).ImportSlip }));

const ITEM =
  'flex min-h-8 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-verdigris-wash pointer-coarse:min-h-11';

type Slip =
  | { kind: 'list'; fileName: string; table: ListTable }
  | { kind: 'none' }
  | { kind: 'refused'; message: string }
  | { kind: 'clash'; site: Site }
  | { kind: 'new' };

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

  useEffect(() => {
    if (isOpen) void listSites().then((sites) => setOthers(sites.filter(({ id }) => id !== site.id)));
  }, [isOpen, site.id]);

  const open = async (opened: Site): Promise<void> => {
    if (!(await leaveSite())) return setSlip({ kind: 'refused', message: unkeptWords(site.name) });
    dispatch(siteOpened({ site: opened, revision: null, isUnsaved: true }));
    dispatch(
      commandIssued({ kind: 'note', logKind: 'site', subject: 'site', text: `${opened.name} opened from a file` }),
    );
    setSlip({ kind: 'none' });
    await navigate(`/site/${opened.id}`);
  };

  const readFile = async (file: File): Promise<void> => {
    const { readSiteFile } = await import('../ui/site-files.ts');
    const read = readSiteFile(await file.text());
    if (!read.ok) return setSlip({ kind: 'refused', message: read.error.message });
    if (read.value.id === site.id || (await hasSite(read.value.id).catch(() => false)))
      return setSlip({ kind: 'clash', site: read.value });
    await open(read.value);
  };

  const readList = async (file: File): Promise<void> => {
    const { readListTable } = await import('../../core/imports/camera-list.ts');
    const read = readListTable(await file.text());
    if (read.ok) setSlip({ kind: 'list', fileName: file.name, table: read.value });
    else setSlip({ kind: 'refused', message: read.error.message });
  };

  const keepBoth = async (clash: Site): Promise<void> => {
    const copy = { ...clash, id: newId('site'), name: clipText(`From file: ${clash.name}`, TEXT_LIMITS.name) };
    await open(copy);
  };

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
        onFile={(file) => void readFile(file)}
      />
      <FileInput
        ref={listInput}
        label="Camera list"
        accept=".csv,.txt,text/csv,text/plain"
        onFile={(file) => void readList(file)}
      />
      {slip.kind === 'list' && (
        <Suspense fallback={null}>
          <ImportSlip fileName={slip.fileName} table={slip.table} onClose={() => setSlip({ kind: 'none' })} />
        </Suspense>
      )}
      <DialogFrame
        title="This file was not opened"
        description="The site you have open is as it was."
        isOpen={slip.kind === 'refused'}
        onOpenChange={() => setSlip({ kind: 'none' })}
      >
        <p className="border-l-[3px] border-brick pl-3">{slip.kind === 'refused' ? slip.message : ''}</p>
        <div className="mt-4 flex justify-end">
          <Button onClick={() => setSlip({ kind: 'none' })}>Close</Button>
        </div>
      </DialogFrame>
      <DialogFrame
        title={slip.kind === 'clash' ? `${slip.site.name} is already here` : ''}
        description="The file holds a site that this browser has too."
        isOpen={slip.kind === 'clash'}
        onOpenChange={() => setSlip({ kind: 'none' })}
      >
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => setSlip({ kind: 'none' })}>Leave it</Button>
          <Button onClick={() => slip.kind === 'clash' && void keepBoth(slip.site)}>Keep both</Button>
          <Button kind="main" onClick={() => slip.kind === 'clash' && void open(slip.site)}>
            Replace with the file
          </Button>
        </div>
      </DialogFrame>
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
