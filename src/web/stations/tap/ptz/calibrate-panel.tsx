import { useState } from 'react';
import { between } from '../../../../core/base/range.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { calibrateTurns, type TimedTurn } from '../../../../core/ptz/timed-turns.ts';
import { panBetween } from '../../../../core/ptz/turning.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { Button } from '../../../ui/button.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { type HeadReach, panDegrees } from './ptz-geometry.ts';
import { takeBack } from './undo-turn.ts';
import type { Hand } from './use-ptz.ts';

/** Three runs, each longer: what all lose at the beginning falls out, and whether it turns evenly is seen. */
const RUNS_MS = [400, 700, 1000] as const;
const VELOCITY = 0.5;
const ANGLE = between(1, 359, '°');
const TILT = between(-90, 90, '°');
const TURNED = between(0.1, 359, '°');

/** A point of the picture that somebody marked, as shares of its sides. */
export interface MarkedPoint {
  readonly x: number;
  readonly y: number;
}

interface CalibratePanelProps {
  readonly camera: Camera;
  readonly hand: Hand;
  readonly reach: HeadReach;
  /** Asks for a point in the picture. */
  readonly askForMark: (what: string | null) => Promise<MarkedPoint | null>;
}

/** How fast the head turns, from timed moves: by its own word where it tells, else by a mark in the picture or a typed angle. */
export function CalibratePanel({ camera, hand, reach, askForMark }: CalibratePanelProps) {
  const dispatch = useAppDispatch();
  const [turns, setTurns] = useState<readonly TimedTurn[]>([]);
  const [typedView, setTypedView] = useState<number | null>(null);
  const [typedTilt, setTypedTilt] = useState<number | null>(null);
  const [step, setStep] = useState<string | null>(null);
  const [ranMs, setRanMs] = useState<number | null>(null);
  const { ability } = hand.state;
  if (!ability) return null;
  const tells = ability.tells === 'position' && ability.node.absolute !== null;
  const viewDeg = typedView ?? reach.hfovDeg;
  const tiltDownDeg = typedTilt ?? camera.mounting?.tiltDownDeg ?? null;

  const keep = (all: readonly TimedTurn[]): void => {
    setTurns(all);
    const found = calibrateTurns(all);
    if (!found) return;
    dispatch(
      commandIssued({
        kind: 'recordTurns',
        cameraId: camera.id,
        calibrationId: newId('turns'),
        turns: found,
        velocity: VELOCITY,
        measured: all.length,
      }),
    );
  };
  const run = (ms: number, sign: number) =>
    hand.ask({ kind: 'runFor', velocity: { pan: VELOCITY * sign, tilt: 0, zoom: 0 }, ms });

  /** Out and back, so that it ends where it began and no end is in the way. */
  const byItsWord = async (): Promise<void> => {
    const span = ability.node.absolute?.x;
    if (!span) return;
    setTurns([]);
    const all: TimedTurn[] = [];
    for (const ms of RUNS_MS)
      for (const sign of [1, -1]) {
        setStep(`Turning for ${ms / 1000} s to the ${sign > 0 ? 'right' : 'left'}`);
        const did = await run(ms, sign);
        if (!did.ok || !did.from || !did.to || did.ranMs === null)
          return setStep(`That move was not measured. ${did.note}`);
        const deg = Math.abs(panDegrees(did.to.pan, span, reach) - panDegrees(did.from.pan, span, reach));
        all.push({ runS: did.ranMs / 1000, deg });
      }
    setStep('Testing the PTZ timeout');
    const tried = await hand.ask({ kind: 'tryTimeout', velocity: { pan: VELOCITY, tilt: 0, zoom: 0 } });
    if (tried.keptTimeout !== null)
      dispatch(
        commandIssued({
          kind: 'recordHeadTrait',
          cameraId: camera.id,
          trait: 'head.keepsTimeout',
          value: tried.keptTimeout,
        }),
      );
    setStep(null);
    keep(all);
  };

  /** One more turn, measured by the same thing in the picture before and after it. */
  const byMark = async (ms: number): Promise<void> => {
    if (viewDeg === null || tiltDownDeg === null) return;
    setStep('Click something with an edge, in the right half of the picture');
    const before = await askForMark('Click something with an edge, in the right half of the picture');
    if (!before) return setStep(null);
    setStep(`Turning for ${ms / 1000} s to the right`);
    const did = await run(ms, 1);
    if (!did.ok || did.ranMs === null) return setStep(`That move was not done. ${did.note}`);
    setStep('Click the same thing again');
    const after = await askForMark('Click the same thing again');
    setStep(null);
    if (!after) return;
    const picture = { width: 1, height: 9 / 16, hfovDeg: viewDeg };
    const at = ({ x, y }: MarkedPoint) => ({ x, y: y * picture.height });
    const deg = panBetween(at(before), at(after), picture, -tiltDownDeg);
    keep([...turns, { runS: did.ranMs / 1000, deg }]);
  };
  const byTyped = async (ms: number): Promise<void> => {
    setStep(`Turning for ${ms / 1000} s to the right`);
    const did = await run(ms, 1);
    setStep(did.ok ? null : `That move was not done. ${did.note}`);
    if (did.ok) setRanMs(did.ranMs);
  };

  const nextMs = RUNS_MS[turns.length % RUNS_MS.length] ?? RUNS_MS[0];
  const isBusy = step !== null && !step.startsWith('That turn');
  return (
    <Panel
      title="PTZ speed"
      aside={
        reach.turn
          ? `${reach.turn.degPerS.toFixed(1)} °/s at half its speed${reach.turn.residualDeg === null ? '' : `, uneven by ${reach.turn.residualDeg.toFixed(1)}°`}`
          : 'not measured'
      }
      actions={
        reach.turn && (
          <Button
            kind="quiet"
            onClick={() => {
              setTurns([]);
              dispatch(commandIssued(takeBack(camera.id, 'head.panDegPerS')));
            }}
          >
            Undo
          </Button>
        )
      }
    >
      {step && (
        <p role="status" className="mb-2 font-strong">
          {step}
        </p>
      )}
      {tells ? (
        <>
          <p className="mb-2 text-small text-soft">
            It reports its position: six timed moves, three each way, measure it
            {reach.isKnown ? '' : '. Its model card gives no pan range: the degrees are those of a full turn'}.
          </p>
          <Button disabled={isBusy || hand.state.status !== 'ready'} onClick={() => void byItsWord()}>
            Measure it
          </Button>
        </>
      ) : (
        <div className="flex flex-col gap-2">
          <p className="text-small text-soft">
            It does not report its position. Each move is measured by something in the picture, before and after; two
            moves give its speed, a third of another length its spread.
          </p>
          <div className="flex flex-wrap items-end gap-2">
            <NumberField
              label="Horizontal angle of view"
              className="w-32"
              value={viewDeg}
              range={ANGLE}
              isOptional
              onKeep={setTypedView}
            />
            <NumberField
              label="Tilt down"
              className="w-24"
              value={tiltDownDeg}
              range={TILT}
              isOptional
              onKeep={setTypedTilt}
            />
            <Button
              disabled={isBusy || viewDeg === null || tiltDownDeg === null || hand.state.status !== 'ready'}
              onClick={() => void byMark(nextMs)}
            >
              Measure move {turns.length + 1}, {nextMs / 1000} s
            </Button>
          </div>
          <div className="flex flex-wrap items-end gap-2">
            <Button disabled={isBusy || hand.state.status !== 'ready'} onClick={() => void byTyped(nextMs)}>
              Turn {nextMs / 1000} s, and enter how far
            </Button>
            {ranMs !== null && (
              <NumberField
                label={`It turned by, in ${(ranMs / 1000).toFixed(2)} s`}
                className="w-44"
                value={null}
                range={TURNED}
                isOptional
                onKeep={(deg) => {
                  if (deg === null) return;
                  setRanMs(null);
                  keep([...turns, { runS: ranMs / 1000, deg }]);
                }}
              />
            )}
          </div>
        </div>
      )}
      {turns.length > 0 && (
        <ul aria-label="Moves measured" className="mt-2 font-mono text-small">
          {turns.map(({ runS, deg }, at) => (
            // turns are only added, so their place is their identity
            // biome-ignore lint/suspicious/noArrayIndexKey: see above
            <li key={at}>
              {runS.toFixed(2)} s → {deg.toFixed(1)}°
            </li>
          ))}
          {turns.length === 1 && <li className="font-sans text-soft">One more move, and its speed is known.</li>}
        </ul>
      )}
      {turns.length > 0 && !isBusy && (
        <Button kind="quiet" onClick={() => setTurns([])}>
          Measure again
        </Button>
      )}
    </Panel>
  );
}
