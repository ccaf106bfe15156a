import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { object, string } from 'yup';
import { parseStreamUrl } from '../../core/net/stream-url.ts';
import type { Camera } from '../../core/site/site-types.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued } from '../store/site-slice.ts';
import { useAppDispatch } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/text-field.tsx';
import { useVault } from '../vault/vault-context.tsx';

const DEFAULT_RTSP_PORT = 554;

const schema = object({
  name: string().trim().required('Give it the name of its place.').max(80, 'At most 80 characters.'),
  address: string()
    .required('A URL or an address is needed.')
    .test('address', (value, context) => {
      if (!value.includes('://'))
        return (
          /^[A-Za-z0-9.\-:[\]]+$/.test(value.trim()) ||
          context.createError({ message: 'Expected a URL such as rtsp://host:port/path, or a host.' })
        );
      const parsed = parseStreamUrl(value);
      if (!parsed.ok) return context.createError({ message: `${parsed.error.message}.` });
      return (
        parsed.value.url.scheme === 'rtsp' ||
        context.createError({ message: `Expected rtsp://, got ${parsed.value.url.scheme}://.` })
      );
    }),
});

/** Adds a camera by its name and what is known of its address. */
export function AddCameraForm({ onAdded }: { onAdded: (cameraId: string) => void }) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const { register, handleSubmit, formState } = useForm({
    resolver: yupResolver(schema),
    defaultValues: { name: '', address: '' },
  });

  const add = handleSubmit(({ name, address }) => {
    const parsed = parseStreamUrl(address);
    const url = parsed.ok ? parsed.value.url : null;
    const id = newId('camera');
    const secretRef = `secret-${id}`;
    if (url?.password) vault.set(secretRef, url.password);
    const stream = { codec: null, width: null, height: null, fps: null, gopFrames: null, bitrateKbps: null };
    const path = url ? `${url.path}${url.query === null ? '' : `?${url.query}`}` : '';
    const camera: Camera = {
      id,
      name,
      place: '',
      kind: 'camera',
      modelId: null,
      host: url?.host ?? address.trim(),
      ports: { rtsp: url?.port ?? DEFAULT_RTSP_PORT },
      account: url?.user ? { user: url.user, secretRef } : null,
      streams: [{ id: newId('stream'), label: 'main', path, ...stream }],
    };
    dispatch(commandIssued({ kind: 'addCamera', camera }));
    onAdded(id);
  });

  return (
    <form onSubmit={(event) => void add(event)} className="flex flex-col gap-3" noValidate>
      <TextField
        label="Name"
        placeholder="Landing stage"
        error={formState.errors.name?.message}
        {...register('name')}
      />
      <TextField
        label="Stream URL or address"
        placeholder="rtsp://10.77.4.22/live/main"
        isCode
        error={formState.errors.address?.message}
        {...register('address')}
      />
      <Button kind="main" type="submit" className="self-end">
        Add
      </Button>
    </form>
  );
}
