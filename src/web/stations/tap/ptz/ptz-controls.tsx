import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { between } from '../../../../core/base/range.ts';
import { sayMany } from '../../../../core/base/say.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { cameraSubject } from '../../../../core/document/subject.ts';
import { lastFact } from '../../../../core/evidence/evidence-index.ts';
import { turnToCentre } from '../../../../core/ptz/turning.ts';
import { commandIssued, selectIndex } from '../../../store/site-slice.ts';
import { stationPath } from '../../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../../store/store.ts';
import { useSiteId } from '../../../store/use-site-id.ts';
import { Button } from '../../../ui/button.tsx';
import { CheckField } from '../../../ui/check-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { RangeField } from '../../../ui/range-field.tsx';
import { lacksSecret } from '../../../vault/lacks-secret.ts';
import { useVault } from '../../../vault/vault-context.tsx';
import { useSiteView } from '../../use-site-view.ts';
import { LivePicture } from '../live-picture.tsx';
import { AccessWanted } from '../onvif/access-wanted.tsx';
import { OnvifFields } from '../onvif/read-act.tsx';
import { useDeviceAccess } from '../onvif/use-device.ts';
import { CalibratePanel, type MarkedPoint } from './calibrate-panel.tsx';
import { HoldButtons } from './hold-buttons.tsx';
import { PanFan } from './pan-fan.tsx';
import { PresetsPanel } from './presets-panel.tsx';
import { headReach, panDegrees, panNumber, viewDegOf } from './ptz-geometry.ts';
import { RunawayAlert } from './runaway-alert.tsx';
import { ToursPanel } from './tours-panel.tsx';
import { turnBy } from './turn-plan.ts';
import { takeBack } from './undo-turn.ts';
import { type Hand, sayHand, usePtz } from './use-ptz.ts';
import { usePtzKeys } from './use-ptz-keys.ts';

const SPEED = { min: 0.1, max: 1, step: 0.1, usual: 0.5 } as const;
const DEGREES = between(-350, 350, '°');

/** The width of the zone that the need asks for, as an angle from where it hangs. */
function zoneDegOf({ need }: Camera): number | null {
  if (!need || !(need.distanceM > 0)) return null;
  return (2 * Math.atan(need.widthM / 2 / need.distanceM) * 180) / Math.PI;
}

