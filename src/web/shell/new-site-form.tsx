import { type FormEvent, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { TEXT_LIMITS } from '../../core/base/limits.ts';
import { withEditing } from '../store/edits.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued, selectSite, siteOpened } from '../store/site-slice.ts';
import { leaveSite, useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/text-field.tsx';
import { unkeptWords } from './open-site.ts';

/** Begins a site: it needs a name and nothing else. */
export function NewSiteForm({ onCreated }: { onCreated: () => void }) {
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);
  const dispatch = useAppDispatch();
  const open = useAppSelector(selectSite);
  const navigate = useNavigate();
  const isLeaving = useRef(false);
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const wanted = name.trim();
    if (wanted === '' || wanted.length > TEXT_LIMITS.name)
      return setError(`A name of 1 to ${TEXT_LIMITS.name} characters is needed.`);
    if (isLeaving.current) return; // a second press of Enter begins no second site
    isLeaving.current = true;
    const hasLeft = await leaveSite();
    isLeaving.current = false;
    if (!hasLeft) return setError(unkeptWords(open.name));
    const site = withEditing().emptySite(newId('site'), wanted);
    dispatch(siteOpened({ site, revision: null, isUnsaved: true }));
    dispatch(commandIssued({ kind: 'note', logKind: 'site', subject: 'site', text: `${wanted} created` }));
    onCreated();
    await navigate(`/site/${site.id}`);
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
      <TextField
        label="Name of the site"
        autoFocus
        value={name}
        error={error}
        onChange={(event) => setName(event.target.value)}
      />
      <Button kind="main" type="submit" className="self-end">
        Create
      </Button>
    </form>
  );
}
