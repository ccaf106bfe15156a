import { useNavigate } from 'react-router';
import { selectLanes } from './lanes-slice.ts';
import { useAppSelector } from './store.ts';
import { useSiteId } from './use-site-id.ts';

/** Goes to the first camera, in the site's order, that is not done, at the station where it stands; `null` when all are. */
export function useNextStep(): (() => void) | null {
  const navigate = useNavigate();
  const siteId = useSiteId();
  const lane = useAppSelector(selectLanes).find(({ standsAt }) => standsAt !== null);
  return lane ? () => void navigate(`/site/${siteId}/camera/${lane.cameraId}/${lane.standsAt}`) : null;
}
