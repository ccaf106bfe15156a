import { type ClipboardEvent, useEffect, useState } from 'react';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { workedPaths } from '../../../core/document/probe-evidence.ts';
import { accountFor } from '../../../core/document/stream-address.ts';
import { withLoginOut } from '../../../core/net/address-login.ts';
import { type AddressRemark, addressRemarks } from '../../../core/net/address-remarks.ts';
import { redactLogins, takeLoginOut } from '../../../core/net/path-login.ts';
import { asksForLogin } from '../../../core/net/path-places.ts';
import { encodeUserinfo, pathAndQuery, urlHost } from '../../../core/net/stream-url.ts';
import { parseStreamUrl, type UrlFaultCode } from '../../../core/net/stream-url-parser.ts';
import type { TransportChoice } from '../../../core/rtsp/client-types.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TextField } from '../../ui/text-field.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { UrlLine, type UrlPart } from '../../ui/url-line.tsx';
import { useVault } from '../../vault/vault-context.tsx';
import { CopyUrlMenu } from './copy-url-menu.tsx';
import { TransportPicker } from './transport-picker.tsx';

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
  'url.control-sign': 'There is a line end or another control sign in that URL. Copy it anew.',
  'url.bad-port': 'Its port is not between 1 and 65535.',
  'url.bad-authority':
    'Host and port of that URL cannot be told apart. A “/”, “?” or “#” in a secret must be encoded; type it into the field Secret.',
};

const SECRET_WORDS = {
  memory: 'The secret is kept for this visit only, shown to nobody.',
  open: 'The secret is kept sealed, shown to nobody.',
  unkept: 'The secret is not kept yet: it lasts for this visit.',
  locked: 'Secrets are locked: unlock them at the top, or type this one.',
  unknown: 'The secret is not known here.',
} as const;

