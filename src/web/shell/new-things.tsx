import { useNavigate } from 'react-router';
import { startOf } from '../stations/start-of.ts';
import { selectSlip } from '../store/slip-slice.ts';
import { stationPath } from '../store/station-path.ts';
import { useAppSelector } from '../store/store.ts';
import { useSiteId } from '../store/use-site-id.ts';
import { AddCameraForm } from '../things/camera/index.ts';
import { DestinationDialog } from '../things/destination/index.ts';
import { GearDialog } from '../things/gear/index.ts';
import { DialogFrame } from '../ui/dialog-frame.tsx';

interface SlipProps {
  readonly onClose: () => void;
}

/** A camera from anywhere: then it is opened where it is worked on first. */
function NewCamera({ onClose }: SlipProps) {
  const navigate = useNavigate();
  const siteId = useSiteId();
  return (
    <DialogFrame
      title="Add a camera"
      description="Paste its stream URL, type its address, or only name the place; the rest can wait."
      isOpen
      onOpenChange={onClose}
    >
      <AddCameraForm
        onAdded={(cameraId, hangs) => {
          onClose();
          void navigate(stationPath(siteId, cameraId, startOf(hangs)));
        }}
      />
    </DialogFrame>
  );
}

/** What is made from anywhere, by the finder: the slip says which. */
export function NewThing({ onClose }: SlipProps) {
  const slip = useAppSelector(selectSlip);
  if (slip === 'camera') return <NewCamera onClose={onClose} />;
  if (slip === 'gear') return <GearDialog edited="new" onClose={onClose} />;
  return <DestinationDialog edited="new" onClose={onClose} onCreated={() => {}} />;
}
