import { Link as RouterLink } from 'react-router';
import type { Link } from '../../../core/document/chapters/links/link.ts';
import { LINK_FIELDS } from '../../../core/document/chapters/links/link-fields.ts';
import { linkLength, sayLengthHow } from '../../../core/site/link-length.ts';
import { WIRE_SIZES_MM2 } from '../../../core/stations/power/index.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { SelectField } from '../../ui/text-field.tsx';

/** Length and kind of a run. A drawn route says its own length; typing one puts the drawing aside. */
export function FeedLinkFields({ link }: { link: Link }) {
  const dispatch = useAppDispatch();
  const siteId = useSiteId();
  const change = (changed: Partial<Link>): void =>
    void dispatch(commandIssued({ kind: 'putLink', link: { ...link, ...changed } }));
  const length = linkLength(useAppSelector(selectSite), link);
  const isDrawn = link.route !== null && link.route.length > 1;
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
      <NumberField
        label="Length, m"
        value={length?.lengthM ?? null}
        range={LINK_FIELDS.lengthM.range}
        digits={1}
        isOptional
        hint={
          length === null
            ? 'not known: type it, or place both ends on the plan'
            : `${sayLengthHow(length)}${isDrawn && link.extraM > 0 ? `, with ${link.extraM} m more` : ''}`
        }
        onKeep={(lengthM) => change({ lengthM, route: null })}
      />
      {link.medium !== 'network-cable' && (
        <SelectField
          label="Wire, mm²"
          value={String(link.areaMm2 ?? '')}
          onChange={(value) => change({ areaMm2: value === '' ? null : Number(value) })}
          options={[
            { value: '', label: 'as usual' },
            ...[...new Set([...WIRE_SIZES_MM2, ...(link.areaMm2 === null ? [] : [link.areaMm2])])]
              .sort((a, b) => a - b)
              .map((size) => ({ value: String(size), label: `${size}` })),
          ]}
        />
      )}
      <NumberField
        label="Warmest, °C"
        value={link.conductorC}
        range={LINK_FIELDS.conductorC.range}
        onKeep={(conductorC) => change({ conductorC: conductorC ?? 40 })}
      />
      <span className="col-span-2 flex flex-wrap gap-x-4 self-end md:col-span-4">
        <CheckField
          label="copper-clad aluminium"
          checked={link.isCopperClad}
          onChange={(event) => change({ isCopperClad: event.target.checked })}
        />
        <CheckField
          label="leaves the building"
          checked={link.leavesBuilding}
          onChange={(event) => change({ leavesBuilding: event.target.checked })}
        />
        <RouterLink
          to={`/site/${siteId}/plan?route=${link.id}`}
          className="inline-flex min-h-8 items-center font-strong text-verdigris hover:underline pointer-coarse:min-h-11"
        >
          {isDrawn ? 'Its route on the plan' : 'Draw its route'}&nbsp;→
        </RouterLink>
      </span>
    </div>
  );
}
