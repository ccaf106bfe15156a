import { Link } from 'react-router';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { mountingOf } from '../../../core/site/needs.ts';
import { STATION_PAGES } from '../../stations/registry.ts';
import { selectLanesById } from '../../store/lanes-slice.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { RangeField } from '../../ui/range-field.tsx';
import { useDraft } from '../../ui/use-draft.ts';

/** Where a camera looks, seen from above. */
export function CameraSide({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { assumptions } = useAppSelector(selectSite);
  const siteId = useSiteId();
  const lane = useAppSelector(selectLanesById)[camera.id];
  const mounting = mountingOf(camera, assumptions);
  const heading = useDraft(mounting.headingDeg, (headingDeg) => {
    if (headingDeg !== mounting.headingDeg)
      dispatch(commandIssued({ kind: 'setMounting', cameraId: camera.id, mounting: { ...mounting, headingDeg } }));
  });
  return (
    <div className="flex flex-col gap-2">
      <RangeField
        label="Direction"
        value={(heading.value + 360) % 360}
        min={0}
        max={355}
        step={5}
        said={`${(heading.value + 360) % 360}°`}
        onHold={heading.hold}
        onLetGo={heading.letGo}
      />
      <p className="text-small text-soft">
        0° to the right, clockwise. {mounting.heightM} m high, {mounting.tiltDownDeg}° down.
      </p>
      <span className="flex gap-4">
        {lane?.stations
          .filter(({ station }) => STATION_PAGES[station].isOnPlan)
          .map(({ station, name }) => (
            <Link
              key={station}
              to={stationPath(siteId, camera.id, station)}
              className="font-strong text-verdigris hover:underline"
            >
              {name}&nbsp;→
            </Link>
          ))}
      </span>
    </div>
  );
}
