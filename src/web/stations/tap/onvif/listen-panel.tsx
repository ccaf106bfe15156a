import { useEffect, useRef, useState } from 'react';
import { sayMany } from '../../../../core/base/say.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { cameraSubject } from '../../../../core/document/subject.ts';
import { lastPayload } from '../../../../core/evidence/evidence-index.ts';
import type { EventKind } from '../../../../core/onvif/services/events.ts';
import { selectIndex } from '../../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../../store/store.ts';
import { Button } from '../../../ui/button.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { sayWhen } from '../../../ui/say-when.ts';
import { AccessWanted } from './access-wanted.tsx';
import { type HeardEvent, type ListenState, listenTo } from './listen-runner.ts';
import type { DeviceAccess } from './use-device.ts';

const SECONDS = 60;

const KIND_WORDS: Readonly<Record<EventKind, string>> = {
  motion: 'motion',
  line: 'line crossed',
  area: 'area entered',
  sound: 'audio',
  input: 'input',
  tamper: 'covered or turned',
  other: 'other',
};

/** Seconds since it began to listen. */
function useElapsedS(state: ListenState): number {
  const [now, setNow] = useState(0);
  const sinceMs = state.status === 'listening' ? state.sinceMs : null;
  useEffect(() => {
    if (sinceMs === null) return;
    const timer = setInterval(() => setNow((performance.now() - sinceMs) / 1000), 200);
    return () => clearInterval(timer);
  }, [sinceMs]);
  return now;
}

/** A minute of its events, while somebody walks in front of it. */
export function ListenPanel({ camera, access }: { camera: Camera; access: DeviceAccess }) {
  const dispatch = useAppDispatch();
  const index = useAppSelector(selectIndex);
  const [isAsked, setIsAsked] = useState(false);
  const [state, setState] = useState<ListenState>({ status: 'none' });
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const isOn = state.status === 'opening' || state.status === 'listening';
  const elapsedS = useElapsedS(state);
  const before = lastPayload(index, cameraSubject(camera.id), 'heard');
  const start = (): void => {
    const { request } = access;
    if (request) stop.current = listenTo(camera.id, { ...request, seconds: SECONDS }, dispatch, setState);
    setIsAsked(request === null);
  };
  return (
    <Panel
      title="Events (motion, person, …)"
      aside={
        state.status === 'none' && before
          ? `${sayMany(before.payload.heard.changes, 'event')} received ${sayWhen(before.takenAt)}`
          : undefined
      }
      actions={
        isOn ? (
          <Button onClick={() => stop.current?.()}>Stop listening</Button>
        ) : (
          <Button onClick={start}>{state.status === 'none' ? 'Listen for a minute' : 'Listen again'}</Button>
        )
      }
    >
      {isAsked && <AccessWanted camera={camera} access={access} />}
      {state.status === 'none' ? (
        <p className="text-small text-soft">
          Listening opens a subscription, shows its events as they happen, and ends the subscription. Walk through the
          middle of its picture meanwhile.
        </p>
      ) : (
        <EventStrip state={state} elapsedS={elapsedS} />
      )}
    </Panel>
  );
}

function EventStrip({ state, elapsedS }: { state: Exclude<ListenState, { status: 'none' }>; elapsedS: number }) {
  const changes = state.events.filter(({ event }) => event.change !== 'initialized');
  const topics = [...new Set(state.events.map(({ event }) => event.topic))];
  const last = changes.at(-1);
  const isOver = state.status === 'over' || state.status === 'broken';
  const said =
    state.status === 'opening'
      ? 'Opening a subscription'
      : isOver
        ? `${sayMany(changes.length, 'event')} in ${Math.round(state.heard?.seconds ?? 0)} s`
        : changes.length === 0
          ? 'Walk in front of it now'
          : `${sayMany(changes.length, 'event')}, the last: ${last ? KIND_WORDS[last.event.kind] : ''}`;
  return (
    <div>
      <p role="status" className={changes.length === 0 && !isOver ? 'font-strong' : ''}>
        {said}
      </p>
      <div className="mt-2 flex flex-col gap-1">
        {topics.length === 0 && (
          <Row label="nothing yet" events={[]} seconds={state.seconds} elapsedS={elapsedS} isOver={isOver} />
        )}
        {topics.map((topic) => (
          <Row
            key={topic}
            label={topic}
            events={state.events.filter(({ event }) => event.topic === topic)}
            seconds={state.seconds}
            elapsedS={elapsedS}
            isOver={isOver}
          />
        ))}
      </div>
      {state.message && <p className="mt-2 text-small text-soft">{state.message}</p>}
      {changes.length > 0 && (
        <ol aria-label="Events received" className="mt-2 max-h-40 overflow-auto border-t border-grid text-small">
          {changes
            .slice(-20)
            .toReversed()
            .map(({ event, atS }) => (
              <li key={`${atS} ${event.topic} ${event.data}`} className="flex flex-wrap gap-x-3 py-0.5">
                <span className="font-mono">{atS.toFixed(1)} s</span>
                <b>{KIND_WORDS[event.kind]}</b>
                <span className="font-mono text-soft">{event.data}</span>
              </li>
            ))}
        </ol>
      )}
    </div>
  );
}

interface RowProps {
  readonly label: string;
  readonly events: readonly HeardEvent[];
  readonly seconds: number;
  readonly elapsedS: number;
  readonly isOver: boolean;
}

/** One topic on the strip of a minute: a tick for each event, an empty stretch that is still to be filled. */
function Row({ label, events, seconds, elapsedS, isOver }: RowProps) {
  const placeOf = (s: number): string => `${Math.min(100, (100 * s) / seconds)}%`;
  return (
    <div className="grid grid-cols-[minmax(0,11rem)_1fr] items-center gap-2">
      <span className="truncate text-small text-soft" title={label}>
        {label.split('/').slice(-2).join(' / ')}
      </span>
      <span className="relative block h-5 border-b border-hair bg-grid">
        <span className="absolute inset-y-0 left-0 bg-sheet" style={{ width: isOver ? '100%' : placeOf(elapsedS) }} />
        {events.map(({ event, atS }) => (
          <span
            key={`${atS} ${event.data}`}
            className={`absolute inset-y-0.5 w-[3px] ${event.change === 'initialized' ? 'bg-faint' : event.isOn === false ? 'bg-hair' : 'bg-verdigris'}`}
            style={{ left: placeOf(atS) }}
            title={`${atS.toFixed(1)} s ${event.data}${event.change === 'initialized' ? ', as it stood' : ''}`}
          />
        ))}
      </span>
    </div>
  );
}
