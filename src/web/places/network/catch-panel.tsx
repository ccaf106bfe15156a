import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../../../core/document/chapters/cameras/devices.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { moveCommands } from '../../../core/document/moves.ts';
import type { OneCommand } from '../../../core/document/site-commands.ts';
import { bindCommands, cameraOfHost } from '../../../core/evidence/camera-of-host.ts';
import { type MatchedCamera, type MatchedHost, matchSeen } from '../../../core/evidence/seen-cameras.ts';
import { parseIpv4 } from '../../../core/net/ipv4.ts';
import type { SeenHost } from '../../../core/scan/seen.ts';
import { networkOfCamera } from '../../../core/site/networks.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import type { SweepOfNetwork } from './use-scan.ts';

/** What is work stands first: who moved, who is not known; then who is where he should be. */
const ORDER: readonly MatchedHost['state'][] = [
  'moved',
  'other-at-address',
  'double',
  'unproven',
  'new',
  'in-place',
  'destination',
  'gateway',
];

const STATE_WORDS: Readonly<Record<MatchedHost['state'], string>> = {
  'in-place': 'at its planned address',
  moved: 'moved',
  double: 'answers at two addresses',
  unproven: 'at its address, not identified',
  'other-at-address': 'different device at this address',
  destination: 'a destination of this site',
  gateway: 'the router',
  new: 'unknown here',
};
const STATE_TEXT: Readonly<Record<MatchedHost['state'], string>> = {
  'in-place': 'text-verdigris',
  moved: 'text-brass font-strong',
  double: 'text-brick font-strong',
  unproven: 'text-ink',
  'other-at-address': 'text-brick font-strong',
  destination: 'text-soft',
  gateway: 'text-soft',
  new: 'text-ink font-strong',
};
const BY_WORDS = {
  endpoint: 'by its ONVIF identity',
  serial: 'by its serial number',
  mac: 'by its MAC address',
} as const;

interface CatchPanelProps {
  readonly network: Network;
  readonly sweep: SweepOfNetwork;
}

