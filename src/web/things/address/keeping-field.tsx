import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { KEEPINGS } from '../../../core/document/chapters/cameras/identity.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { SelectField } from '../../ui/text-field.tsx';
import { KEEPING_WORDS } from './keeping-words.ts';

/** How a camera's address stays, as one choice in a list. */
export function KeepingField({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  return (
    <SelectField
      label="Address assignment"
      name={`Address assignment of ${camera.name}`}
      value={camera.keeping ?? ''}
      onChange={(value) =>
        void dispatch(
          commandIssued({
            kind: 'setKeeping',
            cameraId: camera.id,
            keeping: KEEPINGS.find((keeping) => keeping === value) ?? null,
          }),
        )
      }
      options={[
        { value: '', label: 'not decided' },
        ...KEEPINGS.map((value) => ({ value, label: KEEPING_WORDS[value] })),
      ]}
    />
  );
}
