import { type RefObject, useEffect, useRef, useState } from 'react';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../../../core/document/stream-address.ts';
import { knownFingerprint } from '../../../core/evidence/known-certificate.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { loginOf, passwordAt } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { rtspPlace } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';
import { DeviceStill } from './device-still.tsx';
import { type LiveState, type LiveView, openLiveView } from './live-client.ts';
import { SoundLine } from './sound-line.tsx';

interface LivePictureProps {
  readonly camera: Camera;
  readonly stream: Stream;
  /** Changes with each probe that got an answer: the picture then opens by itself. `null` keeps it shut. */
  readonly openKey: string | null;
  /** What stands in its place while it is shut. */
  readonly placeholder: string;
  /** Whoever wants to look at what is drawn. */
  readonly canvasRef?: RefObject<HTMLCanvasElement | null>;
  /** Takes a point of the picture, as shares of its sides; `null` takes none. */
  readonly onPoint?: ((point: { readonly x: number; readonly y: number }) => void) | null;
  /** Words over the picture. */
  readonly overlay?: string | null;
}

/** The camera's live picture with how far it is behind, or in its place the plain reason why there is none. */
export function LivePicture({
  camera,
  stream,
  openKey,
  placeholder,
  canvasRef,
  onPoint = null,
  overlay = null,
}: LivePictureProps) {
  const vault = useVault();
  const own = useRef<HTMLCanvasElement>(null);
  const canvas = canvasRef ?? own;
  const view = useRef<LiveView | null>(null);
  const [state, setState] = useState<LiveState | null>(null);
  const [attempt, setAttempt] = useState(0);
  const [isWanted, setIsWanted] = useState(openKey !== null);
  useEffect(() => setIsWanted(openKey !== null), [openKey]);

  const url = plainUrlOf(camera, stream);
  const tunnel = camera.line === 'tunnel';
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const use = { site, camera, account: camera.account, place: rtspPlace(camera, stream) };
  const login = loginOf(use, vault);
  const { user, secret } = login;
  const isHeld = ['held', 'elsewhere'].includes(passwordAt(use, vault).kind);
  // A picture that was opened with a password is closed with it.
  const isWithheld = camera.account !== null && secret === null && vault.state === 'locked';
  const isAsked = isWanted && !isWithheld && !isHeld;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new probe or a new attempt opens the picture anew
  useEffect(() => {
    if (!isAsked || !canvas.current) {
      setState(null);
      return;
    }
    const known = knownFingerprint(index, camera, stream);
    const opened = openLiveView({ ...login, url, tunnel, knownFingerprint: known }, canvas.current, setState);
    view.current = opened;
    return () => {
      view.current = null;
      opened.close();
    };
  }, [isAsked, openKey, attempt, url, user, secret]);

  const message =
    isHeld && isWanted
      ? 'The password was typed for another address: probe this one first'
      : isWithheld
        ? 'Passwords are locked: the picture is closed until they are unlocked'
        : !isWanted || state === null
          ? placeholder
          : state.status === 'still'
            ? state.message
            : state.status === 'opening'
              ? 'Opening the picture: waiting for its first key frame'
              : null;
  const canRetry = isAsked && state?.status === 'still';
  return (
    <figure className="relative m-0 flex aspect-video w-full items-center justify-center overflow-hidden border border-hair bg-grid">
      <canvas
        ref={canvas}
        aria-label={`Live picture of ${camera.name}`}
        className={`size-full object-contain ${message === null ? '' : 'hidden'} ${onPoint ? 'cursor-crosshair' : ''}`}
        onClick={
          onPoint
            ? (event) => {
                const box = event.currentTarget.getBoundingClientRect();
                onPoint({ x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height });
              }
            : undefined
        }
      />
      {overlay !== null && message === null && (
        <p className="pointer-events-none absolute inset-x-0 bottom-0 bg-sheet px-3 py-1.5 text-center font-strong">
          {overlay}
        </p>
      )}
      {message !== null && (
        <div className="flex max-w-[85%] flex-col items-center gap-3 text-center text-soft">
          <p role={canRetry ? 'alert' : undefined}>{message}</p>
          {canRetry && state.isBeyondBrowser && <DeviceStill camera={camera} stream={stream} />}
          {canRetry && <Button onClick={() => setAttempt(attempt + 1)}>Open it again</Button>}
        </div>
      )}
      {isAsked && state?.status === 'playing' && (
        <figcaption className="absolute top-2 right-2 left-2 flex flex-wrap items-center justify-end gap-2 text-small">
          {state.sound && <SoundLine sound={state.sound} onListen={(isOn) => view.current?.listen(isOn)} />}
          <span
            className="rounded-control bg-sheet px-2 py-0.5"
            title={
              state.byCameraClock
                ? 'by the camera’s clock'
                : 'since its last packet arrived; the camera reports no clock'
            }
          >
            live, {state.behindS.toFixed(2)} s behind
          </span>
          <button
            type="button"
            onClick={() => setIsWanted(false)}
            className="rounded-control bg-sheet px-2 py-0.5 underline decoration-hair underline-offset-2 pointer-coarse:min-h-9"
          >
            Close
          </button>
        </figcaption>
      )}
    </figure>
  );
}
