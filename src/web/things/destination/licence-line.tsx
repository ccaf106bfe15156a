import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import { licenceCount, sayPacks } from '../../../core/site/licences.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Drop } from '../../ui/drop.tsx';

/** “Loft store: 4 of 3 licences, 1 × 1 licence for € 37”: the one count, wherever it stands. */
export function LicenceLine({ destination }: { destination: Destination }) {
  const site = useAppSelector(selectSite);
  const count = licenceCount(site, destination);
  if (!count) return null;
  const { used, included, purchase } = count;
  const isMissing = used > included;
  const packs = sayPacks(purchase, destination.seats?.packs ?? [], site.costing.currency);
  return (
    <span className="inline-flex flex-wrap items-center gap-x-1.5">
      <Drop verdict={!isMissing ? 'ok' : purchase ? 'tight' : 'will-not-work'} size={16} />
      {destination.name}:
      <b className="font-mono">
        {used} of {included}
      </b>{' '}
      licences
      {isMissing && (
        <span className="text-soft">
          , {purchase ? `${packs} more` : 'and no packs are entered that cover the others'}
        </span>
      )}
    </span>
  );
}
