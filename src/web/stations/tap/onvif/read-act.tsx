import { useEffect, useState } from 'react';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { CAMERA_RANGES } from '../../../../core/document/chapters/cameras/camera.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { Button } from '../../../ui/button.tsx';
import { CheckField } from '../../../ui/check-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { SelectField } from '../../../ui/text-field.tsx';
import { AccessWanted } from './access-wanted.tsx';
import { deviceRunner } from './device-runner.ts';
import type { DeviceAccess, DeviceState, OnvifLogin } from './use-device.ts';

/** Source: RFC 9110 §4.2.2. */
const USUAL_TLS_PORT = 443;

const isLogin = (text: string): text is OnvifLogin => text === 'draws' || text === 'sets-up';

/** Where its ONVIF listens and who logs in. */
export function OnvifFields({ camera, access }: { camera: Camera; access: DeviceAccess }) {
  const dispatch = useAppDispatch();
  return (
    <div className="flex flex-wrap items-end gap-2">
      <CheckField
        label="With TLS"
        checked={camera.onvifTls}
        onChange={({ target: { checked: isTls } }) =>
          void dispatch(
            commandIssued({
              kind: 'setOnvifPort',
              cameraId: camera.id,
              port: isTls && camera.onvifPort === null ? USUAL_TLS_PORT : camera.onvifPort,
              isTls,
            }),
          )
        }
      />
      <NumberField
        label="ONVIF port"
        className="w-32"
        value={access.port}
        range={CAMERA_RANGES.rtspPort}
        onKeep={(port) => void dispatch(commandIssued({ kind: 'setOnvifPort', cameraId: camera.id, port }))}
      />
      {access.hasBoth && (
        <SelectField
          label="Logs in as"
          className="w-56"
          value={access.login}
          onChange={(value) => isLogin(value) && access.setLogin(value)}
          options={[
            { value: 'draws', label: `${camera.account?.user ?? ''}, streaming account` },
            { value: 'sets-up', label: `${camera.adminAccount?.user ?? ''}, set-up account` },
          ]}
        />
      )}
    </div>
  );
}

interface ReadActProps {
  readonly camera: Camera;
  readonly access: DeviceAccess;
  readonly device: DeviceState;
  readonly isMain?: boolean;
}

/** Reads the device, or stops reading. */
export function ReadAct({ camera, access, device, isMain = false }: ReadActProps) {
  const dispatch = useAppDispatch();
  const [isAsked, setIsAsked] = useState(false);
  const isRunning = device.run?.status === 'running';
  /** A press that was waiting for a person's yes: the request is there with the next render. */
  const [isWaiting, setIsWaiting] = useState(false);
  const { request } = access;
  useEffect(() => {
    if (!isWaiting || !request) return;
    setIsWaiting(false);
    void deviceRunner.start(camera.id, request, dispatch);
  }, [isWaiting, request, camera.id, dispatch]);
  const start = (): void => {
    if (request === null && access.isHeld) return void access.allow().then(setIsWaiting);
    setIsAsked(request === null);
    if (request) void deviceRunner.start(camera.id, request, dispatch);
  };
  if (isRunning) return <Button onClick={() => deviceRunner.cancel(camera.id)}>Stop reading</Button>;
  return (
    <>
      <Button kind={isMain ? 'main' : 'plain'} disabled={camera.host === ''} onClick={start}>
        {device.remembered ? 'Read it again' : 'Read it by ONVIF'}
      </Button>
      {(isAsked || (isMain && camera.host === '')) && <AccessWanted camera={camera} access={access} />}
    </>
  );
}

/** How a reading goes, or why it broke off. */
export function ReadProgress({ device }: { device: DeviceState }) {
  const { run } = device;
  if (!run) return null;
  if (run.status === 'broken')
    return (
      <p role="alert" className="border-l-[3px] border-brick pl-3">
        {run.message}
      </p>
    );
  if (run.status === 'cancelled') return <p className="text-small text-soft">Stopped; nothing was saved of it.</p>;
  if (run.status !== 'running') return null;
  const last = run.steps.at(-1);
  return (
    <p role="status" className="text-small text-soft">
      {run.steps.length} requests answered{last ? `, the last: ${last.name}` : ''}
    </p>
  );
}
