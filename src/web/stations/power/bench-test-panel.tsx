import { useState } from 'react';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { type BenchItem, benchItemsFor } from '../../../core/document/chapters/journal/bench-items.ts';
import { benchDone } from '../../../core/evidence/bench-test.ts';
import { commandIssued, selectIndex } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';

/** Before anything is mounted, everything is connected on a table: each line records what was seen, and when. */
export function BenchTestPanel({ camera }: { camera: Camera }) {
  const items = benchItemsFor(camera.feed?.way ?? null);
  const index = useAppSelector(selectIndex);
  const seen = items.filter((item) => benchDone(index, camera, item));
  return (
    <Panel title="On the bench, before the ladder" aside={`${seen.length} of ${items.length} checked`}>
      <ol className="flex flex-col">
        {items.map((item) => (
          <BenchLine key={item.id} camera={camera} item={item} />
        ))}
      </ol>
    </Panel>
  );
}

function BenchLine({ camera, item }: { camera: Camera; item: BenchItem }) {
  const dispatch = useAppDispatch();
  const index = useAppSelector(selectIndex);
  const known = benchDone(index, camera, item);
  const [seen, setSeen] = useState('');
  const record = (): void => {
    dispatch(
      commandIssued({
        kind: 'recordBenchTest',
        cameraId: camera.id,
        item,
        seen: seen.trim().slice(0, 200),
        by: 'at the bench',
      }),
    );
    setSeen('');
  };
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair py-1.5 last:border-b-0">
      <span className="min-w-56 flex-1">{item.ask}</span>
      {known ? (
        <span className="flex items-center gap-1.5 text-small">
          <span className="font-mono">{known.how === 'measured' ? 'by a probe' : String(known.value)}</span>
          <KnownHowMark how={known.how} detail={sayWhen(known.takenAt ?? '')} />
          <span className="text-soft">{sayWhen(known.takenAt ?? '')}</span>
        </span>
      ) : (
        <span className="flex items-center gap-2">
          <input
            aria-label={`Check: ${item.ask}`}
            placeholder="what was measured"
            value={seen}
            onChange={(event) => setSeen(event.target.value)}
            className="min-h-7 w-32 rounded-control border border-hair bg-paper px-2 text-small pointer-coarse:min-h-11"
          />
          <Button className="text-small" onClick={record}>
            Checked
          </Button>
        </span>
      )}
    </li>
  );
}
