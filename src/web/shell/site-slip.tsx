import { useState } from 'react';
import { useNavigate } from 'react-router';
import { TEXT_LIMITS } from '../../core/base/limits.ts';
import { sayMany } from '../../core/base/say.ts';
import { freeName } from '../../core/document/things.ts';
import { newId } from '../store/new-id.ts';
import { removeSite } from '../store/removed-sites.ts';
import { commandIssued, selectSite } from '../store/site-slice.ts';
import { listSites } from '../store/site-store.ts';
import { leaveSite, useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { TextField } from '../ui/text-field.tsx';
import { useVault } from '../vault/vault-context.tsx';
import { RemovedSites } from './first-site.tsx';
import { unkeptWords } from './open-site.ts';
import { useSiteFile } from './use-site-file.tsx';

/** The site as a whole: what it is called, what is noted of it, a copy of it, its removal. */
export function SiteSlip({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const site = useAppSelector(selectSite);
  const siteFile = useSiteFile();
  const vault = useVault();
  const [name, setName] = useState(site.name);
  const [notes, setNotes] = useState(site.notes);
  const [isAsked, setIsAsked] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const wanted = name.trim();
  const error =
    wanted === '' || wanted.length > TEXT_LIMITS.name
      ? `A name of 1 to ${TEXT_LIMITS.name} characters is needed.`
      : notes.length > TEXT_LIMITS.siteNotes
        ? `At most ${TEXT_LIMITS.siteNotes} characters of notes.`
        : null;
  const keep = (): void => {
    if (error !== null) return;
    if (wanted !== site.name || notes !== site.notes)
      dispatch(commandIssued({ kind: 'changeSite', changed: { name: wanted, notes } }));
    onClose();
  };
  const copy = async (): Promise<void> => {
    const names = (await listSites().catch(() => [])).map((one) => one.name);
    const other = freeName(site.name, [...names, site.name]);
    onClose();
    const id = newId('site');
    vault.copySite(site.id, id);
    await siteFile.open({ ...site, id, name: other }, `${other} copied from ${site.name}`);
  };
  const remove = async (): Promise<void> => {
    if (!(await leaveSite())) return setProblem(unkeptWords(site.name));
    try {
      await removeSite(site.id);
    } catch {
      return setProblem('The browser’s storage refuses to write: the site is unchanged.');
    }
    onClose();
    await navigate('/');
  };
  const { cameras, destinations, journal } = site;
  return (
    <DialogFrame title="This site" description="One customer’s place." isOpen onOpenChange={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <TextField label="Name" value={name} error={error} onChange={(event) => setName(event.target.value)} />
        <label className="flex flex-col text-small text-soft">
          Notes
          <textarea
            rows={4}
            value={notes}
            onChange={(event) => setNotes(event.target.value)}
            className="rounded-control border border-hair bg-paper px-2 py-1 text-base text-ink"
          />
        </label>
        {problem && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
        {isAsked ? (
          <span
            role="alertdialog"
            aria-label={`Remove ${site.name}`}
            className="flex flex-col gap-2 border-l-[3px] border-brick pl-3"
          >
            <span>
              {site.name} holds {sayMany(cameras.length, 'camera')}, {sayMany(destinations.length, 'destination')} and{' '}
              {sayMany(journal.length, 'entry', 'entries')} of its logbook. It is removed from the list, and can be
              restored from there.
            </span>
            <span className="flex flex-wrap gap-2">
              <Button onClick={() => setIsAsked(false)}>Keep {site.name}</Button>
              <Button className="text-brick" onClick={() => void remove()}>
                Remove it
              </Button>
            </span>
          </span>
        ) : (
          <span className="flex flex-wrap gap-2">
            <Button onClick={() => void copy()}>Copy this site</Button>
            <Button onClick={() => setIsAsked(true)}>Remove this site</Button>
            <span className="ml-auto flex gap-2">
              <Button onClick={onClose}>Cancel</Button>
              <Button kind="main" type="submit">
                Save
              </Button>
            </span>
          </span>
        )}
      </form>
      <RemovedSites onLeft={onClose} />
    </DialogFrame>
  );
}
