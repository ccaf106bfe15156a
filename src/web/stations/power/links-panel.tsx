import { Link as RouterLink } from 'react-router';
import { assumed } from '../../../core/assumptions/assumptions.ts';
import { between } from '../../../core/base/range.ts';
import { sayMany, sayRate } from '../../../core/base/say.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { readingOf } from '../../../core/document/chapters/journal/reading.ts';
import type { Link } from '../../../core/document/chapters/links/link.ts';
import { airSubject, cameraSubject, destinationSubject, gearSubject } from '../../../core/document/subject.ts';
import type { PowerJudge } from '../../../core/stations/power/index.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Joins, newLink, usualMedium } from '../../things/link/index.ts';
import { Drop } from '../../ui/drop.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';

/** The way of its pictures: what each destination draws, over which links, and what else shares them. */
export function LinksPanel({ camera, judge }: { camera: Camera; judge: PowerJudge }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const siteId = useSiteId();
  const subject = cameraSubject(camera.id);
  const draws = judge.links.drawsFrom(camera.id);
  const links = new Map<string, Link>();
  for (const { path } of draws) for (const link of path ?? []) links.set(link.id, link);
  const unjoined = new Set(draws.flatMap(({ path, destinationId }) => (path === null ? [destinationId] : [])));
  const uplink = site.links.find(
    ({ to, from, medium }) => (to === subject || from === subject) && medium !== 'pair' && medium !== 'usb',
  );
  const air = uplink?.medium === 'wifi' ? uplink : null;
  /** A signal is that of an access point, as this camera hears it. */
  const signalOf = ({ from, to }: Link): string => airSubject(from === subject ? to : from, subject);
  const joinTo = (gearId: string): void => {
    const gear = site.gear.find(({ id }) => id === gearId);
    if (!gear) return;
    const medium = usualMedium(gear, subject, undefined);
    const from = gearSubject(gearId);
    const link = uplink ? { ...uplink, from, to: subject, medium, route: null } : newLink(from, subject, medium);
    dispatch(commandIssued({ kind: 'putLink', link: { ...link, medium } }));
  };
  const joinable = site.gear.filter(({ kind }) => kind !== 'supply' && kind !== 'injector');
  return (
    <Panel title="Wi-Fi and links">
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <SelectField
          label="Linked to"
          value={uplink?.from.replace('gear:', '') ?? ''}
          onChange={joinTo}
          options={[
            ...(uplink && joinable.some(({ id }) => gearSubject(id) === uplink.from)
              ? []
              : [{ value: '', label: uplink ? judge.nameAt(uplink.from) : 'nothing yet' }]),
            ...joinable.map(({ id, name }) => ({ value: id, label: name })),
          ]}
        />
        {air && (
          <NumberField
            label="Signal there, dBm"
            value={judge.links.signalRead(air)}
            range={between(-110, -10, 'dBm')}
            isOptional
            hint="measured with a phone at the place"
            onKeep={(value) => void dispatch(commandIssued(readingOf(subject, signalOf(air), 'signalDbm', value)))}
          />
        )}
      </div>
      {air && <AirView link={air} judge={judge} />}
      {links.size > 0 && (
        <table className="mt-3 w-full text-small">
          <thead>
            <tr className="border-b border-hair text-left text-soft">
              <th className="py-1">Link</th>
              <th className="py-1 text-right">load, with headers</th>
              <th className="py-1 pl-2 text-right">of</th>
            </tr>
          </thead>
          <tbody>
            {[...links.values()].map((link) => {
              const load = judge.links.load(link);
              const sharers = new Set(
                judge.links
                  .drawsOn(link)
                  .filter(({ cameraId }) => cameraId !== camera.id)
                  .map(({ cameraId }) => judge.nameAt(cameraSubject(cameraId))),
              );
              return (
                <tr key={link.id} className="border-b border-hair align-top last:border-b-0">
                  <td className="py-1.5">
                    <span className="flex items-start gap-1.5">
                      <Drop verdict={load.verdict} size={14} label={VERDICT_WORDS[load.verdict]} />
                      <span>
                        {judge.nameAt(link.from)} – {judge.nameAt(link.to)}
                        {sharers.size > 0 && <span className="block text-soft">with {[...sharers].join(', ')}</span>}
                      </span>
                    </span>
                  </td>
                  <td
                    className="py-1.5 text-right font-mono whitespace-nowrap"
                    title={load.unknown > 0 ? `${sayMany(load.unknown, 'rate')} on it not known` : undefined}
                  >
                    {load.unknown > 0 ? '≥ ' : ''}
                    {load.mbps.toFixed(1)}
                  </td>
                  <td className="py-1.5 pl-2 text-right font-mono whitespace-nowrap">
                    {load.capacityMbps.toFixed(0)} Mbit/s
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {draws.length > 0 ? (
        <ul className="mt-3 flex flex-col gap-1 text-small">
          {draws.map(({ destinationId, use, kbps, how }) => (
            <li key={`${destinationId}-${use}`} className="flex items-center gap-1.5">
              {judge.nameAt(destinationSubject(destinationId))} to {use}:
              <span className="font-mono">{kbps === null ? 'rate not known' : sayRate(kbps)}</span>
              {how && (
                <KnownHowMark how={how} detail={how === 'assumed' ? 'modelled from its model card' : undefined} />
              )}
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-2 text-small text-soft">
          No destination yet: enter it in{' '}
          <RouterLink
            to={stationPath(siteId, camera.id, 'choose')}
            className="font-strong text-verdigris hover:underline"
          >
            what it must show
          </RouterLink>
          , or at Tap.
        </p>
      )}
      {[...unjoined].map((destinationId) => (
        <details key={destinationId} className="mt-2 border-l-[3px] border-brass pl-3">
          <summary className="w-fit py-0.5 font-strong">
            {judge.nameAt(destinationSubject(destinationId))}: no link leads there
          </summary>
          <Joins subject={destinationSubject(destinationId)} />
        </details>
      ))}
    </Panel>
  );
}

/** One radio link and its channel: what arrives, and how much of the air all of it takes. */
function AirView({ link, judge }: { link: Link; judge: PowerJudge }) {
  const { assumptions } = useAppSelector(selectSite);
  const state = judge.links.radio(link);
  const ap = link.from;
  const total = judge.links.airtimeOf(ap);
  const shown = judge.links.airOf(ap);
  const neighbours = judge.links.onSameChannel(ap);
  const [okTo, tightTo] = [assumed(assumptions, 'air.airtime-ok'), assumed(assumptions, 'air.airtime-tight')];
  const verdict = judge.links.airVerdictOf(ap);
  let before = 0;
  return (
    <div className="mt-3">
      <p className="flex flex-wrap items-center gap-1.5">
        <span className="text-soft">arrives</span>
        <span className="font-mono">{state.rssiDbm === null ? 'not known' : `${Math.round(state.rssiDbm)} dBm`}</span>
        <KnownHowMark how={state.how} detail={state.how === 'assumed' ? 'distance and walls of the plan' : undefined} />
        {state.rssiDbm === null && (
          <span className="text-small text-soft">place both on the plan, or measure it there</span>
        )}
      </p>
      <p className="mt-1 flex flex-wrap items-center gap-1.5">
        <Drop verdict={verdict} size={16} label={VERDICT_WORDS[verdict]} />
        <span>{judge.nameAt(ap)}</span>
        <span className="font-mono">
          {verdict === 'unknown' ? '≥ ' : ''}
          {Number.isFinite(total) ? `${Math.round(total * 100)} %` : 'more than all'}
        </span>
        <span className="text-soft">of its airtime is used</span>
      </p>
      <svg viewBox="0 0 400 42" className="block w-full">
        <title>{`Airtime of ${judge.nameAt(ap)}: ${Math.round(Math.min(total, 9.99) * 100)} %`}</title>
        <rect x="0" y="4" width="400" height="16" fill="none" stroke="var(--hair)" />
        {shown.map(({ link: other, share }) => {
          const x = Math.min(before, 1) * 400;
          before += share;
          const width = Math.max(0, Math.min(before, 1) * 400 - x);
          return (
            <rect
              key={other.id}
              x={x}
              y="4"
              width={width}
              height="16"
              fill={other === link ? 'var(--verdigris)' : 'var(--verdigris-wash)'}
              stroke="var(--sheet)"
            />
          );
        })}
        {[okTo, tightTo].map((limit) => (
          <g key={limit}>
            <line x1={limit * 400} x2={limit * 400} y1="0" y2="24" stroke="var(--brass)" strokeWidth="1.5" />
            <text x={limit * 400} y="38" textAnchor="middle" className="fill-soft text-[12px]">
              {Math.round(limit * 100)} %
            </text>
          </g>
        ))}
      </svg>
      <p className="text-small text-soft">
        {shown
          .filter(({ share }) => share > 0)
          .map(
            ({ station, share }) =>
              `${judge.nameAt(station)} ${Number.isFinite(share) ? `${Math.round(share * 100)} %` : 'no rate'}`,
          )
          .join(' · ')}
      </p>
      {neighbours.length > 0 && (
        <p className="text-small text-soft">
          {neighbours.map((subject) => judge.nameAt(subject)).join(', ')} {neighbours.length === 1 ? 'is' : 'are'} on
          its channel: they share its airtime.
        </p>
      )}
    </div>
  );
}
