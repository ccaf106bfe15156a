import { Link as RouterLink, useParams } from 'react-router';
import { LINK_RANGES, type Link } from '../../../core/document/chapters/links/link.ts';
import { WIRE_SIZES_MM2 } from '../../../core/stations/power/power-numbers.ts';
import { linkLengthM } from '../../../core/stations/power/site-links.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { SelectField } from '../../ui/text-field.tsx';

/** Length and kind of a run. A drawn route says its own length; typing one puts the drawing aside. */
export function FeedLinkFields({ link }: { link: Link }) {
  const dispatch = useAppDispatch();
  const { siteId } = useParams();
  const change = (changed: Partial<Link>): void =>
    void dispatch(commandIssued({ kind: 'putLink', link: { ...link, ...changed } }));
  const isDrawn = link.route !== null && link.route.length > 1;
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
      <NumberField
        label="Length, m"
        value={linkLengthM(link)}
        range={LINK_RANGES.lengthM}
        hint={isDrawn ? `drawn on the plan${link.extraM > 0 ? `, with ${link.extraM} m more` : ''}` : 'typed'}
        onKeep={(lengthM) => change({ lengthM: lengthM ?? 0, route: null })}
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
        range={LINK_RANGES.conductorC}
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
