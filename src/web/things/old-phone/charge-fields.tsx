import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { FEED_RANGES } from '../../../core/document/chapters/cameras/feed.ts';
import type { FactValue } from '../../../core/document/chapters/journal/entry.ts';
import type { HandQuantity } from '../../../core/document/chapters/journal/hand-quantities.ts';
import { readingOf } from '../../../core/document/chapters/journal/reading.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { bestKnown } from '../../../core/evidence/best-known.ts';
import { HEAT_RANGES } from '../../../core/old-phone/heat.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import { readingUnder } from '../../../core/stations/prepare/index.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { SelectField } from '../../ui/text-field.tsx';

/** How full a handset is kept, how warm it was read, how round its back is. */
export function ChargeFields({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const subject = cameraSubject(camera.id);
  const feed = camera.feed ?? { way: 'usb' as const, sun: null, charge: null };
  const batteryC = bestKnown(index, subject, 'batteryC')?.value;
  const isSwollen = bestKnown(index, subject, 'isSwollen')?.value;
  const read = (quantity: HandQuantity, value: FactValue | null): void =>
    void dispatch(
      commandIssued(
        readingOf(
          subject,
          subject,
          quantity,
          value,
          quantity === 'batteryC' ? readingUnder(camera, viewOf(site, index)) : [],
        ),
      ),
    );
  return (
    <>
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
        range={HEAT_RANGES.measuredC}
        isOptional
        hint="as its system shows"
        onKeep={(value) => read('batteryC', value)}
      />
      <SelectField
        label="Its back"
        value={typeof isSwollen === 'boolean' ? (isSwollen ? 'swollen' : 'flat') : ''}
        options={[
          { value: '', label: 'not looked at' },
          { value: 'flat', label: 'flat' },
          { value: 'swollen', label: 'swollen' },
        ]}
        onChange={(value) => read('isSwollen', value === '' ? null : value === 'swollen')}
      />
    </>
  );
}
