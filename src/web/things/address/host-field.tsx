import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { addressRemarks } from '../../../core/net/address-remarks.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { KeptText } from '../../ui/kept-text.tsx';

/** The address of a camera. One that it had may be taken away again: it has none then. */
export function HostField({ camera, label, name }: { camera: Camera; label: string; name?: string }) {
  const dispatch = useAppDispatch();
  const { networks } = useAppSelector(selectSite);
  const { rtsp: port } = camera.ports;
  return (
    <KeptText
      label={label}
      {...(name === undefined ? {} : { name })}
      value={camera.host}
      remarkOf={(host) =>
        host === ''
          ? null
          : addressRemarks({ host, port: String(port), path: '', user: '', secret: '' }, { networks, workedPaths: [] })
              .host
      }
      onKeep={(host) => void dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host, port }))}
    />
  );
}
