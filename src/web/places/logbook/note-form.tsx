import { useState } from 'react';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { subjectOptions } from './log-subjects.ts';

/** A line of one's own: what was seen, agreed, left for the next visit. What was written once stays. */
export function NoteForm({ about, onDone }: { about: string; onDone: () => void }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [subject, setSubject] = useState(about === '' ? 'site' : about);
  const [text, setText] = useState('');
  const wanted = text.trim();
  const error = wanted.length > TEXT_LIMITS.logText ? `At most ${TEXT_LIMITS.logText} characters.` : null;
  const write = (): void => {
    if (wanted === '' || error !== null) return;
    dispatch(commandIssued({ kind: 'note', logKind: 'note', subject, text: wanted }));
    onDone();
  };
  return (
    <form
      aria-label="Note"
      className="mb-4 grid gap-2 border border-hair bg-sheet p-3 md:grid-cols-[14rem_1fr_auto] md:items-end"
      onSubmit={(event) => {
        event.preventDefault();
        write();
      }}
    >
      <SelectField label="About" value={subject} onChange={setSubject} options={subjectOptions(site, 'the site')} />
      <label className="flex flex-col text-small text-soft">
        Note
        <textarea
          // biome-ignore lint/a11y/noAutofocus: it was just asked for
          autoFocus
          rows={2}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="rounded-control border border-hair bg-paper px-2 py-1 text-base text-ink"
        />
        {error && <span className="text-brick">{error}</span>}
      </label>
      <span className="flex gap-2">
        <Button onClick={onDone}>Cancel</Button>
        <Button kind="main" type="submit" disabled={wanted === '' || error !== null}>
          Save the note
        </Button>
      </span>
    </form>
  );
}
