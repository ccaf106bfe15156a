import { DropdownMenu } from 'radix-ui';
import { type ClipboardEvent, useEffect, useState } from 'react';
import {
  buildStreamUrl,
  encodeUserinfo,
  parseStreamUrl,
  type UrlFaultCode,
  urlHost,
} from '../../../core/net/stream-url.ts';
import type { TransportChoice } from '../../../core/rtsp/client-types.ts';
import type { Camera, Stream } from '../../../core/site/site-types.ts';
import { streamUrlOf } from '../../../core/site/stream-address.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TextField } from '../../ui/text-field.tsx';
import { UrlLine, type UrlPart } from '../../ui/url-line.tsx';
import { copyWords, useCopy } from '../../ui/use-copy.ts';
import { useVault } from '../../vault/vault-context.tsx';

const MASK = '••••••••';

interface Draft {
  readonly host: string;
  readonly port: string;
  readonly path: string;
  readonly user: string;
}

const draftOf = (camera: Camera, stream: Stream): Draft => ({
  host: camera.host,
  port: String(camera.ports.rtsp),
  path: stream.path,
  user: camera.account?.user ?? '',
});

const PASTE_ADVICE: Readonly<Record<UrlFaultCode, string>> = {
  'url.no-scheme': 'That is no URL. It starts with rtsp://, then host, port and path.',
  'url.bad-scheme': 'Only rtsp:// URLs can be drawn here.',
  'url.whitespace-inside': 'There is a blank inside that URL. In a secret, type it into the field Secret.',
  'url.bad-port': 'Its port is not between 1 and 65535.',
  'url.bad-authority':
    'Host and port of that URL cannot be told apart. A “/”, “?” or “#” in a secret must be encoded; type it into the field Secret.',
};

function portError(port: string): string | null {
  return /^\d{1,5}$/.test(port) && Number(port) >= 1 && Number(port) <= 65_535 ? null : 'From 1 to 65535.';
}
function hostError(host: string): string | null {
  const wanted = host.trim();
  if (wanted === '') return 'An address is needed.';
  // Nothing but the host may come out of it: no port, no path, no account.
  const parsed = parseStreamUrl(`rtsp://${urlHost(wanted)}/`);
  const isHost = parsed.ok && parsed.value.url.host === wanted.toLowerCase() && parsed.value.url.path === '/';
  return isHost ? null : 'Expected an IPv4 or IPv6 address or a host name.';
}
function pathError(path: string): string | null {
  if (/[\s#]/.test(path)) return 'No blanks and no “#”: encode a blank as %20.';
  return path === '' || path.startsWith('/') ? null : 'It starts with “/”.';
}

interface AddressPanelProps {
  readonly camera: Camera;
  readonly stream: Stream;
  readonly isProbing: boolean;
  readonly transport: TransportChoice;
  readonly onTransport: (choice: TransportChoice) => void;
  /** Takes the fields as they stand, saved. */
  readonly onProbe: () => void;
  readonly onCancel: () => void;
}

/**
 * Host, port, path and account of a stream, and the URL they make, as it must be typed elsewhere. Typing shows at once;
 * leaving a field keeps it. A whole URL pasted into any field is taken apart.
 */
export function AddressPanel({
  camera,
  stream,
  isProbing,
  transport,
  onTransport,
  onProbe,
  onCancel,
}: AddressPanelProps) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const saved = draftOf(camera, stream);
  const [draft, setDraft] = useState(saved);
  const [secretDraft, setSecretDraft] = useState('');
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);
  const savedKey = JSON.stringify(saved);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the draft follows the document when that changes under it
  useEffect(() => setDraft(saved), [savedKey]);

  const errors = { host: hostError(draft.host), port: portError(draft.port), path: pathError(draft.path) };
  const isSound = Object.values(errors).every((error) => error === null);
  const secretRef = camera.account?.secretRef ?? `secret-${camera.id}`;
  const hasSecret = secretDraft !== '' || vault.has(secretRef);

  const keep = (next: Draft): void => {
    const { host, path } = { host: next.host.trim(), path: next.path };
    if (hostError(host) === null && portError(next.port) === null && (host !== saved.host || next.port !== saved.port))
      dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host, port: Number(next.port) }));
    if (pathError(path) === null && path !== saved.path)
      dispatch(commandIssued({ kind: 'setStreamPath', cameraId: camera.id, streamId: stream.id, path }));
    if (next.user !== saved.user) {
      const account = next.user === '' ? null : { user: next.user, secretRef };
      dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account }));
    }
  };
  const keepSecret = (): void => {
    if (secretDraft !== '') vault.set(secretRef, secretDraft);
    setSecretDraft('');
  };

  const takeApart = (event: ClipboardEvent<HTMLElement>): void => {
    const text = event.clipboardData.getData('text').trim();
    if (!text.includes('://')) return;
    event.preventDefault();
    const parsed = parseStreamUrl(text);
    if (!parsed.ok) return setPasteProblem(PASTE_ADVICE[parsed.error.code]);
    const { url } = parsed.value;
    if (url.scheme !== 'rtsp') return setPasteProblem(PASTE_ADVICE['url.bad-scheme']);
    setPasteProblem(null);
    const next = {
      host: url.host,
      port: String(url.port),
      path: `${url.path}${url.query === null ? '' : `?${url.query}`}`,
      user: url.user ?? draft.user,
    };
    setDraft(next);
    keep(next);
    if (url.password !== null) vault.set(secretRef, url.password);
  };

  const field = (name: keyof Draft) => ({
    value: draft[name],
    isCode: true,
    onChange: (event: { target: { value: string } }) => {
      setPasteProblem(null);
      setDraft({ ...draft, [name]: event.target.value });
    },
    onBlur: () => keep(draft),
  });

  const isDefaultPort = draft.port === '554';
  const parts: UrlPart[] = [
    { name: 'scheme', text: 'rtsp://' },
    ...(draft.user === ''
      ? []
      : [
          { name: 'account', text: encodeUserinfo(draft.user) },
          { name: 'colon', text: ':', isSign: true },
          { name: 'secret', text: hasSecret ? MASK : '?' },
          { name: 'at', text: '@', isSign: true },
        ]),
    { name: 'host', text: draft.host === '' ? '?' : urlHost(draft.host.trim()) },
    ...(isDefaultPort ? [] : [{ name: 'port', text: `:${draft.port}` }]),
    { name: 'path', text: draft.path === '' ? ' ' : draft.path },
  ];

  return (
    <Panel
      title={`${stream.label.charAt(0).toUpperCase()}${stream.label.slice(1)} stream, as it must be typed elsewhere`}
      actions={
        <>
          <TransportPicker value={transport} onChange={onTransport} />
          <CopyUrlMenu camera={camera} stream={stream} />
          {isProbing ? (
            <Button onClick={onCancel}>Cancel</Button>
          ) : (
            <Button
              kind="main"
              shortcut="P"
              disabled={!isSound}
              onClick={() => {
                keep(draft);
                keepSecret();
                onProbe();
              }}
            >
              Probe
            </Button>
          )}
        </>
      }
    >
      <UrlLine parts={parts} />
      <form
        className="mt-3 grid grid-cols-6 gap-x-2 gap-y-2 md:grid-cols-[3fr_72px_3fr_3fr_2fr]"
        onPaste={takeApart}
        onSubmit={(event) => {
          event.preventDefault();
          keep(draft);
          keepSecret();
        }}
      >
        <TextField label="Host" className="col-span-4 md:col-span-1" error={errors.host} {...field('host')} />
        <TextField
          label="Port"
          inputMode="numeric"
          className="col-span-2 md:col-span-1"
          error={errors.port}
          {...field('port')}
        />
        <TextField label="Path" className="col-span-6 md:col-span-1" error={errors.path} {...field('path')} />
        <TextField label="Account" className="col-span-3 md:col-span-1" {...field('user')} />
        <TextField
          label="Secret"
          type="password"
          autoComplete="new-password"
          className="col-span-3 md:col-span-1"
          placeholder={vault.has(secretRef) ? MASK : draft.user === '' ? 'none' : 'type it'}
          value={secretDraft}
          onChange={(event) => setSecretDraft(event.target.value)}
          onBlur={keepSecret}
          isCode
        />
        <button type="submit" className="hidden">
          Keep
        </button>
      </form>
      <p
        className={`mt-2 text-small ${pasteProblem ? 'text-brick' : 'text-soft'}`}
        role={pasteProblem ? 'alert' : undefined}
      >
        {pasteProblem ??
          `${isDefaultPort ? '554 is the usual port and is left out. ' : ''}Paste a whole URL into any field to take it apart. ${
            draft.user === ''
              ? ''
              : hasSecret
                ? 'The secret is kept for this visit only, shown to nobody.'
                : 'The secret is not known in this visit.'
          }`}
      </p>
    </Panel>
  );
}

