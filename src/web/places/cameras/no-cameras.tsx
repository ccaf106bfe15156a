import { useNavigate } from 'react-router';
import { startOf } from '../../stations/start-of.ts';
import { stationPath } from '../../store/station-path.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { AddCameraForm } from '../../things/camera/index.ts';
import { Drop } from '../../ui/drop.tsx';

/** A new site: what to do first, and the form for it. */
export function NoCameras() {
  const navigate = useNavigate();
  const siteId = useSiteId();
  return (
    <div className="mx-auto max-w-lg py-10">
      <p className="mb-3 flex gap-3">
        <Drop verdict="unknown" />
        <Drop verdict="unknown" />
      </p>
      <h1 className="text-title">Add the first camera</h1>
      <p className="mt-1 mb-4 text-soft">
        Paste its stream URL if you have one. Then probe it: Clear Tap reads the rest from the camera. Where no camera
        is mounted yet, name the place, and choose one.
      </p>
      <div className="border border-hair bg-sheet p-4">
        <AddCameraForm onAdded={(cameraId, hangs) => void navigate(stationPath(siteId, cameraId, startOf(hangs)))} />
      </div>
    </div>
  );
}
