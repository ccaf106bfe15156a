import { Link } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { findingsAt } from '../../../core/lanes/lane-types.ts';
import { parseIpv4 } from '../../../core/net/ipv4.ts';
import { networkOfCamera } from '../../../core/site/networks.ts';
import { selectLanesById } from '../../store/lanes-slice.ts';
import { selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { HostField, KeepingField, MacField } from '../../things/address/index.ts';
import { Drop } from '../../ui/drop.tsx';
import { SEVERITY_TEXT } from '../../ui/finding-card.tsx';
import { Panel } from '../../ui/panel.tsx';

/** All cameras of a network, and those without an address, to be typed one after the other. */
export function AddressList({ network }: { network: Network }) {
  const site = useAppSelector(selectSite);
  const own = site.cameras.filter((camera) => {
    const of = networkOfCamera(site, camera);
    return of ? of.network.id === network.id : true;
  });
  const inOrder = own.toSorted(
    (a, b) => (parseIpv4(a.host) ?? Number.MAX_VALUE) - (parseIpv4(b.host) ?? Number.MAX_VALUE),
  );
  return (
    <Panel
      title="Cameras by address"
      aside={own.length === 0 ? undefined : 'cameras without an address here come last'}
    >
      {own.length === 0 ? (
        <p className="text-soft">No camera has an address in this network. Scan it, or add cameras at Cameras.</p>
      ) : (
        <ul>
          {inOrder.map((camera) => (
            <AddressRow key={camera.id} camera={camera} isHere={networkOfCamera(site, camera) !== null} />
          ))}
        </ul>
      )}
    </Panel>
  );
}

function AddressRow({ camera, isHere }: { camera: Camera; isHere: boolean }) {
  const siteId = useSiteId();
  const lane = useAppSelector(selectLanesById)[camera.id];
  const station = lane?.stations.find((one) => one.station === 'address');
  const worst = lane && findingsAt(lane, 'address').find(({ severity }) => severity !== 'note');
  return (
    <li className="grid grid-cols-2 items-start gap-x-3 gap-y-1 border-b border-grid py-2 last:border-b-0 md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)_minmax(0,3fr)_minmax(0,2fr)]">
      <span className="col-span-2 flex items-center gap-2 md:col-span-1 md:pt-5">
        <Drop verdict={station?.verdict ?? 'unknown'} />
        <span className="min-w-0">
          <Link to={stationPath(siteId, camera.id, 'address')} className="font-strong hover:underline">
            {camera.name}
          </Link>
          {worst ? (
            <span className={`block text-small ${SEVERITY_TEXT[worst.severity]}`}>{worst.title}</span>
          ) : (
            !isHere && (
              <span className="block text-small text-soft">
                {camera.host === '' ? 'no address yet' : 'in no network of this site'}
              </span>
            )
          )}
        </span>
      </span>
      <HostField camera={camera} label="Address" name={`Address of ${camera.name}`} />
      <MacField camera={camera} />
      <KeepingField camera={camera} />
    </li>
  );
}
