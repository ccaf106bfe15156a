import { useEffect, useRef, useState } from 'react';
import { TEXT_LIMITS } from '../../../../core/base/limits.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import {
  STEERING_LIMITS,
  STEERING_RANGES,
  type Tour,
  USUAL_DWELL_S,
} from '../../../../core/document/chapters/cameras/ptz.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { ThingActs } from '../../../things/thing/index.ts';
import { Button } from '../../../ui/button.tsx';
import { KeptText, nameIsNeeded } from '../../../ui/kept-text.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { SelectField } from '../../../ui/text-field.tsx';
import type { Hand } from './use-ptz.ts';

interface Going {
  readonly tourId: string;
  readonly at: number;
  /** How long each way took, s, by the place it led to. */
  readonly travelS: Readonly<Record<number, number>>;
}

/** Rounds through places, with how long they take; one can be gone while the bench is open. */
export function ToursPanel({ camera, hand }: { camera: Camera; hand: Hand }) {
  const dispatch = useAppDispatch();
  const { presets, tours } = camera.steering;
  const [going, setGoing] = useState<Going | null>(null);
  const run = useRef(0);
  useEffect(
    () => () => {
      run.current += 1;
    },
    [],
  );
  const put = (tour: Tour): void => void dispatch(commandIssued({ kind: 'putTour', cameraId: camera.id, tour }));

  const go = async (tour: Tour): Promise<void> => {
    run.current += 1;
    const mine = run.current;
    const travelS: Record<number, number> = {};
    for (let at = 0; run.current === mine; at = (at + 1) % tour.stops.length) {
      const stop = tour.stops[at];
      const preset = presets.find(({ id }) => id === stop?.presetId);
      if (!stop || !preset) break;
      setGoing({ tourId: tour.id, at, travelS: { ...travelS } });
      const startedMs = performance.now();
      const did = await hand.ask({ kind: 'goToPreset', token: preset.token });
      if (!did.ok) break;
      travelS[at] = (performance.now() - startedMs) / 1000;
      setGoing({ tourId: tour.id, at, travelS: { ...travelS } });
      await new Promise((resolve) => setTimeout(resolve, stop.dwellS * 1000));
    }
    if (run.current === mine) setGoing(null);
  };
  const halt = (): void => {
    run.current += 1;
    setGoing(null);
    hand.stop();
  };

  return (
    <Panel
      title="Preset tours"
      actions={
        <Button
          disabled={presets.length < 2 || tours.length >= STEERING_LIMITS.tours}
          onClick={() =>
            put({
              id: newId('tour'),
              name: `Tour ${tours.length + 1}`,
              stops: presets.slice(0, STEERING_LIMITS.stops).map(({ id }) => ({ presetId: id, dwellS: USUAL_DWELL_S })),
            })
          }
        >
          Create a tour
        </Button>
      }
    >
      {tours.length === 0 && (
        <p className="text-small text-soft">
          {presets.length < 2
            ? 'A tour needs two presets: save them first.'
            : 'A tour goes from preset to preset, and stays a while at each.'}
        </p>
      )}
      {tours.map((tour) => {
        const isGoing = going?.tourId === tour.id;
        const travelS = isGoing ? Object.values(going.travelS).reduce((sum, one) => sum + one, 0) : 0;
        const dwellS = tour.stops.reduce((sum, one) => sum + one.dwellS, 0);
        const isMeasured = isGoing && Object.keys(going.travelS).length === tour.stops.length;
        return (
          <section key={tour.id} aria-label={tour.name} className="border-t border-grid py-2 first:border-t-0">
            <div className="flex flex-wrap items-end gap-2">
              <KeptText
                label="Tour"
                name={`Name of tour ${tour.name}`}
                isCode={false}
                className="w-40"
                value={tour.name}
                maxLength={TEXT_LIMITS.label}
                remarkOf={nameIsNeeded}
                onKeep={(name) => put({ ...tour, name })}
              />
              <span className="pb-1.5 text-small text-soft">
                stays {dwellS} s
                {isMeasured
                  ? `, moves for ${travelS.toFixed(0)} s: ${(dwellS + travelS).toFixed(0)} s in all`
                  : ', and the time it moves'}
              </span>
              <span className="ml-auto flex flex-wrap gap-2">
                {isGoing ? (
                  <Button onClick={halt}>Stop the tour</Button>
                ) : (
                  <Button
                    disabled={hand.state.status !== 'ready' || tour.stops.length === 0}
                    onClick={() => void go(tour)}
                  >
                    Start the tour
                  </Button>
                )}
                <ThingActs kind="tour" id={tour.id} onGone={() => {}} />
              </span>
            </div>
            <ol className="mt-1">
              {tour.stops.map((stop, at) => {
                const preset = presets.find(({ id }) => id === stop.presetId);
                const change = (next: Tour['stops']): void => put({ ...tour, stops: next });
                return (
                  <li
                    // a place may stand in a round twice: its number there is its identity
                    // biome-ignore lint/suspicious/noArrayIndexKey: see above
                    key={at}
                    className={`flex flex-wrap items-end gap-2 py-1 ${isGoing && going.at === at ? 'bg-verdigris-wash' : ''}`}
                  >
                    <span className="w-5 pb-1.5 text-right font-mono text-small text-soft">{at + 1}</span>
                    <SelectField
                      label="Place"
                      name={`Preset ${at + 1} of ${tour.name}`}
                      className="w-40"
                      value={stop.presetId}
                      options={presets.map(({ id, name }) => ({ value: id, label: name }))}
                      onChange={(presetId) =>
                        change(tour.stops.map((one, place) => (place === at ? { ...one, presetId } : one)))
                      }
                    />
                    <NumberField
                      label="Stays"
                      className="w-24"
                      value={stop.dwellS}
                      range={STEERING_RANGES.dwellS}
                      onKeep={(seconds) =>
                        seconds !== null &&
                        change(tour.stops.map((one, place) => (place === at ? { ...one, dwellS: seconds } : one)))
                      }
                    />
                    <Button
                      aria-label={`Remove ${preset?.name ?? 'it'} from ${tour.name}`}
                      onClick={() => change(tour.stops.filter((_, place) => place !== at))}
                    >
                      Remove
                    </Button>
                    {isGoing && going.travelS[at] !== undefined && (
                      <span className="pb-1.5 text-small text-soft">there in {going.travelS[at].toFixed(1)} s</span>
                    )}
                  </li>
                );
              })}
            </ol>
            {presets.length > 0 && tour.stops.length < STEERING_LIMITS.stops && (
              <Button
                kind="quiet"
                onClick={() =>
                  put({ ...tour, stops: [...tour.stops, { presetId: presets[0]?.id ?? '', dwellS: USUAL_DWELL_S }] })
                }
              >
                Add a preset
              </Button>
            )}
          </section>
        );
      })}
    </Panel>
  );
}