const remarkProps = (remark: AddressRemark | undefined) => ({
  error: remark?.stops ? remark.text : null,
  warning: remark && !remark.stops ? remark.text : null,
});

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

  const networks = useAppSelector(selectSite).networks;
  const index = useAppSelector(selectIndex);
  const secretRef = camera.account?.secretRef ?? `secret-${camera.id}`;
  const hasSecret = secretDraft !== '' || vault.has(secretRef);
  const around = { networks, workedPaths: workedPaths(index, camera) };
  const known = vault.get(secretRef) ?? '';
  const remarksOf = (fields: Draft, ofSecret = secretDraft || known): ReturnType<typeof addressRemarks> => {
    const { secret, ...remarks } = addressRemarks({ ...fields, secret: ofSecret }, around);
    return secretDraft === '' || !secret ? remarks : { ...remarks, secret };
  };
  const remarks = remarksOf(draft);
  const isSound = Object.values(remarks).every((remark) => !remark.stops);

  /** Keeps what may be kept; a login that stands in the path goes to the vault, and a placeholder takes its place. */
  const keep = (next: Draft, ofSecret = secretDraft || known): void => {
    const on = remarksOf(next, ofSecret);
    const [host, port] = [next.host.trim(), next.port.trim()];
    if (!on.host?.stops && !on.port?.stops && (host !== saved.host || port !== saved.port))
      dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host, port: Number(port) }));
    const login = withLoginOut({ path: next.path.trim(), user: next.user, secret: ofSecret });
    const isKept = login.ok && !on.path?.stops;
    const { path, user } = isKept ? login.value : { path: saved.path, user: next.user };
    if (isKept && login.value.isTaken) {
      if (login.value.secret !== ofSecret) vault.set(secretRef, login.value.secret);
      setDraft({ ...next, path, user });
    }
    if (path !== saved.path)
      dispatch(commandIssued({ kind: 'setStreamPath', cameraId: camera.id, streamId: stream.id, path }));
    const paths = camera.streams.map((other) => (other.id === stream.id ? path : other.path));
    const account = accountFor(user, paths, secretRef);
    if (!on.user?.stops && account?.user !== camera.account?.user)
      dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account }));
  };
  const keepSecret = (): void => {
    if (remarks.secret?.stops) return;
    if (secretDraft !== '') vault.set(secretRef, secretDraft);
    setSecretDraft('');
  };
  // Locking leaves no secret on the page, not even one that was typed and not kept yet, nor one in a path that was refused.
  const isLocked = vault.state === 'locked';
  const savedPath = saved.path;
  useEffect(() => {
    if (!isLocked) return;
    setSecretDraft('');
    setDraft((now) => (takeLoginOut(now.path).kind === 'none' ? now : { ...now, path: savedPath }));
  }, [isLocked, savedPath]);

  const takeApart = (event: ClipboardEvent<HTMLElement>): void => {
    const text = event.clipboardData.getData('text').trim();
    if (!text.includes('://')) return;
    event.preventDefault();
    const parsed = parseStreamUrl(text);
    if (!parsed.ok) return setPasteProblem(PASTE_ADVICE[parsed.error.code]);
    const { url } = parsed.value;
    if (url.scheme !== 'rtsp') return setPasteProblem(PASTE_ADVICE['url.bad-scheme']);
    setPasteProblem(null);
    // What a pasted URL says of a login counts before what was there: in its account, or in its path.
    const ofPath = takeLoginOut(pathAndQuery(url));
    const own = ofPath.kind === 'login' && url.password === null ? ofPath : null;
    const pasted = { path: pathAndQuery(url), user: url.user ?? own?.user ?? draft.user };
    const login = withLoginOut({ ...pasted, secret: url.password ?? own?.secret ?? '' });
    if (!login.ok) return setPasteProblem(login.error);
    const { path, user, secret } = login.value;
    const next = { host: url.host, port: String(url.port), path, user };
    if (secret !== '' && secret.length <= TEXT_LIMITS.secret) vault.set(secretRef, secret);
    setDraft(next);
    keep(next, secret || undefined);
  };

  const field = (name: keyof Draft) => ({
    value: draft[name],
    ...remarkProps(remarks[name]),
    isCode: true,
    onChange: (event: { target: { value: string } }) => {
      setPasteProblem(null);
      setDraft({ ...draft, [name]: event.target.value });
    },
    onBlur: () => keep(draft),
  });

  const secretState = !hasSecret
    ? vault.state === 'locked'
      ? 'locked'
      : 'unknown'
    : vault.state === 'open' && !vault.keeps(secretRef)
      ? 'unkept'
      : vault.state;
  const isDefaultPort = draft.port === '554';
  // As it will be kept: a secret that is being typed into the path is drawn nowhere.
  const login = withLoginOut({ path: draft.path, user: draft.user, secret: secretDraft || known });
  const shownPath = login.ok ? login.value.path : redactLogins(draft.path);
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
    { name: 'path', text: shownPath === '' ? ' ' : shownPath },
  ];

  return (
    <Panel
      title={`${stream.label.charAt(0).toUpperCase()}${stream.label.slice(1)} stream, as it must be typed elsewhere`}
      actions={
        <>
          <TransportPicker value={transport} onChange={onTransport} />
          <CopyUrlMenu camera={camera} stream={stream} />
          <ThumbBar>
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
          </ThumbBar>
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
        <TextField label="Host" className="col-span-4 md:col-span-1" {...field('host')} />
        <TextField label="Port" inputMode="numeric" className="col-span-2 md:col-span-1" {...field('port')} />
        <TextField label="Path" className="col-span-6 md:col-span-1" {...field('path')} />
        <TextField label="Account" className="col-span-3 md:col-span-1" {...field('user')} />
        <TextField
          label="Secret"
          type="password"
          autoComplete="new-password"
          className="col-span-3 md:col-span-1"
          placeholder={vault.has(secretRef) ? MASK : draft.user === '' ? 'none' : 'type it'}
          value={secretDraft}
          {...remarkProps(remarks.secret)}
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
          `${isDefaultPort ? '554 is the usual port and is left out. ' : ''}${
            asksForLogin(draft.path) ? 'What stands in { } is filled in on the wire alone. ' : ''
          }Paste a whole URL into any field to take it apart. ${draft.user === '' ? '' : SECRET_WORDS[secretState]}`}
      </p>
    </Panel>
  );
}
