import { type ClipboardEvent, useEffect, useState } from 'react';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { accountFor } from '../../../core/document/stream-address.ts';
import { workedPaths } from '../../../core/evidence/worked-paths.ts';
import { withLoginOut } from '../../../core/net/address-login.ts';
import { addressRemarks } from '../../../core/net/address-remarks.ts';
import { lineOfScheme } from '../../../core/net/camera-line.ts';
import { redactLogins, takeLoginOut } from '../../../core/net/path-login.ts';
import { pathAndQuery } from '../../../core/net/stream-url.ts';
import { parseStreamUrl, type UrlFaultCode } from '../../../core/net/stream-url-parser.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { passwordAt } from '../../things/account/index.ts';
import { boundTo, placesOf, rtspPlace } from '../../vault/camera-places.ts';
import { sayPlaces } from '../../vault/say-places.ts';
import { useVault } from '../../vault/vault-context.tsx';

export interface Draft {
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
  'url.no-scheme': 'That is not a URL. It starts with rtsp://, then host, port and path.',
  'url.bad-scheme':
    'Only rtsp:// and rtsps:// URLs can be pulled here. For RTSP over HTTP, choose that connection first.',
  'url.whitespace-inside': 'There is a space in the host or the account of that URL. Type it into the fields.',
  'url.control-sign': 'There is a line break or another control character in that URL. Copy it again.',
  'url.bad-port': 'Its port is not between 1 and 65535.',
  'url.bad-authority':
    'Host and port of that URL cannot be told apart. A “/”, “?” or “#” in a password must be encoded; type it into the field Password.',
};

/** Where the secret of an account is. */
export type SecretState = 'memory' | 'open' | 'unkept' | 'locked' | 'unknown';

/** The address of a stream as it is typed, what is to be said of it, and how it is kept. */
export function useAddressDraft(camera: Camera, stream: Stream) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const saved = draftOf(camera, stream);
  const [draft, setDraft] = useState(saved);
  const [secretDraft, setSecretDraft] = useState('');
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);
  const savedKey = JSON.stringify(saved);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the draft follows the document when that changes under it
  useEffect(() => setDraft(saved), [savedKey]);

  const site = useAppSelector(selectSite);
  const { networks } = site;
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

  /** As the camera will stand once what is typed is kept: a password that is typed now is typed for that address. */
  const asTyped = ({ host, port, path }: Draft, line = camera.line): Camera => ({
    ...camera,
    host: host.trim(),
    line,
    ports: { ...camera.ports, rtsp: Number(port) || camera.ports.rtsp },
    streams: camera.streams.map((other) => (other.id === stream.id ? { ...other, path } : other)),
  });
  const typed = (secret: string, at: Draft, line = camera.line): void =>
    vault.set(secretRef, secret, boundTo(site, asTyped(at, line), at.user));

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
      if (login.value.secret !== ofSecret) typed(login.value.secret, { ...next, path, user });
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
    if (secretDraft !== '') typed(secretDraft, draft);
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
    const line = lineOfScheme(url.scheme);
    // a page of a camera is no stream: inside HTTP it is looked for where somebody said so
    if (!line || (line === 'tunnel' && camera.line !== 'tunnel'))
      return setPasteProblem(PASTE_ADVICE['url.bad-scheme']);
    if (line !== camera.line) dispatch(commandIssued({ kind: 'setLine', cameraId: camera.id, line }));
    setPasteProblem(null);
    // What a pasted URL says of a login counts before what was there: in its account, or in its path.
    const ofPath = takeLoginOut(pathAndQuery(url));
    const own = ofPath.kind === 'login' && url.password === null ? ofPath : null;
    const pasted = { path: pathAndQuery(url), user: url.user ?? own?.user ?? draft.user };
    const login = withLoginOut({ ...pasted, secret: url.password ?? own?.secret ?? '' });
    if (!login.ok) return setPasteProblem(login.error);
    const { path, user, secret } = login.value;
    const next = { host: url.host, port: String(url.port), path, user };
    if (secret !== '' && secret.length <= TEXT_LIMITS.secret) typed(secret, next, line);
    setDraft(next);
    keep(next, secret || undefined);
  };

  const secretState: SecretState = !hasSecret
    ? vault.state === 'locked'
      ? 'locked'
      : 'unknown'
    : vault.state === 'open' && !vault.keeps(secretRef)
      ? 'unkept'
      : vault.state;
  // As it will be kept: a secret that is being typed into the path is drawn nowhere.
  const login = withLoginOut({ path: draft.path, user: draft.user, secret: secretDraft || known });
  /** Where the password goes that is typed here, or where the one that is kept may go; nothing where that is as it was typed. */
  const sayWhereItGoes = (): string => {
    const there = asTyped(draft);
    if (secretDraft !== '' || secretState === 'unknown' || secretState === 'locked') {
      const model = site.models.find(({ id }) => id === camera.modelId);
      return `Typed here, it is sent to ${sayPlaces(placesOf(there, model))}, and elsewhere only when you allow it.`;
    }
    const state = passwordAt({ site, camera: there, account: camera.account, place: rtspPlace(there, stream) }, vault);
    if (state.kind === 'held')
      return `It was typed for ${state.typedFor ? sayPlaces(state.typedFor.places) : 'an address that was not recorded'}: a probe of this address asks first.`;
    return state.kind === 'ready' && state.movedFrom
      ? `It was typed for ${sayPlaces(state.movedFrom.places)}. The discovery of this visit found the same device here, so it is sent along.`
      : '';
  };
  return {
    draft,
    secretDraft,
    remarks,
    isSound,
    pasteProblem,
    secretState,
    hasSecret,
    isSecretKept: vault.has(secretRef),
    passwordGoes: sayWhereItGoes(),
    shownPath: login.ok ? login.value.path : redactLogins(draft.path),
    type: (name: keyof Draft, text: string): void => {
      setPasteProblem(null);
      setDraft({ ...draft, [name]: text });
    },
    typeSecret: setSecretDraft,
    keepDraft: () => keep(draft),
    keepSecret,
    takeApart,
  };
}
