import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { networkOfCamera } from '../../../core/document/site-networks.ts';
import { findingsAt } from '../../../core/lanes/lane-types.ts';
import { addressRemarks } from '../../../core/net/address-remarks.ts';
import { parseIpv4 } from '../../../core/net/ipv4.ts';
import { selectLanesById } from '../../store/lanes-slice.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { KeepingField } from '../../things/address/keeping-field.tsx';
import { MacField } from '../../things/address/mac-field.tsx';
import { Drop } from '../../ui/drop.tsx';
import { SEVERITY_TEXT } from '../../ui/finding-card.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TextField } from '../../ui/text-field.tsx';

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
    <Panel title="Cameras by address" aside={own.length === 0 ? undefined : 'those without an address here stand last'}>
      {own.length === 0 ? (
        <p className="text-soft">No camera has an address in this network. Find them, or add them at Round.</p>
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
  const { siteId } = useParams();
  const lane = useAppSelector(selectLanesById)[camera.id];
  const station = lane?.stations.find((one) => one.station === 'address');
  const worst = lane && findingsAt(lane, 'address').find(({ severity }) => severity !== 'note');
  return (
    <li className="grid grid-cols-2 items-start gap-x-3 gap-y-1 border-b border-grid py-2 last:border-b-0 md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)_minmax(0,3fr)_minmax(0,2fr)]">
      <span className="col-span-2 flex items-center gap-2 md:col-span-1 md:pt-5">
        <Drop verdict={station?.verdict ?? 'unknown'} />
        <span className="min-w-0">
          <Link to={`/site/${siteId}/camera/${camera.id}/address`} className="font-strong hover:underline">
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
      <HostField key={camera.host} camera={camera} />
      <MacField key={camera.identity.mac} camera={camera} />
      <KeepingField camera={camera} />
    </li>
  );
}

/** The address alone, as it is typed in a list. */
function HostField({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const [typed, setTyped] = useState(camera.host);
  const host = typed.trim();
  const remark =
    host === '' && camera.host === ''
      ? undefined
      : addressRemarks(
          { host: typed, port: String(camera.ports.rtsp), path: '', user: '', secret: '' },
          { networks: [], workedPaths: [] },
        ).host;
  const error = remark?.stops ? remark.text : null;
  const keep = (): void => {
    if (error === null && host !== camera.host)
      dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host, port: camera.ports.rtsp }));
  };
  return (
    <TextField
      label="Address"
      aria-label={`Address of ${camera.name}`}
      isCode
      value={typed}
      error={error}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
      }}
    />
  );
}
