import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { boolean, type InferType, object, string } from 'yup';
import { err, ok, type Result } from '../../../core/base/result.ts';
import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../../../core/document/chapters/cameras/camera.ts';
import { accountFor } from '../../../core/document/stream-address.ts';
import { withLoginOut } from '../../../core/net/address-login.ts';
import { type AddressDraft, addressRemarks } from '../../../core/net/address-remarks.ts';
import { type CameraLine, lineOfScheme } from '../../../core/net/camera-line.ts';
import { DEFAULT_PORTS, pathAndQuery } from '../../../core/net/stream-url.ts';
import { parseStreamUrl } from '../../../core/net/stream-url-parser.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { nameField } from '../../ui/form-texts.ts';
import { boundTo } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';

/** An address, a whole URL or a host alone, with the login taken out of its path; or what stops it from being kept. */
function readAddress(typed: string): Result<AddressDraft & { readonly line: CameraLine }, string> {
  const text = typed.trim();
  const parsed = text.includes('://') ? parseStreamUrl(text) : null;
  if (parsed && !parsed.ok) return err(`${parsed.error.message}.`);
  const url = parsed?.value.url;
  const line = url ? lineOfScheme(url.scheme) : 'plain';
  // a page of a camera is no stream, and a tunnel is chosen by whoever knows of it
  if (line === null || line === 'tunnel') return err(`Expected rtsp:// or rtsps://, got ${url?.scheme}://.`);
  const login = withLoginOut({
    path: url ? pathAndQuery(url) : '',
    user: url?.user ?? '',
    secret: url?.password ?? '',
  });
  if (!login.ok) return login;
  const { path, user, secret } = login.value;
  const draft = { host: url?.host ?? text, port: String(url?.port ?? DEFAULT_PORTS.rtsp), path, user, secret };
  const remarks = addressRemarks(draft, { networks: [], workedPaths: [] });
  const stops = text === '' ? undefined : Object.values(remarks).find((remark) => remark.stops);
  return stops ? err(stops.text) : ok({ ...draft, line });
}

const schema = object({
  name: nameField('Give it the name of its place.'),
  address: string()
    .defined()
    .test('address', (value, context) => {
      const read = readAddress(value);
      return read.ok || context.createError({ message: read.error });
    }),
  isOldPhone: boolean().required(),
});

const { Field, Tick } = fieldsFor<InferType<typeof schema>>();

/** Adds a camera by its name and what is known of its address. */
export function AddCameraForm({ onAdded }: { onAdded: (cameraId: string, hangs: boolean) => void }) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const site = useAppSelector(selectSite);
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: { name: '', address: '', isOldPhone: false },
  });

  const add = ({ name, address, isOldPhone }: InferType<typeof schema>): void => {
    const read = readAddress(address);
    if (!read.ok) return; // the form has said so
    const { host, port, path, user, secret, line } = read.value;
    const id = newId('camera');
    const secretRef = `secret-${id}`;
    const camera: Camera = {
      id,
      name,
      place: '',
      kind: isOldPhone ? 'handset' : 'camera',
      modelId: null,
      host,
      ports: { rtsp: Number(port) },
      account: accountFor(user, [path], secretRef),
      streams: [{ id: newId('stream'), label: 'main', path, ...UNKNOWN_STREAM }],
      ...UNPLANNED,
      line,
    };
    if (secret !== '') vault.set(secretRef, secret, boundTo(site, camera, user));
    dispatch(commandIssued({ kind: 'addCamera', camera }));
    onAdded(id, camera.host !== '');
  };

  return (
    <Form form={form} onKeep={add} className="flex flex-col gap-3">
      <Field name="name" label="Name" isText placeholder="Landing stage" />
      <Field
        name="address"
        label="Stream URL or address"
        hint="Empty while it is not bought or not hung yet."
        placeholder="rtsp://10.77.4.22/live/main"
        isText
        isCode
      />
      <Tick name="isOldPhone" label="It is an old phone" />
      <Button kind="main" type="submit" className="self-end">
        Add
      </Button>
    </Form>
  );
}
