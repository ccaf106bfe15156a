import { yupResolver } from '@hookform/resolvers/yup';
import type { ComponentProps } from 'react';
import { useForm } from 'react-hook-form';
import { GEAR_KINDS, type Gear, type GearKind } from '../../../core/document/chapters/gear/gear.ts';
import { gearSubject } from '../../../core/document/subject.ts';
import { RADIO_KINDS } from '../../../core/radio/radio.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { Joins } from '../link/index.ts';
import { ThingActs } from '../thing/index.ts';
import {
  type GearFields,
  gearFieldsOf,
  gearFormSchema,
  gearOf,
  POE_CLASS_CHOICES,
  USUAL_GEAR,
  USUAL_VOLTS,
} from './gear-form-schema.ts';

export const GEAR_WORDS: Readonly<Record<GearKind, string>> = {
  switch: 'switch',
  injector: 'injector',
  supply: 'supply',
  'access-point': 'access point',
  powerline: 'powerline',
  router: 'router',
};

const { Field, Choice, Tick } = fieldsFor<GearFields>();
const Figure = (props: Pick<ComponentProps<typeof Field>, 'name' | 'label'>) => (
  <Field className="col-span-3" {...props} />
);

const PSE_TYPES = [
  { value: '1', label: '1 (af): up to class 3' },
  { value: '2', label: '2 (at): up to class 4' },
  { value: '3', label: '3 (bt): up to class 6' },
  { value: '4', label: '4 (bt): up to class 8' },
];
const RESERVES = [
  { value: 'class', label: 'what the class may take' },
  { value: 'measured', label: 'what is taken' },
];
const OUTPUTS = [
  { value: 'dc', label: 'low voltage' },
  { value: 'usb', label: 'USB' },
];
const RADIOS = RADIO_KINDS.map(({ id, label, band }) => ({
  value: id,
  label: `${label}${band === 'sub-GHz' ? '' : `, ${band} GHz`}`,
}));

const SwitchFigures = () => (
  <>
    <Figure name="ports" label="Ports" />
    <Figure name="poePorts" label="Of these, ports that feed" />
    <Choice name="pseType" label="Type of IEEE 802.3" className="col-span-3" options={PSE_TYPES} />
    <Figure name="budgetW" label="Budget of all ports, W" />
    <Choice name="reserves" label="It reserves" className="col-span-3" options={RESERVES} />
    <Figure name="uplinkMbps" label="Uplink, Mbit/s" />
  </>
);

const AccessPointFigures = () => (
  <>
    <Choice name="radio" label="Radio" className="col-span-3" options={RADIOS} />
    <Figure name="eirpDbm" label="Radiated, dBm" />
    <Figure name="channel" label="Channel" />
    <Choice
      name="poeClass"
      label="Fed by its switch"
      className="col-span-3"
      options={[{ value: '', label: 'no' }, ...POE_CLASS_CHOICES]}
    />
  </>
);

interface GearDialogProps {
  readonly edited: Gear | 'new';
  readonly onClose: () => void;
  readonly onKept?: (gear: Gear) => void;
}

/** One piece of gear and its figures, as printed on it. */
export function GearDialog({ edited, onClose, onKept }: GearDialogProps) {
  const dispatch = useAppDispatch();
  const before = edited === 'new' ? null : edited;
  const form = useForm({
    resolver: yupResolver(gearFormSchema),
    defaultValues: { ...USUAL_GEAR, ...gearFieldsOf(before) },
  });
  const kind = form.watch('kind');
  const keep = (fields: GearFields): void => {
    const gear = gearOf(
      { id: before?.id ?? newId('gear'), name: fields.name, position: before?.position ?? null },
      fields,
      before,
    );
    dispatch(commandIssued({ kind: 'putGear', gear }));
    onKept?.(gear);
    onClose();
  };
  // Volts that nobody typed follow what it is: a USB supply has five.
  const usualVolts = (volts: number): void => {
    if (!form.getFieldState('volts').isDirty) form.resetField('volts', { defaultValue: volts });
  };
  return (
    <DialogFrame
      title={before ? before.name : 'New gear'}
      description="Figures as printed on it. A field that stays empty is taken as most gear is; a price stays not known."
      isOpen
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="grid grid-cols-6 gap-x-3 gap-y-3">
        <Choice
          name="kind"
          label="Kind"
          className="col-span-3"
          options={GEAR_KINDS.map((value) => ({ value, label: GEAR_WORDS[value] }))}
          onChosen={(next) => usualVolts(next === 'injector' ? USUAL_VOLTS.injector : USUAL_VOLTS.dc)}
        />
        <Field name="name" label="Name" isText className="col-span-3" />
        {kind === 'switch' && <SwitchFigures />}
        {kind === 'injector' && (
          <>
            <Figure name="volts" label="Voltage, V" />
            <Figure name="watts" label="Watts" />
            <Tick name="isPassive" label="passive: it does not negotiate" className="col-span-6" />
          </>
        )}
        {kind === 'supply' && (
          <>
            <Choice
              name="output"
              label="Output"
              className="col-span-6"
              options={OUTPUTS}
              onChosen={(next) => usualVolts(next === 'usb' ? USUAL_VOLTS.usb : USUAL_VOLTS.dc)}
            />
            <Figure name="volts" label="Voltage, V" />
            <Figure name="amps" label="Current, A" />
          </>
        )}
        {kind === 'access-point' && <AccessPointFigures />}
        {kind === 'powerline' && <Figure name="syncMbps" label="Sync rate, Mbit/s" />}
        {kind === 'router' && <Figure name="uploadMbps" label="Upload to the internet, Mbit/s" />}
        <Figure name="price" label="Price" />
        <FormFoot
          onLeave={onClose}
          acts={before && <ThingActs kind="gear" id={before.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
      {before && (
        <div className="mt-4 border-t border-hair pt-3">
          <h3 className="mb-1 text-small">Joined to</h3>
          <Joins subject={gearSubject(before.id)} />
        </div>
      )}
    </DialogFrame>
  );
}