/** The answers as they come in, each with the camera that it is. */
export function CatchPanel({ network, sweep }: CatchPanelProps) {
  const site = useAppSelector(selectSite);
  const { hosts } = sweep;
  const matched = useMemo(() => matchSeen(site, hosts), [site, hosts]);
  const rows = matched.hosts.toSorted(
    (a, b) =>
      ORDER.indexOf(a.state) - ORDER.indexOf(b.state) || (parseIpv4(a.host.host) ?? 0) - (parseIpv4(b.host.host) ?? 0),
  );
  const isOver = sweep.running?.status !== 'running';
  const missing = isOver
    ? matched.cameras.filter(
        ({ camera, state }) => state === 'missing' && networkOfCamera(site, camera)?.network.id === network.id,
      )
    : [];
  const summary = sweep.running?.summary;
  return (
    <Panel
      title="Devices found"
      aside={
        summary
          ? `${sayMany(hosts.length, 'address', 'addresses')} in ${summary.seconds.toFixed(1)} s${summary.isCancelled ? ', stopped early' : ''}${summary.leftOut > 0 ? `; ${summary.leftOut} more not listed` : ''}`
          : sayMany(hosts.length, 'address', 'addresses')
      }
      actions={<FollowAll matched={matched.cameras} />}
    >
      <ul>
        {rows.map((row) => (
          <CatchRow key={row.host.host} row={row} />
        ))}
      </ul>
      {missing.length > 0 && (
        <section aria-label="Missing" className="mt-3 border-l-[3px] border-brass pl-3">
          <h3 className="text-base">Missing</h3>
          <ul>
            {missing.map(({ camera }) => (
              <li key={camera.id}>
                <b>{camera.name}</b> <span className="font-mono text-small">{camera.host}</span>
                <span className="text-soft"> did not respond, and no device found is known to be it</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Panel>
  );
}

const followCommands = (cameras: readonly MatchedCamera[]): readonly OneCommand[] =>
  cameras.flatMap(({ camera, hosts: [host] }) => (host ? moveCommands([camera], host.host) : []));

/** All that moved are followed in one edit; which taps that breaks, and mends, is said beside it. */
function FollowAll({ matched }: { matched: readonly MatchedCamera[] }) {
  const dispatch = useAppDispatch();
  const { taps } = useAppSelector(selectSite);
  const moved = matched.filter(({ state }) => state === 'moved');
  if (moved.length === 0) return null;
  const ids = new Set(moved.map(({ camera }) => camera.id));
  const broken = taps.filter(({ cameraId }) => ids.has(cameraId)).length;
  return (
    <Button
      kind="main"
      isSentence
      onClick={() =>
        void dispatch(
          commandIssued({
            kind: 'many',
            what: `${sayMany(moved.length, 'camera')}: ${moved.length === 1 ? 'new address' : 'new addresses'} taken over`,
            commands: followCommands(moved),
          }),
        )
      }
    >
      Take over {sayMany(moved.length, 'camera')}:{' '}
      {broken === 0 ? 'no tap affected' : `${sayMany(broken, 'tap')} broken`}
    </Button>
  );
}

function CatchRow({ row }: { row: MatchedHost }) {
  const siteId = useSiteId();
  const { host, cameras, state, by } = row;
  const name = cameras.map((camera) => camera.name).join(', ');
  const [first] = cameras;
  return (
    <li className="grid grid-cols-1 gap-x-3 gap-y-0.5 border-b border-grid py-2 last:border-b-0 md:grid-cols-[180px_minmax(0,3fr)_minmax(0,3fr)_250px]">
      <span className="font-mono">
        {host.host}
        <span className="block text-small text-soft">{host.mac || 'no MAC address'}</span>
      </span>
      <span className="min-w-0">
        {saidOf(host)}
        <span className="block font-mono text-small break-words text-soft">{doorsOf(host)}</span>
        {oddOf(host).map((odd) => (
          <span key={odd} className="block text-small text-brass">
            {odd}
          </span>
        ))}
      </span>
      <span className="min-w-0">
        <span className={STATE_TEXT[state]}>{STATE_WORDS[state]}</span>
        {first && (
          <span className="block text-small">
            <Link to={stationPath(siteId, first.id, 'address')} className="font-strong hover:underline">
              {name}
            </Link>
            {by && <span className="text-soft">, known {BY_WORDS[by]}</span>}
            {state === 'moved' && <span className="text-soft">, planned at {first.host || 'no address'}</span>}
          </span>
        )}
      </span>
      <CatchActs row={row} />
    </li>
  );
}

const saidOf = ({ name, hardware, doors }: SeenHost): string => {
  const title = doors.find((door) => door.title !== '')?.title ?? '';
  const said = [name, hardware || title].filter((text, at, all) => text !== '' && all.indexOf(text) === at);
  return said.join(' · ') || (doors.length === 0 ? 'there, accepts no connection' : 'no name');
};
const doorsOf = ({ doors }: SeenHost): string =>
  doors.map(({ port, is, server }) => `${port} ${is}${server ? ` (${server})` : ''}`).join(', ');
const oddOf = ({ answersAll, endpoints, alsoAt, doors }: SeenHost): readonly string[] => [
  ...(answersAll ? ['Accepts every connection: its answers prove little.'] : []),
  ...(endpoints.length > 1 ? [`${endpoints.length} ONVIF identities answer from here.`] : []),
  ...(alsoAt.length > 0 ? [`Reports ${alsoAt.join(', ')} as its own address.`] : []),
  ...(doors.some(({ isSlow }) => isSlow) ? ['Slow to answer.'] : []),
];

/** One act makes a camera of an answer, or says which planned one it is. */
function CatchActs({ row: { host, cameras, state } }: { row: MatchedHost }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [isAsked, setIsAsked] = useState(false);
  const bind = (camera: Camera): void => {
    const all = site.cameras.filter((other) => isDeviceOf(camera, other));
    void dispatch(
      commandIssued({
        kind: 'many',
        what: `${camera.name} is what answers at ${host.host}`,
        commands: all.flatMap((one) => bindCommands(one, host)),
      }),
    );
  };
  const [first] = cameras;
  if (state === 'moved' && first)
    return (
      <span className="md:text-right">
        <Button
          aria-label={`Take over the new address of ${first.name}`}
          onClick={() =>
            void dispatch(
              commandIssued({
                kind: 'many',
                what: `${first.name}: new address ${host.host} taken over`,
                commands: moveCommands(cameras, host.host),
              }),
            )
          }
        >
          Take over the new address
        </Button>
      </span>
    );
  const staysTheSame = host.mac !== '' || host.serial !== '' || host.endpoints.length > 0;
  if (state === 'unproven' && first && !staysTheSame)
    return <span className="text-small text-soft md:text-right">no fixed identity known</span>;
  if (state === 'unproven' && first)
    return (
      <span className="md:text-right">
        <Button onClick={() => bind(first)}>It is {first.name}</Button>
      </span>
    );
  if (state !== 'new' && state !== 'other-at-address') return <span />;
  const free = site.cameras.filter(
    ({ identity }) => identity.mac === '' && identity.endpoint === '' && identity.serial === '',
  );
  const others = free.length > 0 ? free : site.cameras;
  const said = saidOf(host).toLowerCase();
  const namesake = others.find(({ name }) => said.split(' · ').includes(name.toLowerCase()));
  if (namesake)
    return (
      <span className="md:text-right">
        <Button onClick={() => bind(namesake)}>It is {namesake.name}</Button>
      </span>
    );
  return (
    <span className="flex flex-wrap items-start gap-2 md:justify-end">
      {state === 'new' && (
        <Button
          aria-label={`Make a camera of ${host.host}`}
          onClick={() => void dispatch(commandIssued({ kind: 'addCamera', camera: cameraOfHost(site, host, newId) }))}
        >
          Make a camera of it
        </Button>
      )}
      {site.cameras.length > 0 &&
        (isAsked ? (
          <select
            // biome-ignore lint/a11y/noAutofocus: it takes the place of the button that was pressed
            autoFocus
            aria-label={`${host.host} is`}
            defaultValue=""
            className="min-h-7 rounded-control border border-hair bg-paper px-2 pointer-coarse:min-h-11"
            onChange={(event) => {
              const camera = site.cameras.find(({ id }) => id === event.target.value);
              if (camera) bind(camera);
            }}
          >
            <option value="">which one?</option>
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        ) : (
          <Button aria-label={`${host.host} is one of the cameras`} onClick={() => setIsAsked(true)}>
            It is…
          </Button>
        ))}
    </span>
  );
}
