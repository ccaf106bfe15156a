import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { ChargeCare } from '../../../core/document/chapters/cameras/feed.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';

const NOTHING_SEEN: ChargeCare = { limitPercent: null, batteryC: null, isSwollen: false };

/** A handset lives on its charger: how full, how warm, how round. */
export function ChargePanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const feed = camera.feed ?? { way: 'usb' as const, sun: null, charge: null };
  const charge = feed.charge ?? NOTHING_SEEN;
  const change = (changed: Partial<ChargeCare>): void =>
    void dispatch(
      commandIssued({ kind: 'setFeed', cameraId: camera.id, feed: { ...feed, charge: { ...charge, ...changed } } }),
    );
  return (
    <Panel title="On its charger" aside="held between 40 and 80 % a cell lasts">
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3">
        <NumberField
          label="Charge limit, %"
          value={charge.limitPercent}
          min={20}
          max={100}
          isOptional
          hint="empty: none is set"
          onKeep={(limitPercent) => change({ limitPercent })}
        />
        <NumberField
          label="Battery after an hour, °C"
          value={charge.batteryC}
          min={-20}
          max={90}
          isOptional
          hint="as its system says"
          onKeep={(batteryC) => change({ batteryC })}
        />
        <CheckField
          label="its back bulges"
          className="self-center"
          checked={charge.isSwollen}
          onChange={(event) => change({ isSwollen: event.target.checked })}
        />
      </div>
    </Panel>
  );
}
