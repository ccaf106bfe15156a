import { useState } from 'react';
import { useNavigate } from 'react-router';
import { clipText } from '../../core/base/clip.ts';
import { TEXT_LIMITS } from '../../core/base/limits.ts';
import { fromOutside } from '../../core/document/from-outside.ts';
import type { Site } from '../../core/document/site.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued, selectSite, siteOpened } from '../store/site-slice.ts';
import { hasSite } from '../store/site-store.ts';
import { leaveSite, useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { unkeptWords } from './open-site.ts';

type Slip = { kind: 'none' } | { kind: 'refused'; message: string } | { kind: 'clash'; site: Site };

/** Opens a site from a file, or any other that is not in this browser yet; what stands in the way is asked or told. */
export function useSiteFile() {
  const site = useAppSelector(selectSite);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const [slip, setSlip] = useState<Slip>({ kind: 'none' });
  const close = (): void => setSlip({ kind: 'none' });
  const refuse = (message: string): void => setSlip({ kind: 'refused', message });

  const open = async (opened: Site, said: string): Promise<void> => {
    close(); // at once: a second press would open it twice
    if (!(await leaveSite())) return refuse(unkeptWords(site.name));
    dispatch(siteOpened({ site: opened, revision: null, isUnsaved: true }));
    dispatch(commandIssued({ kind: 'note', logKind: 'site', subject: 'site', text: said }));
    await navigate(`/site/${opened.id}`);
  };
  const readFile = async (file: File): Promise<void> => {
    const { readSiteFile } = await import('../../core/document/site-file.ts');
    const read = readSiteFile(await file.text());
    if (!read.ok) return refuse(read.error.message);
    const taken = fromOutside(read.value, () => newId('secret'));
    if (taken.id === site.id || (await hasSite(taken.id).catch(() => false)))
      return setSlip({ kind: 'clash', site: taken });
    await open(taken, `${taken.name} opened from a file`);
  };
  const keepBoth = async (clash: Site): Promise<void> => {
    const copy = { ...clash, id: newId('site'), name: clipText(`From file: ${clash.name}`, TEXT_LIMITS.name) };
    await open(copy, `${copy.name} opened from a file`);
  };

  const dialogs = (
    <>
      <DialogFrame
        title="This file was not opened"
        description="The site you have open is as it was."
        isOpen={slip.kind === 'refused'}
        onOpenChange={close}
      >
        <p className="border-l-[3px] border-brick pl-3">{slip.kind === 'refused' ? slip.message : ''}</p>
        <div className="mt-4 flex justify-end">
          <Button onClick={close}>Close</Button>
        </div>
      </DialogFrame>
      <DialogFrame
        title={slip.kind === 'clash' ? `${slip.site.name} is already here` : ''}
        description="The file holds a site that this browser has too."
        isOpen={slip.kind === 'clash'}
        onOpenChange={close}
      >
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={close}>Cancel</Button>
          <Button onClick={() => slip.kind === 'clash' && void keepBoth(slip.site)}>Keep both</Button>
          <Button
            kind="main"
            onClick={() => slip.kind === 'clash' && void open(slip.site, `${slip.site.name} opened from a file`)}
          >
            Replace with the file
          </Button>
        </div>
      </DialogFrame>
    </>
  );
  return { readFile, open, refuse, dialogs };
}
