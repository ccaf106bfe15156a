import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { object, string } from 'yup';
import { addressRemarks } from '../../core/net/address-remarks.ts';
import { DEFAULT_PORTS, parseStreamUrl, pathAndQuery } from '../../core/net/stream-url.ts';
import type { Camera } from '../../core/site/site-types.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued } from '../store/site-slice.ts';
import { useAppDispatch } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/text-field.tsx';
import { useVault } from '../vault/vault-context.tsx';

/** What stops an address, a whole URL or a host alone, from being kept; `null` when nothing does. */
function problemOf(text: string): string | null {
  const parsed = text.includes('://') ? parseStreamUrl(text) : null;
  if (parsed && !parsed.ok) return `${parsed.error.message}.`;
  const url = parsed?.value.url;
  if (url && url.scheme !== 'rtsp') return `Expected rtsp://, got ${url.scheme}://.`;
  const draft = {
    host: url?.host ?? text,
    port: String(url?.port ?? DEFAULT_PORTS.rtsp),
    path: url ? pathAndQuery(url) : '',
    user: url?.user ?? '',
    secret: url?.password ?? '',
  };
  const remarks = addressRemarks(draft, { networks: [], workedPaths: [] });
  return Object.values(remarks).find((remark) => remark.stops)?.text ?? null;
}

const schema = object({
  name: string().trim().required('Give it the name of its place.').max(80, 'At most 80 characters.'),
  address: string()
    .required('A URL or an address is needed.')
    .test('address', (value, context) => {
      const problem = problemOf(value);
      return problem === null || context.createError({ message: problem });
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
    const path = url ? pathAndQuery(url) : '';
    const camera: Camera = {
      id,
      name,
      place: '',
      kind: 'camera',
      modelId: null,
      host: url?.host ?? address.trim(),
      ports: { rtsp: url?.port ?? DEFAULT_PORTS.rtsp },
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
