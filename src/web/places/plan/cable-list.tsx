import { memo, useDeferredValue, useMemo } from 'react';
import { linkSubject } from '../../../core/document/subject.ts';
import { thingsOf } from '../../../core/document/subjects.ts';
import { type LinkLength, lengthOf, sayLength } from '../../../core/site/link-length.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Panel } from '../../ui/panel.tsx';

interface CableListProps {
  readonly selected: string | null;
  readonly isRouting: boolean;
  readonly onSelect: (subject: string) => void;
  readonly onRoute: (linkId: string) => void;
}

/** Every cable with its length. A large site has hundreds: each row is drawn anew only with what it shows. */
export function CableList({ selected, isRouting, onSelect, onRoute }: CableListProps) {
  const links = useAppSelector((state) => selectSite(state).links);
  // Names may come a moment after where things stand: the list is long, and dragging waits for it.
  const site = useDeferredValue(useAppSelector(selectSite));
  const act = isRouting ? onRoute : onSelect;
  const chosen = selected?.startsWith('link:') ? selected : null;
  const rows = useMemo(() => {
    const things = new Map(thingsOf(site).map(({ subject, item }) => [subject, item]));
    return links
      .filter(({ medium }) => medium !== 'wifi')
      .map((link) => (
        <CableRow
          key={link.id}
          id={link.id}
          ends={link.name || `${things.get(link.from)?.name} – ${things.get(link.to)?.name}`}
          length={lengthOf(link, (subject) => things.get(subject)?.position ?? null, site.assumptions)}
          isSelected={chosen === linkSubject(link.id)}
          isRouting={isRouting}
          onAct={act}
        />
      ));
  }, [links, site, chosen, isRouting, act]);
  return (
    <Panel title="Cables" aside="a drawn cable has a measured length">
      <ul className="flex max-h-64 flex-col overflow-auto">
        {rows}
        {rows.length === 0 && <li className="text-soft">Select gear on the plan and link it to more.</li>}
      </ul>
    </Panel>
  );
}

interface CableRowProps {
  readonly id: string;
  readonly ends: string;
  readonly length: LinkLength | null;
  readonly isSelected: boolean;
  readonly isRouting: boolean;
  readonly onAct: (id: string) => void;
}

const CableRow = memo(function CableRow({ id, ends, length, isSelected, isRouting, onAct }: CableRowProps) {
  return (
    <li className="flex items-baseline gap-2 border-b border-hair py-1 last:border-b-0">
      <button
        type="button"
        aria-pressed={isSelected}
        onClick={() => onAct(isRouting ? id : linkSubject(id))}
        className={`flex-1 text-left hover:underline pointer-coarse:min-h-11 ${isSelected ? 'font-strong' : ''}`}
      >
        {ends}
      </button>
      <span className="font-mono text-small whitespace-nowrap">{length ? sayLength(length) : '–'}</span>
      <span className="w-14 text-right text-small text-soft">{length?.how ?? 'not known'}</span>
    </li>
  );
});
