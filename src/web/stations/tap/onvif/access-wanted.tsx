import { Link } from 'react-router';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { stationPath } from '../../../store/station-path.ts';
import { useSiteId } from '../../../store/use-site-id.ts';
import { Button } from '../../../ui/button.tsx';
import type { DeviceAccess } from './use-device.ts';

const LOOK = 'font-strong text-verdigris hover:underline';

/** Why a device cannot be asked now, with the way to what is missing; nothing where it can. */
export function AccessWanted({ camera, access }: { camera: Camera; access: DeviceAccess }) {
  const siteId = useSiteId();
  if (access.request !== null) return null;
  const station = (name: 'tap' | 'prepare'): string => stationPath(siteId, camera.id, name);
  if (camera.host === '')
    return (
      <p className="self-center">
        It has no address yet.{' '}
        <Link to={station('tap')} className={LOOK}>
          Enter it at its stream
        </Link>
      </p>
    );
  if (access.isHeld)
    return (
      <p role="alert">
        The password of {access.account?.user ?? 'its account'} was typed for another address.{' '}
        <Button kind="quiet" onClick={() => void access.allow()}>
          Ask at {access.host}, port {access.port}
        </Button>
      </p>
    );
  return (
    <p role="alert">
      The password of {access.account?.user ?? 'its account'} is not here; without it a login would be wasted.{' '}
      {access.isLocked ? (
        <Button kind="quiet" onClick={access.unlock}>
          Unlock passwords
        </Button>
      ) : (
        <Link to={station(access.login === 'sets-up' ? 'prepare' : 'tap')} className={LOOK}>
          Type it at its {access.login === 'sets-up' ? 'accounts' : 'stream'}
        </Link>
      )}
    </p>
  );
}
