import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { boolean, object, string } from 'yup';
import { addressRemarks } from '../../core/net/address-remarks.ts';
import { DEFAULT_PORTS, pathAndQuery } from '../../core/net/stream-url.ts';
import { parseStreamUrl } from '../../core/net/stream-url-parser.ts';
import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../../core/site/site-types.ts';
import { newId } from '../store/new-id.ts';
import { commandIssued } from '../store/site-slice.ts';
import { useAppDispatch } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { CheckField } from '../ui/check-field.tsx';
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
    .defined()
    .test('address', (value, context) => {
      const problem = value.trim() === '' ? null : problemOf(value);
      return problem === null || context.createError({ message: problem });
    }),
  isHandset: boolean().required(),
});

/** Adds a camera by its name and what is known of its address. */
export function AddCameraForm({ onAdded }: { onAdded: (cameraId: string, hangs: boolean) => void }) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const { register, handleSubmit, formState } = useForm({
    resolver: yupResolver(schema),
    defaultValues: { name: '', address: '', isHandset: false },
  });

  const add = handleSubmit(({ name, address, isHandset }) => {
    const parsed = parseStreamUrl(address);
    const url = parsed.ok ? parsed.value.url : null;
    const id = newId('camera');
    const secretRef = `secret-${id}`;
    if (url?.password) vault.set(secretRef, url.password);
    const path = url ? pathAndQuery(url) : '';
    const camera: Camera = {
      id,
      name,
      place: '',
      kind: isHandset ? 'handset' : 'camera',
      modelId: null,
      host: url?.host ?? address.trim(),
      ports: { rtsp: url?.port ?? DEFAULT_PORTS.rtsp },
      account: url?.user ? { user: url.user, secretRef } : null,
      streams: [{ id: newId('stream'), label: 'main', path, ...UNKNOWN_STREAM }],
      ...UNPLANNED,
    };
    dispatch(commandIssued({ kind: 'addCamera', camera }));
    onAdded(id, camera.host !== '');
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
        hint="Empty while it is not bought or not hung yet."
        placeholder="rtsp://10.77.4.22/live/main"
        isCode
        error={formState.errors.address?.message}
        {...register('address')}
      />
      <CheckField label="It is an old handset" {...register('isHandset')} />
      <Button kind="main" type="submit" className="self-end">
        Add
      </Button>
    </form>
  );
}
