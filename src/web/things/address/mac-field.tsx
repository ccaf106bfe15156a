import { useState } from 'react';
import { hasControl } from '../../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { parseMac } from '../../../core/net/mac.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { TextField } from '../../ui/text-field.tsx';

/** The hardware address of a camera, in whatever notation it was read; kept in one. */
export function MacField({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const { identity } = camera;
  const [typed, setTyped] = useState(identity.mac);
  const text = typed.trim();
  const read = text === '' ? null : parseMac(text);
  const error =
    text.length > TEXT_LIMITS.mac || hasControl(text)
      ? 'Six pairs of hexadecimal digits.'
      : text !== '' && !read
        ? 'Six pairs of 0 to 9 and A to F, such as 00:00:5e:00:53:21.'
        : null;
  const warning = read?.isGroup
    ? 'The address of a group: no device has such a one.'
    : read?.isLocal
      ? 'Made up by the device: it may be another one tomorrow.'
      : null;
  const keep = (): void => {
    const mac = read?.mac ?? text;
    // what is none is kept all the same, and judged so, unless it fits no field
    if (text.length <= TEXT_LIMITS.mac && !hasControl(text) && mac !== identity.mac)
      dispatch(commandIssued({ kind: 'setIdentity', cameraId: camera.id, identity: { ...identity, mac } }));
  };
  return (
    <TextField
      label="Hardware address"
      aria-label={`Hardware address of ${camera.name}`}
      isCode
      value={typed}
      error={error}
      warning={warning}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
      }}
    />
  );
}