const TRANSPORTS: readonly { value: TransportChoice; text: string; title: string }[] = [
  { value: 'auto', text: 'TCP, else UDP', title: 'TCP is asked for first; UDP when the camera refuses it' },
  { value: 'tcp', text: 'TCP', title: 'Inside the RTSP connection: passes firewalls, loses nothing on the way' },
  { value: 'udp', text: 'UDP', title: 'Beside the connection: shows what the network loses' },
];

function TransportPicker({ value, onChange }: { value: TransportChoice; onChange: (choice: TransportChoice) => void }) {
  return (
    <select
      aria-label="Transport"
      title={TRANSPORTS.find((one) => one.value === value)?.title}
      value={value}
      onChange={(event) => onChange(TRANSPORTS.find((one) => one.value === event.target.value)?.value ?? 'auto')}
      className="h-8 rounded-sheet border border-hair bg-sheet px-1.5 text-small pointer-coarse:h-11"
    >
      {TRANSPORTS.map((one) => (
        <option key={one.value} value={one.value}>
          {one.text}
        </option>
      ))}
    </select>
  );
}

function CopyUrlMenu({ camera, stream }: { camera: Camera; stream: Stream }) {
  const vault = useVault();
  const { outcome, copy } = useCopy();
  const url = streamUrlOf(camera, stream);
  const secret = camera.account ? vault.get(camera.account.secretRef) : null;
  const item =
    'flex min-h-8 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-verdigris-wash data-[disabled]:text-soft pointer-coarse:min-h-11';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>{copyWords(outcome, 'Copy')}</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="z-20 border border-ink bg-sheet py-1">
          <DropdownMenu.Item
            className={item}
            onSelect={() => void copy(buildStreamUrl({ ...url, user: null, password: null }))}
          >
            Without account
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={item}
            disabled={secret === null}
            onSelect={() => void copy(buildStreamUrl({ ...url, password: secret }))}
          >
            With account and secret
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
