import { hasControl } from '../../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { parseMac } from '../../../core/net/mac.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { KeptText } from '../../ui/kept-text.tsx';

/** What is none is kept all the same, and judged so, unless it fits no field. */
function remarkOf(text: string) {
  if (text === '') return null;
  const read = parseMac(text);
  const expected = 'Six pairs of 0 to 9 and A to F, such as 00:00:5e:00:53:21.';
  if (!read) return { stops: text.length > TEXT_LIMITS.mac || hasControl(text), text: expected };
  if (read.isGroup) return { stops: false, text: 'A multicast address: no device has it.' };
  return read.isLocal ? { stops: false, text: 'Random MAC address: it may change.' } : null;
}

/** The MAC address of a camera, in whatever notation it was read; kept in one. */
export function MacField({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { identity } = camera;
  const keep = (text: string): void => {
    const mac = parseMac(text)?.mac ?? text;
    if (mac !== identity.mac)
      dispatch(commandIssued({ kind: 'setIdentity', cameraId: camera.id, identity: { ...identity, mac } }));
  };
  return (
    <KeptText
      label="MAC address"
      name={`MAC address of ${camera.name}`}
      value={identity.mac}
      remarkOf={remarkOf}
      onKeep={keep}
    />
  );
}
