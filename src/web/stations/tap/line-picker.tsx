import { capital } from '../../../core/base/say.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { CAMERA_LINES, type CameraLine, LINE_WORDS } from '../../../core/net/camera-line.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';

const TITLES: Readonly<Record<CameraLine, string>> = {
  plain: 'As nearly every camera works: readable on the network, except the password',
  tls: 'Encrypted (rtsps): its certificate is shown and judged',
  tunnel: 'For a device that offers RTSP over HTTP alone',
};

/** How RTSP comes from the camera; its other streams come the same way. */
export function LinePicker({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  return (
    <select
      aria-label="Connection"
      title={TITLES[camera.line]}
      value={camera.line}
      onChange={(event) => {
        const line = CAMERA_LINES.find((one) => one === event.target.value);
        if (line) dispatch(commandIssued({ kind: 'setLine', cameraId: camera.id, line }));
      }}
      className="h-8 rounded-sheet border border-hair bg-sheet px-1.5 text-small pointer-coarse:h-11"
    >
      {CAMERA_LINES.map((line) => (
        <option key={line} value={line}>
          {capital(LINE_WORDS[line])}
        </option>
      ))}
    </select>
  );
}
