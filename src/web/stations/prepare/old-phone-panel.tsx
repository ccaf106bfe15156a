import { assumed } from '../../../core/assumptions/assumptions.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import {
  OLD_PHONE_LENSES,
  OLD_PHONE_RANGES,
  OLD_PHONE_WAYS,
  type OldPhone,
  UNSAID_OLD_PHONE,
} from '../../../core/document/chapters/cameras/old-phone.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { bestKnown } from '../../../core/evidence/best-known.ts';
import { MOUNT_WORDS, MOUNTS, minutesTo, SCREENS } from '../../../core/old-phone/heat.ts';
import { heatOfOldPhone, loadOf, sayMinutes } from '../../../core/stations/prepare/index.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { ChargeFields } from '../../things/old-phone/index.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { useSiteView } from '../use-site-view.ts';
import { HeatCurve } from './heat-curve.tsx';

const NOT_SAID = { value: '', label: 'not entered' };
const yesNo = (value: boolean | null): string => (value === null ? '' : value ? 'yes' : 'no');

/** How an old handset serves: where it sits, what it does, how warm that makes it. */
export function OldPhonePanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const view = useSiteView();
  const handset = camera.handset ?? UNSAID_OLD_PHONE;
  const subject = cameraSubject(camera.id);
  const set = (change: Partial<OldPhone>): void =>
    void dispatch(commandIssued({ kind: 'setHandset', cameraId: camera.id, handset: { ...handset, ...change } }));
  const heat = heatOfOldPhone(camera, view);
  const warmC = assumed(view.site.assumptions, 'power.cell-warm');
  const hotC = assumed(view.site.assumptions, 'power.cell-hot');
  const isSwollen = bestKnown(view.index, subject, 'isSwollen')?.value === true;
  const flag = (label: string, name: 'startsItself' | 'hasFixedMac' | 'sendsSound' | 'isHeardNearby') => (
    <SelectField
      label={label}
      value={yesNo(handset[name])}
      onChange={(value) => set({ [name]: value === '' ? null : value === 'yes' })}
      options={[NOT_SAID, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }]}
    />
  );
  const pick = <T extends string>(
    label: string,
    name: 'mount' | 'screen' | 'lens' | 'way',
    values: readonly T[],
    words: Readonly<Record<string, string>> = {},
  ) => (
    <SelectField
      label={label}
      value={handset[name] ?? ''}
      onChange={(value) => set({ [name]: values.find((one) => one === value) ?? null })}
      options={[NOT_SAID, ...values.map((value) => ({ value, label: words[value] ?? value }))]}
    />
  );
  const minutes = heat && handset.roomC !== null ? minutesTo(heat.run, handset.roomC, warmC) : null;
  return (
    <Panel title="Old phone" aside={heat ? `${heat.run.watts.toFixed(1)} W become heat` : undefined}>
      {heat && handset.roomC !== null ? (
        <>
          <HeatCurve run={heat.run} roomC={handset.roomC} warmC={warmC} hotC={hotC} />
          <p className="mb-3 text-small">
            {minutes === null
              ? `It reaches ${Math.round(heat.run.steadyC)} °C, below the ${warmC} °C from which it throttles.`
              : `It reaches ${Math.round(heat.run.steadyC)} °C; from ${warmC} °C, ${minutes < 1 ? 'at once' : `after ${sayMinutes(minutes)}`}, it lowers its frame rate.`}{' '}
            <span className="text-soft">
              {heat.isRead
                ? 'Adjusted to what was measured there.'
                : 'Computed; measure its battery after an hour to adjust it.'}
            </span>
          </p>
        </>
      ) : (
        <p className="mb-3 text-soft">
          {loadOf(camera, view) === null && handset.screen !== null
            ? 'Plan resolution and frame rate of its stream, and its temperature is computed.'
            : 'Enter where it sits, its screen and the room, and its temperature is computed.'}
        </p>
      )}
      {isSwollen && (
        <p role="alert" className="mb-3 border-l-[3px] border-brick bg-brick-wash py-1 pl-3">
          Swollen battery: stop. Do not charge it, press it or open it. Take it out of the building, to a collection
          point.
        </p>
      )}
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2">
        {pick('Where it sits', 'mount', MOUNTS, MOUNT_WORDS)}
        <NumberField
          label="Warmest room temperature, °C"
          value={handset.roomC}
          range={OLD_PHONE_RANGES.roomC}
          isOptional
          onKeep={(roomC) => set({ roomC })}
        />
        {pick('Its screen', 'screen', SCREENS)}
        <ChargeFields camera={camera} />
        {pick('Lens', 'lens', OLD_PHONE_LENSES, { back: 'rear', front: 'front' })}
        {pick('Its stream goes', 'way', OLD_PHONE_WAYS, {
          local: 'by a server on the phone',
          account: 'through the maker’s cloud',
        })}
        {flag('Streams again after a restart', 'startsItself')}
        {flag('MAC address is fixed', 'hasFixedMac')}
        {flag('Sends audio', 'sendsSound')}
        {flag('Its audio is played in the same room', 'isHeardNearby')}
        <NumberField
          label="Storage for its own recording, GB"
          value={handset.loopGB}
          range={OLD_PHONE_RANGES.loopGB}
          isOptional
          onKeep={(loopGB) => set({ loopGB })}
        />
        <NumberField
          label="Hours of it needed"
          value={handset.loopHoursWanted}
          range={OLD_PHONE_RANGES.loopHoursWanted}
          isOptional
          onKeep={(loopHoursWanted) => set({ loopHoursWanted })}
        />
      </div>
      <p className="mt-3 text-small text-soft">
        Lithium: on a base that does not burn, out of the sun, with air behind it; never in a room where people sleep.
        Above {hotC} °C, or when it is swollen, switch it off.
      </p>
    </Panel>
  );
}
