import { CAMERAS_AT_ONCE, type CameraToProbe } from '../../../core/site/to-probe.ts';
import { roundAt, roundBegan, roundDone, roundEnded, roundLeftOut } from '../../store/probe-all-slice.ts';
import { selectSite } from '../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../store/store.ts';
import { rtspPlace } from '../../vault/camera-places.ts';
import { lacksSecret } from '../../vault/lacks-secret.ts';
import type { Vault } from '../../vault/vault-contract.ts';
import { loginOf, mayGo, type PasswordUse, passwordAt } from '../account/index.ts';
import { cancelProbe, probeStream } from './probe-runner.ts';

interface Round {
  cancelled: boolean;
  /** Dialled now. */
  readonly streams: Set<string>;
}

/** The round that this page has running; sockets are no state for the store. */
let running: Round | null = null;

const openSite = (_: AppDispatch, getState: () => RootState) => selectSite(getState());

/**
 * Probes many cameras, a few at once and each camera's streams one after the other. A camera whose secret is not in reach is
 * left out and named: an attempt without it would only be counted against the account. Once another site is open, nothing
 * more of this one is dialled.
 */
export async function probeRound(asked: readonly CameraToProbe[], vault: Vault, dispatch: AppDispatch): Promise<void> {
  cancelRound();
  const mine = { cancelled: false, streams: new Set<string>() };
  running = mine;
  /** Not known for it, nor kept for its very address under another camera. */
  const lacks = ({ camera, streams }: CameraToProbe): boolean =>
    streams.some((stream) => {
      const use = { site: dispatch(openSite), camera, account: camera.account, place: rtspPlace(camera, stream) };
      return lacksSecret(camera, stream, vault) && passwordAt(use, vault).kind !== 'elsewhere';
    });
  const site = dispatch(openSite);
  const siteId = site.id;
  const usesOf = (one: CameraToProbe): readonly (PasswordUse & { readonly one: CameraToProbe })[] =>
    one.streams.map((stream) => ({
      one,
      site,
      camera: one.camera,
      account: one.camera.account,
      place: rtspPlace(one.camera, stream),
    }));
  // asked once for all of them, before the first is dialled
  const known = asked.filter((one) => !lacks(one));
  const allowed = await mayGo(known.flatMap(usesOf), vault);
  if (running !== mine) return;
  const waiting = known.filter((one) => usesOf(one).length === allowed.filter((use) => use.one === one).length);
  const leftOut = asked.filter((one) => !waiting.includes(one)).map(({ camera }) => camera.name);
  dispatch(roundBegan({ siteId, total: waiting.length, leftOut }));
  /** As it stands in the site by now: somebody may have changed it, or removed it. */
  const asItIs = ({ camera, streams }: CameraToProbe): CameraToProbe | null => {
    const now = dispatch(openSite).cameras.find(({ id }) => id === camera.id);
    const wanted = new Set(streams.map(({ id }) => id));
    return now && now.host !== '' ? { camera: now, streams: now.streams.filter(({ id }) => wanted.has(id)) } : null;
  };
  /** A round that another one took the place of has nothing to say any more. */
  const tell = (action: Parameters<AppDispatch>[0]): void => {
    if (running === mine) dispatch(action);
  };
  const goesOn = (): boolean => {
    if (dispatch(openSite).id !== siteId) cancel(mine);
    return !mine.cancelled;
  };
  const work = async (): Promise<void> => {
    for (let one = waiting.shift(); one && goesOn(); one = waiting.shift()) {
      const now = asItIs(one);
      if (now && lacks(now)) {
        tell(roundLeftOut(now.camera.name));
        continue;
      }
      tell(roundAt(one.camera.id));
      for (const stream of now?.streams ?? []) {
        if (!now || !goesOn()) break;
        mine.streams.add(stream.id);
        const { camera } = now;
        const use = { site: dispatch(openSite), camera, account: camera.account, place: rtspPlace(camera, stream) };
        // it may have been given another address meanwhile: then it is left to whoever looks at it
        if (passwordAt(use, vault).kind === 'held') tell(roundLeftOut(camera.name));
        else
          await probeStream(
            { camera, stream, login: loginOf(use, vault), transport: 'auto', diagnose: false },
            dispatch,
          );
        mine.streams.delete(stream.id);
      }
      tell(roundDone(one.camera.id));
    }
  };
  try {
    await Promise.all(Array.from({ length: CAMERAS_AT_ONCE }, work));
  } finally {
    tell(roundEnded({ isCancelled: mine.cancelled }));
    if (running === mine) running = null;
  }
}

/** Ends the round at once: what is dialled now is told to let go, and nothing more is. */
export function cancelRound(): void {
  if (running) cancel(running);
}

function cancel(round: Round): void {
  round.cancelled = true;
  for (const streamId of round.streams) cancelProbe(streamId);
}