/** The steering bench: the picture, what the head reports, what was asked, and hands on it by key, pointer and thumb. */
export function PtzControls({ camera }: { camera: Camera }) {
  const siteId = useSiteId();
  const dispatch = useAppDispatch();
  const view = useSiteView();
  const index = useAppSelector(selectIndex);
  const model = view.modelOf(camera);
  const vault = useVault();
  const access = useDeviceAccess(camera, model);
  const steer = usePtz(access.request);
  const reach = headReach(camera, model, index);
  const [speed, setSpeed] = useState<number>(SPEED.usual);
  const [deg, setDeg] = useState<number>(30);
  const [askedDeg, setAskedDeg] = useState<number | null>(null);
  const [countedDeg, setCountedDeg] = useState<number | null>(null);
  // a head that is turned by hand goes to no angle, and nobody counted how far
  const hand: Hand = {
    ...steer,
    hold: (velocity) => {
      setAskedDeg(null);
      if (velocity.pan !== 0) setCountedDeg(null);
      steer.hold(velocity);
    },
  };
  const [said, setSaid] = useState<string | null>(null);
  const [centres, setCentres] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const marking = useRef<((point: MarkedPoint | null) => void) | null>(null);
  const [markWanted, setMarkWanted] = useState<string | null>(null);
  useEffect(() => () => marking.current?.(null), []);
  usePtzKeys(hand, speed);

  const { state } = hand;
  const { ability, position } = state;
  const span = ability?.node.absolute?.x ?? null;
  const isReady = state.status === 'ready';
  const viewDeg = viewDegOf(reach, position?.zoom ?? null, ability?.node.absoluteZoom?.x ?? null);
  const reportedDeg = position && span ? panDegrees(position.pan, span, reach) : null;
  // the small stream is quicker to follow with
  const stream = camera.streams.find(({ label }) => label === 'sub') ?? camera.streams[0];
  const notches = notchesOf(camera, state.presets, (pan) => (span ? panDegrees(pan, span, reach) : null));
  const plan = ability ? turnBy(deg, ability, position, reach) : null;

  const recorded = lastFact(index, cameraSubject(camera.id), 'head.stopsLost')?.value;
  const recordedLost = typeof recorded === 'number' ? recorded : 0;
  // what was lost is a finding of the camera, not of this visit
  const kept = useRef(0);
  useEffect(() => {
    if (state.stopsLost <= kept.current) return;
    kept.current = state.stopsLost;
    dispatch(
      commandIssued({ kind: 'recordHeadTrait', cameraId: camera.id, trait: 'head.stopsLost', value: state.stopsLost }),
    );
  }, [state.stopsLost, camera.id, dispatch]);

  const tell = (did: { readonly ok: boolean; readonly note: string }): void =>
    setSaid(did.ok ? null : did.note || 'It did not do that.');
  const goToDeg = async (to: number): Promise<void> => {
    if (!ability || !position || !span) return;
    setAskedDeg(to);
    tell(
      await hand.ask({
        kind: 'goTo',
        position: { pan: panNumber(to, span, reach), tilt: position.tilt, zoom: position.zoom },
      }),
    );
  };
  const turn = async (by: number): Promise<void> => {
    if (!ability) return;
    const way = turnBy(by, ability, position, reach);
    if (way.kind === 'cannot') return setSaid(way.said);
    const from = reportedDeg ?? countedDeg;
    setAskedDeg(from === null ? null : from + by);
    const did = await hand.ask(way.order);
    tell(did);
    // counted only from where somebody said that it stood
    if (did.ok && way.kind === 'by time' && reportedDeg === null && from !== null) setCountedDeg(from + by);
  };
  const askForMark = (what: string | null): Promise<MarkedPoint | null> => {
    marking.current?.(null);
    setMarkWanted(what);
    return new Promise((resolve) => {
      marking.current = (point) => {
        marking.current = null;
        setMarkWanted(null);
        resolve(point);
      };
    });
  };
  const onPicture = (point: MarkedPoint): void => {
    if (marking.current) return marking.current(point);
    if (!centres || viewDeg === null || !isReady) return;
    const picture = { width: 1, height: 9 / 16, hfovDeg: viewDeg };
    void turn(turnToCentre({ x: point.x, y: point.y * picture.height }, picture).panDeg);
  };

  return (
    <>
      <nav aria-label="Of this camera" className="mb-3 flex flex-wrap gap-4">
        <Link to={stationPath(siteId, camera.id, 'tap')} className="font-strong text-verdigris hover:underline">
          ← Its streams
        </Link>
        <Link
          to={`${stationPath(siteId, camera.id, 'tap')}/onvif`}
          className="font-strong text-verdigris hover:underline"
        >
          Device report
        </Link>
      </nav>
      <RunawayAlert hand={hand} />
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
        <div className="flex min-w-0 flex-col gap-4">
          {stream && (
            <LivePicture
              camera={camera}
              stream={stream}
              openKey={camera.host === '' || lacksSecret(camera, stream, vault) ? null : 'steer'}
              placeholder={
                camera.host === ''
                  ? 'No picture: it has no address yet'
                  : lacksSecret(camera, stream, vault)
                    ? 'No picture: the password of its streams is not here'
                    : 'Opening its picture'
              }
              canvasRef={canvas}
              onPoint={markWanted !== null || centres ? onPicture : null}
              overlay={markWanted}
            />
          )}
          <Panel
            title="PTZ controls"
            aside={<span role="status">{access.request === null ? 'not connected' : sayHand(state)}</span>}
            actions={state.status === 'ended' && <Button onClick={hand.reopen}>Connect again</Button>}
          >
            <AccessWanted camera={camera} access={access} />
            {state.message && (
              <p role="alert" className="mb-2 border-l-[3px] border-brick pl-3">
                {state.message}
              </p>
            )}
            <div className="flex flex-wrap items-center gap-x-8 gap-y-3">
              <HoldButtons hand={hand} speed={speed} />
              <div className="flex w-48 flex-col gap-2">
                <RangeField
                  label="Speed"
                  value={speed}
                  min={SPEED.min}
                  max={SPEED.max}
                  step={SPEED.step}
                  said={`${Math.round(speed * 100)} %`}
                  onHold={setSpeed}
                  onLetGo={() => {}}
                />
                {ability?.node.hasHome && (
                  <Button
                    disabled={!isReady}
                    onClick={() => {
                      setAskedDeg(null);
                      void hand.ask({ kind: 'home' }).then(tell);
                    }}
                  >
                    Home
                  </Button>
                )}
              </div>
              <form
                className="flex flex-col gap-1"
                onSubmit={(event) => {
                  event.preventDefault();
                  void turn(deg);
                }}
              >
                <div className="flex items-end gap-2">
                  <NumberField
                    label="Pan by, right is +"
                    className="w-32"
                    value={deg}
                    range={DEGREES}
                    onKeep={(value) => value !== null && setDeg(value)}
                  />
                  <Button type="submit" disabled={!isReady || plan?.kind === 'cannot'}>
                    Turn
                  </Button>
                </div>
                {plan && <span className="max-w-64 text-small text-soft">{plan.said}</span>}
              </form>
            </div>
            {said && (
              <p role="alert" className="mt-2 text-small text-brick">
                {said}
              </p>
            )}
            {state.stopsLost > 0 && (
              <p className="mt-2 text-small text-brass">
                {state.stopsLost === 1
                  ? 'One stop command was lost and sent again.'
                  : `${state.stopsLost} stop commands were lost and sent again.`}
              </p>
            )}
            {recordedLost > 0 && state.stopsLost === 0 && (
              <p className="mt-2 text-small text-soft">
                On record: {sayMany(recordedLost, 'stop')} stop commands lost.{' '}
                <Button kind="quiet" onClick={() => dispatch(commandIssued(takeBack(camera.id, 'head.stopsLost')))}>
                  Undo
                </Button>
              </p>
            )}
            <p className="mt-2 text-small text-soft max-md:hidden">
              Arrow keys move it while held, + and − zoom, the space bar stops. It stops when this page is left.
            </p>
            <p className="mt-1 text-small text-soft">
              Everything within its pan range counts as filmed: keep to what was agreed, and to local law.
            </p>
            {reach.hfovDeg !== null && (
              <CheckField
                label="A click in the picture centres on it"
                checked={centres}
                onChange={(event) => setCentres(event.target.checked)}
              />
            )}
          </Panel>
          <CalibratePanel camera={camera} hand={hand} reach={reach} askForMark={askForMark} />
        </div>
        <div className="flex min-w-0 flex-col gap-4">
          <Panel title="Position" aside="seen from above, straight ahead is up">
            <PanFan
              reach={reach}
              reportedDeg={reportedDeg ?? countedDeg}
              isCounted={reportedDeg === null}
              isAsked={ability !== null}
              askedDeg={askedDeg}
              viewDeg={viewDeg}
              zoneDeg={zoneDegOf(camera)}
              notches={notches}
              onAsk={isReady && span && position ? (to) => void goToDeg(to) : null}
            />
            {position && (
              <p className="mt-1 font-mono text-small text-soft">
                pan {position.pan.toFixed(3)} · tilt {position.tilt.toFixed(3)}
                {position.zoom !== null && ` · zoom ${position.zoom.toFixed(3)}`}
              </p>
            )}
            {reportedDeg === null && reach.turn && (
              <Button kind="quiet" onClick={() => setCountedDeg(0)}>
                It looks straight ahead now: count from here
              </Button>
            )}
          </Panel>
          <PresetsPanel
            camera={camera}
            hand={hand}
            canvas={canvas}
            onGo={({ token }) => {
              setAskedDeg(notches.find(({ id }) => id === token)?.deg ?? null);
              setCountedDeg(null);
              void hand.ask({ kind: 'goToPreset', token }).then(tell);
            }}
          />
          <ToursPanel camera={camera} hand={hand} />
          <Panel title="How it gets there">
            <OnvifFields camera={camera} access={access} />
          </Panel>
        </div>
      </div>
    </>
  );
}

/** Places whose direction is known, by their names here or at the device. */
function notchesOf(
  camera: Camera,
  presets: readonly {
    readonly token: string;
    readonly name: string;
    readonly position: { readonly pan: number } | null;
  }[],
  degrees: (pan: number) => number | null,
) {
  return presets.flatMap(({ token, name, position }) => {
    const deg = position ? degrees(position.pan) : null;
    const own = camera.steering.presets.find((one) => one.token === token);
    return deg === null ? [] : [{ id: token, name: own?.name ?? name, deg }];
  });
}
