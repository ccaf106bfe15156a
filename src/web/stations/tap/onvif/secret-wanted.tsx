import { Link } from 'react-router';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { useSiteId } from '../../../store/use-site-id.ts';
import { Button } from '../../../ui/button.tsx';
import type { DeviceAccess } from './use-device.ts';

/** Why a device cannot be asked now, with the way to what is missing; nothing where it can. */
export function SecretWanted({ camera, access }: { camera: Camera; access: DeviceAccess }) {
  const siteId = useSiteId();
  if (access.request !== null) return null;
  if (camera.host === '') return <p role="alert">It has no address yet.</p>;
  return (
    <p role="alert">
      The secret of {access.account?.user ?? 'its account'} is not here; without it one try at the login would be spent
      on nothing.{' '}
      {access.isLocked ? (
        <Button kind="quiet" onClick={access.unlock}>
          Unlock secrets
        </Button>
      ) : (
        <Link
          to={
            access.login === 'sets-up'
              ? `/site/${siteId}/camera/${camera.id}/prepare`
              : `/site/${siteId}/camera/${camera.id}/tap`
          }
          className="font-strong text-verdigris hover:underline"
        >
          Type it at its {access.login === 'sets-up' ? 'accounts' : 'stream'}
        </Link>
      )}
    </p>
  );
}
