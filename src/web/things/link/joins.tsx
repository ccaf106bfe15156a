import { useState } from 'react';
import type { Gear } from '../../../core/document/chapters/gear/gear.ts';
import { LINK_MEDIA, type Link, type LinkMedium } from '../../../core/document/chapters/links/link.ts';
import { gearSubject } from '../../../core/document/subject.ts';
import { nameOfSubject } from '../../../core/document/subjects.ts';
import { linkLength, sayLength } from '../../../core/site/link-length.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { LinkDialog } from './link-dialog.tsx';
import { MEDIUM_WORDS } from './link-words.ts';
import { newLink } from './new-link.ts';

const DATA_MEDIA = LINK_MEDIA.filter((medium) => medium !== 'pair' && medium !== 'usb');

/** How things of these kinds are usually joined: a radio to what moves about, powerline to its other plug, else a cable. */
export function usualMedium(gear: Gear, subject: string, other: Gear | undefined): LinkMedium {
  if (gear.kind === 'access-point' && !subject.startsWith('gear:')) return 'wifi';
  if (gear.kind === 'powerline' && other?.kind !== 'switch' && other?.kind !== 'router') return 'powerline';
  return 'network-cable';
}

/** What one thing is joined to, and a way to join it to more: gear to gear, destinations to gear. */
export function Joins({ subject }: { subject: string }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [gearId, setGearId] = useState('');
  const [chosen, setChosen] = useState<LinkMedium | null>(null);
  const [edited, setEdited] = useState<Link | null>(null);
  const own = site.links.filter(({ from, to }) => from === subject || to === subject);
  const joined = new Set(own.flatMap(({ from, to }) => [from, to]));
  const joinable = site.gear.filter(
    ({ id, kind }) => gearSubject(id) !== subject && !joined.has(gearSubject(id)) && kind !== 'supply',
  );
  const gear = joinable.find(({ id }) => id === gearId);
  const self = site.gear.find(({ id }) => gearSubject(id) === subject);
  const medium = chosen ?? (gear ? usualMedium(gear, subject, self) : 'network-cable');
  const join = (): void => {
    if (!gear) return;
    dispatch(commandIssued({ kind: 'putLink', link: newLink(gearSubject(gear.id), subject, medium) }));
    setGearId('');
    setChosen(null);
  };
  return (
    <section aria-label="Linked to" className="flex flex-col gap-2">
      {own.length > 0 ? (
        <ul className="text-small">
          {own.map((link) => {
            const other = nameOfSubject(site, link.from === subject ? link.to : link.from);
            return (
              <li key={link.id} className="flex items-baseline gap-2 border-b border-hair py-1 last:border-b-0">
                <span className="flex-1">
                  {other}
                  {link.name && <span className="text-soft">, {link.name}</span>}
                </span>
                <span className="text-soft">
                  {MEDIUM_WORDS[link.medium]}
                  {link.medium === 'wifi' ? '' : `, ${sayLength(linkLength(site, link))}`}
                </span>
                <Button
                  kind="quiet"
                  className="text-small"
                  aria-label={`Edit the link to ${other}`}
                  onClick={() => setEdited(link)}
                >
                  Change
                </Button>
                <Button
                  kind="quiet"
                  className="text-small"
                  aria-label={`Unlink it from ${other}`}
                  onClick={() => dispatch(commandIssued({ kind: 'removeLink', linkId: link.id }))}
                >
                  Unlink
                </Button>
              </li>
            );
          })}
        </ul>
      ) : (
        <p className="text-small text-soft">Linked to nothing yet.</p>
      )}
      {joinable.length > 0 && (
        <div className="grid grid-cols-2 items-end gap-2">
          <SelectField
            label="Link it to"
            value={gear ? gearId : ''}
            onChange={(id) => {
              setGearId(id);
              setChosen(null);
            }}
            options={[
              { value: '', label: 'choose gear' },
              ...joinable.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
          {gear && (
            <>
              <SelectField
                label="By"
                value={medium}
                onChange={(value) => setChosen(DATA_MEDIA.find((one) => one === value) ?? null)}
                options={DATA_MEDIA.map((value) => ({ value, label: MEDIUM_WORDS[value] }))}
              />
              <Button className="col-span-2" onClick={join}>
                Link them
              </Button>
            </>
          )}
        </div>
      )}
      {edited && <LinkDialog link={edited} onClose={() => setEdited(null)} />}
    </section>
  );
}
