import { hasControl } from '../../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { addressRemarks } from '../../../core/net/address-remarks.ts';
import { networkOfCamera } from '../../../core/site/networks.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { HostField, MacField } from '../../things/address/index.ts';
import { KeptText } from '../../ui/kept-text.tsx';
import { Panel } from '../../ui/panel.tsx';

/** Where it is, and what stays of it when its address moves. */
export function PlacePanel({ camera }: { camera: Camera }) {
  const site = useAppSelector(selectSite);
  const network = networkOfCamera(site, camera);
  return (
    <Panel
      title="Its address"
      aside={
        network ? `in ${network.network.name}, ${network.network.cidr}` : camera.host === '' ? 'none yet' : undefined
      }
    >
      <div className="grid grid-cols-[1fr_96px] items-start gap-2">
        <HostField camera={camera} label="Host" />
        <PortField camera={camera} />
      </div>
      <h3 className="mt-3 mb-1 text-small">Identity that does not change with its address</h3>
      <div className="grid grid-cols-1 items-start gap-x-3 gap-y-2 md:grid-cols-2">
        <MacField camera={camera} />
        <IdentityField camera={camera} field="serial" label="Serial number" max={TEXT_LIMITS.serial} />
        <IdentityField
          camera={camera}
          field="endpoint"
          label="ONVIF identity"
          max={TEXT_LIMITS.endpoint}
          className="md:col-span-2"
        />
      </div>
      <p className="mt-2 text-small text-soft">
        From a scan of the network, or from its label. The camera is recognised by any of these when its address has
        changed.
      </p>
    </Panel>
  );
}

function PortField({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { host } = camera;
  return (
    <KeptText
      label="Port"
      inputMode="numeric"
      value={String(camera.ports.rtsp)}
      remarkOf={(port) => addressRemarks({ host, port, path: '', user: '', secret: '' }, NOTHING_AROUND).port}
      onKeep={(port) =>
        void dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host, port: Number(port) }))
      }
    />
  );
}
const NOTHING_AROUND = { networks: [], workedPaths: [] };

interface IdentityFieldProps {
  readonly camera: Camera;
  readonly field: 'serial' | 'endpoint';
  readonly label: string;
  readonly max: number;
  readonly className?: string;
}

function IdentityField({ camera, field, label, max, className = '' }: IdentityFieldProps) {
  const dispatch = useAppDispatch();
  const { identity } = camera;
  const problemOf = (text: string): string | null => {
    if (text.length > max) return `At most ${max} characters.`;
    return hasControl(text) ? 'A line break or another control character stands in it.' : null;
  };
  return (
    <KeptText
      label={label}
      className={className}
      value={identity[field]}
      remarkOf={(text) => {
        const problem = problemOf(text);
        return problem === null ? null : { stops: true, text: problem };
      }}
      onKeep={(text) =>
        void dispatch(
          commandIssued({ kind: 'setIdentity', cameraId: camera.id, identity: { ...identity, [field]: text } }),
        )
      }
    />
  );
}
