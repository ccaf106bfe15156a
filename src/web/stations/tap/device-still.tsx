import { useEffect, useState } from 'react';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { isReadingCurrent, rememberedReading } from '../../../core/evidence/onvif-evidence.ts';
import { asksForSecret } from '../../../core/net/path-places.ts';
import type { ReadUri } from '../../../core/onvif/reading.ts';
import { profileFor } from '../../../core/stations/tap/index.ts';
import { fetchStill } from '../../api/still.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { loginOf, mayGo, passwordAt } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { useVault } from '../../vault/vault-context.tsx';

type Shown =
  | { readonly status: 'asked' }
  | { readonly status: 'there'; readonly url: string; readonly at: string }
  | { readonly status: 'none'; readonly message: string };

/** Where the device gives a still of this stream, by its last reading; `null` where none is known. */
function useStillAddress(camera: Camera, stream: Stream): ReadUri | null {
  const index = useAppSelector(selectIndex);
  const site = useAppSelector(selectSite);
  const remembered = rememberedReading(index, camera.id);
  const model = site.models.find(({ id }) => id === camera.modelId);
  if (!remembered || !isReadingCurrent(remembered, camera, model)) return null;
  const { profiles } = remembered.reading;
  const still = (profileFor(stream, camera, profiles) ?? profiles[0])?.still ?? null;
  // an inner address leads nowhere from here
  return still && still.elsewhere === '' ? still : null;
}

/** In place of a picture that this browser cannot decode: one still that the device makes itself. */
export function DeviceStill({ camera, stream }: { camera: Camera; stream: Stream }) {
  const vault = useVault();
  const address = useStillAddress(camera, stream);
  const [shown, setShown] = useState<Shown>({ status: 'asked' });
  const [attempt, setAttempt] = useState(0);
  const { host, account } = camera;
  const port = address?.port;
  const path = address?.path;
  const site = useAppSelector(selectSite);
  const isTls = address?.scheme === 'https';
  const use = {
    site,
    camera,
    account,
    place: {
      host: host.trim(),
      port: port ?? 80,
      line: isTls ? ('tls' as const) : ('plain' as const),
      inPath: path !== undefined && asksForSecret(path),
    },
  };
  const login = loginOf(use, vault);
  const { secret } = login;
  const isHeld = ['held', 'elsewhere'].includes(passwordAt(use, vault).kind);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt takes another still
  useEffect(() => {
    if (port === undefined || path === undefined || isHeld) return;
    const controller = new AbortController();
    setShown({ status: 'asked' });
    fetchStill({ ...login, host, port, path, tls: isTls }, controller.signal).then(
      (url) => setShown({ status: 'there', url, at: new Date().toISOString() }),
      (error: unknown) => {
        if (!controller.signal.aborted)
          setShown({ status: 'none', message: error instanceof Error ? error.message : 'No snapshot came.' });
      },
    );
    return () => controller.abort();
  }, [host, port, path, account?.user, secret, isHeld, attempt]);
  if (!address)
    return <p className="text-small">Read the device by ONVIF, and its own snapshot is shown here instead.</p>;
  if (isHeld)
    return (
      <p className="text-small">
        Its snapshots are at port {port}, and the password was typed for another one.{' '}
        <Button kind="quiet" onClick={() => void mayGo([use], vault)}>
          Ask there too
        </Button>
      </p>
    );
  if (shown.status === 'asked') return <p className="text-small">Asking for a snapshot …</p>;
  if (shown.status === 'none') return <p className="text-small">No snapshot by ONVIF: {shown.message}</p>;
  return (
    <>
      <img src={shown.url} alt={`Snapshot of ${camera.name}`} className="max-h-32 border border-hair" />
      <p className="text-small">
        A snapshot made by the device, {sayWhen(shown.at)}.{' '}
        <Button kind="quiet" onClick={() => setAttempt(attempt + 1)}>
          Take another
        </Button>
      </p>
    </>
  );
}
