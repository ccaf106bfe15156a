import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import type { OnvifReading } from '../../../../core/onvif/reading.ts';
import { loginLineOf, selectServer } from '../../../store/server-slice.ts';
import { useAppDispatch, useAppSelector } from '../../../store/store.ts';
import { askOneMore, TrustAct } from '../../../things/account/index.ts';
import { Button } from '../../../ui/button.tsx';
import { deviceRunner } from './device-runner.ts';
import type { DeviceAccess } from './use-device.ts';

interface ReadingActsProps {
  readonly camera: Camera;
  readonly access: DeviceAccess;
  readonly reading: OnvifReading | null;
}

/** What only a person decides after a reading: one login more, a new certificate. Nothing where none is asked. */
export function ReadingActs({ camera, access, reading }: ReadingActsProps) {
  const dispatch = useAppDispatch();
  const { logins } = useAppSelector(selectServer);
  const { request } = access;
  const isHeld = reading?.cause === 'login-held';
  const shown = reading?.cause === 'certificate-changed' ? (reading.tls?.fingerprint ?? null) : null;
  if (!request || (!isHeld && shown === null)) return null;
  const read = (more: Partial<typeof request>): void =>
    void deviceRunner.start(camera.id, { ...request, ...more }, dispatch);
  const user = request.user ?? '';
  const once = async (): Promise<void> => {
    if (await askOneMore(request.host, user, loginLineOf(logins, request.host, user))) read({ oneMore: true });
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 border-l-[3px] border-brass pl-3">
      {isHeld && <Button onClick={() => void once()}>Log in once more</Button>}
      {shown !== null && (
        <TrustAct cameraId={camera.id} fingerprint={shown} onTrusted={() => read({ knownFingerprint: shown })} />
      )}
    </div>
  );
}
