import { between } from '../../../core/base/range.ts';
import { bestKnown } from '../../../core/document/best-known.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { FEED_RANGES } from '../../../core/document/chapters/cameras/feed.ts';
import type { FactValue } from '../../../core/document/chapters/journal/entry.ts';
import type { QuantityName } from '../../../core/document/chapters/journal/quantities.ts';
import { readingOf } from '../../../core/document/chapters/journal/reading.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { commandIssued, selectIndex } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';

/** A handset lives on its charger: how full, how warm, how round. */
export function ChargePanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const index = useAppSelector(selectIndex);
  const subject = cameraSubject(camera.id);
  const feed = camera.feed ?? { way: 'usb' as const, sun: null, charge: null };
  const batteryC = bestKnown(index, subject, 'batteryC')?.value;
  const read = (quantity: QuantityName, value: FactValue | null): void =>
    void dispatch(commandIssued(readingOf(subject, subject, quantity, value)));
  return (
    <Panel title="On its charger" aside="held between 40 and 80 % a cell lasts">
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3">
        <NumberField
          label="Charge limit, %"
          value={feed.charge?.limitPercent ?? null}
          range={FEED_RANGES.limitPercent}
          isOptional
          hint="empty: none is set"
          onKeep={(limitPercent) =>
            void dispatch(
              commandIssued({ kind: 'setFeed', cameraId: camera.id, feed: { ...feed, charge: { limitPercent } } }),
            )
          }
        />
        <NumberField
          label="Battery after an hour, °C"
          value={typeof batteryC === 'number' ? batteryC : null}
          range={between(-20, 90, '°C')}
          isOptional
          hint="as its system says"
          onKeep={(value) => read('batteryC', value)}
        />
        <CheckField
          label="its back bulges"
          className="self-center"
          checked={bestKnown(index, subject, 'isSwollen')?.value === true}
          onChange={(event) => read('isSwollen', event.target.checked)}
        />
      </div>
    </Panel>
  );
}
