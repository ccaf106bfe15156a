import { useState } from 'react';
import { hasControl } from '../../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { networkOfCamera } from '../../../core/document/site-networks.ts';
import { addressRemarks } from '../../../core/net/address-remarks.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { MacField } from '../../things/address/mac-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TextField } from '../../ui/text-field.tsx';

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
      <AddressFields key={`${camera.host} ${camera.ports.rtsp}`} camera={camera} />
      <h3 className="mt-3 mb-1 text-small">What stays of it, whatever its address</h3>
      <div className="grid grid-cols-1 items-start gap-x-3 gap-y-2 md:grid-cols-2">
        <MacField key={camera.identity.mac} camera={camera} />
        <IdentityField
          key={`serial ${camera.identity.serial}`}
          camera={camera}
          field="serial"
          label="Serial number"
          max={TEXT_LIMITS.serial}
        />
        <IdentityField
          key={`endpoint ${camera.identity.endpoint}`}
          camera={camera}
          field="endpoint"
          label="ONVIF identity"
          max={TEXT_LIMITS.endpoint}
          className="md:col-span-2"
        />
      </div>
      <p className="mt-2 text-small text-soft">
        Found by a look through the network, or read on its label. By one of these it is known again when its address
        has moved.
      </p>
    </Panel>
  );
}

function AddressFields({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { networks } = useAppSelector(selectSite);
  const [host, setHost] = useState(camera.host);
  const [port, setPort] = useState(String(camera.ports.rtsp));
  const remarks = addressRemarks({ host, port, path: '', user: '', secret: '' }, { networks, workedPaths: [] });
  const isEmpty = host.trim() === '' && camera.host === '';
  const keep = (): void => {
    if (isEmpty || remarks.host?.stops || remarks.port?.stops) return;
    const next = { host: host.trim(), port: Number(port.trim()) };
    if (next.host !== camera.host || next.port !== camera.ports.rtsp)
      dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, ...next }));
  };
  const said = (field: 'host' | 'port') => {
    const remark = isEmpty && field === 'host' ? undefined : remarks[field];
    return { error: remark?.stops ? remark.text : null, warning: remark && !remark.stops ? remark.text : null };
  };
  return (
    <form
      className="grid grid-cols-[1fr_96px] items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <TextField
        label="Host"
        isCode
        value={host}
        {...said('host')}
        onChange={(event) => setHost(event.target.value)}
        onBlur={keep}
      />
      <TextField
        label="Port"
        isCode
        inputMode="numeric"
        value={port}
        {...said('port')}
        onChange={(event) => setPort(event.target.value)}
        onBlur={keep}
      />
      <button type="submit" className="hidden">
        Keep
      </button>
    </form>
  );
}

interface IdentityFieldProps {
  readonly camera: Camera;
  readonly field: 'serial' | 'endpoint';
  readonly label: string;
  readonly max: number;
  readonly className?: string;
}

function IdentityField({ camera, field, label, max, className = '' }: IdentityFieldProps) {
  const dispatch = useAppDispatch();
  const [typed, setTyped] = useState(camera.identity[field]);
  const text = typed.trim();
  const error =
    text.length > max
      ? `At most ${max} characters.`
      : hasControl(text)
        ? 'A line end or another control sign stands in it.'
        : null;
  const keep = (): void => {
    if (error === null && text !== camera.identity[field])
      dispatch(
        commandIssued({ kind: 'setIdentity', cameraId: camera.id, identity: { ...camera.identity, [field]: text } }),
      );
  };
  return (
    <TextField
      label={label}
      isCode
      className={className}
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
