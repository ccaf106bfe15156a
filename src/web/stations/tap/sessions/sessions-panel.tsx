import { useEffect, useRef, useState } from 'react';
import type { Range } from '../../../../core/base/range.ts';
import { sayMany } from '../../../../core/base/say.ts';
import type { Camera, Stream } from '../../../../core/document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../../../../core/document/stream-address.ts';
import { knownFingerprint } from '../../../../core/evidence/known-certificate.ts';
import { countedSessions, isCountCurrent } from '../../../../core/evidence/sessions-evidence.ts';
import { MOST_SESSIONS, type SessionsReport, USUAL_SESSIONS } from '../../../../core/sessions/sessions-types.ts';
import { countFindings } from '../../../../core/stations/tap/index.ts';
import { slipAsked } from '../../../store/slip-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { loginOf, mayGo } from '../../../things/account/index.ts';
import { CameraFindings } from '../../../things/finding/index.ts';
import { Button } from '../../../ui/button.tsx';
import { Drop } from '../../../ui/drop.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { sayWhen } from '../../../ui/say-when.ts';
import { rtspPlace } from '../../../vault/camera-places.ts';
import { lacksSecret } from '../../../vault/lacks-secret.ts';
import { useVault } from '../../../vault/vault-context.tsx';
import { useSiteView } from '../../use-site-view.ts';
import { type CountState, startCount } from './count-runner.ts';

const MOST: Range = { min: 1, max: MOST_SESSIONS, unit: '', isWhole: true };

/** How many draw it at once before it refuses: counted by trying, after it was asked for. */
export function SessionsPanel({ camera, stream }: { camera: Camera; stream: Stream }) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const view = useSiteView();
  const [isAsking, setIsAsking] = useState(false);
  const [most, setMost] = useState(USUAL_SESSIONS);
  const [state, setState] = useState<CountState | null>(null);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const counted = countedSessions(view.index, camera.id);
  const isCurrent = counted !== null && isCountCurrent(counted, camera);
  const lacks = lacksSecret(camera, stream, vault);
  const isRunning = state?.status === 'running';
  const start = (): void => {
    if (lacks && vault.state === 'locked') return void dispatch(slipAsked('vault'));
    const use = { site: view.site, camera, account: camera.account, place: rtspPlace(camera, stream) };
    void mayGo([use], vault).then((allowed) => {
      if (allowed.length === 0) return;
      const login = loginOf(use, vault);
      setIsAsking(false);
      const tunnel = camera.line === 'tunnel';
      const request = {
        ...login,
        url: plainUrlOf(camera, stream),
        secret: login.user === null ? null : (login.secret ?? ''),
        knownFingerprint: knownFingerprint(view.index, camera, stream),
        tunnel,
        most,
      };
      stop.current = startCount(camera, request, dispatch, setState);
    });
  };
  return (
    <Panel
      title="Sessions at once"
      aside={
        counted ? (isCurrent ? `counted ${sayWhen(counted.at)}` : 'counted at another address') : 'not counted yet'
      }
      actions={
        isRunning ? (
          <Button onClick={() => stop.current?.()}>Stop counting</Button>
        ) : (
          !isAsking && <Button onClick={() => setIsAsking(true)}>{counted ? 'Count again' : 'Count them'}</Button>
        )
      }
    >
      {isAsking && (
        <div className="mb-2 border-l-[3px] border-hair pl-3">
          <p>
            One session after the other is opened until the camera refuses one, held for a few seconds, and all are
            ended. <b>Its clients may lose the stream meanwhile.</b>
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-2">
            <NumberField
              label="Stop at"
              className="w-24"
              value={most}
              range={MOST}
              onKeep={(value) => value !== null && setMost(value)}
            />
            <Button kind="main" onClick={start}>
              Open up to {most}
            </Button>
            <Button kind="quiet" onClick={() => setIsAsking(false)}>
              Cancel
            </Button>
          </div>
          {lacks && vault.state !== 'locked' && (
            <p className="mt-1 text-small text-soft">
              Its password is not here; without it the camera refuses the first.
            </p>
          )}
        </div>
      )}
      {isRunning && <Running state={state} />}
      {!isRunning && state?.message && <p role="status">{state.message}</p>}
      {!isRunning && counted && <Count report={counted.report} />}
      {!isRunning && isCurrent && <CameraFindings cameraId={camera.id} findings={countFindings(camera, view)} />}
    </Panel>
  );
}

function Running({ state }: { state: CountState }) {
  const playing = state.sessions.filter(({ refusal }) => refusal === null).length;
  const isRefused = state.sessions.some(({ refusal }) => refusal !== null);
  return (
    <>
      <p role="status">
        {state.isWatching
          ? isRefused || playing > 1
            ? 'Checking the effect on the first'
            : 'Counting the packets of the first alone'
          : `Opening session ${playing + 1}`}
      </p>
      <Seats playing={playing} isRefused={isRefused} />
    </>
  );
}

/** A full drop for each that played, a struck one for the first that was refused. */
function Seats({ playing, isRefused }: { playing: number; isRefused: boolean }) {
  return (
    <p className="flex flex-wrap gap-1 py-1" aria-hidden="true">
      {Array.from({ length: playing }, (_, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: seats are their places
        <Drop key={at} verdict="ok" />
      ))}
      {isRefused && <Drop verdict="will-not-work" />}
    </p>
  );
}

const EFFECTS = {
  none: 'The first was not affected.',
  slower: 'The first got less then.',
  stalled: 'The first stalled then.',
  ended: 'The first was ended.',
} as const;

function Count({ report }: { report: SessionsReport }) {
  const { limit, opened, most, refusedWith, effectOnFirst } = report;
  return (
    <div className="mb-2">
      <Seats playing={opened} isRefused={refusedWith !== null} />
      <p>
        <b>{opened === 0 ? 'None granted' : limit === null ? `At least ${opened} at once` : `${limit} at once`}</b>
        {limit === null && opened > 0 && (
          <span className="text-soft"> · limit of the test {sayMany(most, 'session')} and refused none</span>
        )}
        {refusedWith && opened > 0 && (
          <span className="text-soft"> · one more is answered {refusedWith.status ?? `“${refusedWith.note}”`}</span>
        )}
      </p>
      {effectOnFirst && <p className="text-soft">{EFFECTS[effectOnFirst]}</p>}
    </div>
  );
}
