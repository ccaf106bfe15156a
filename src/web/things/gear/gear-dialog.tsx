import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { GEAR_KINDS, type Gear, type GearKind } from '../../../core/document/chapters/gear/gear.ts';
import { gearSubject } from '../../../core/document/subject.ts';
import { RADIO_KINDS } from '../../../core/radio/radio.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { Joins } from '../link/joins.tsx';
import { gearFieldsOf, gearFormSchema, gearOf, POE_CLASS_CHOICES, USUAL_GEAR } from './gear-form-schema.ts';

export const GEAR_WORDS: Readonly<Record<GearKind, string>> = {
  switch: 'switch',
  injector: 'injector',
  supply: 'supply',
  'access-point': 'access point',
  powerline: 'powerline',
  router: 'router',
};

interface GearDialogProps {
  readonly edited: Gear | 'new';
  readonly onClose: () => void;
  readonly onKept?: (gear: Gear) => void;
}

/** One piece of gear and its figures, as printed on it. */
export function GearDialog({ edited, onClose, onKept }: GearDialogProps) {
  const dispatch = useAppDispatch();
  const before = edited === 'new' ? null : edited;
  const { register, handleSubmit, formState, watch, setValue } = useForm({
    resolver: yupResolver(gearFormSchema),
    defaultValues: { ...USUAL_GEAR, ...gearFieldsOf(before) },
  });
  const { errors } = formState;
  const kind = watch('kind');
  const save = handleSubmit((fields) => {
    const gear = gearOf(
      { id: before?.id ?? newId('gear'), name: fields.name, position: before?.position ?? null },
      fields,
      before,
    );
    dispatch(commandIssued({ kind: 'putGear', gear }));
    onKept?.(gear);
    onClose();
  });
  const remove = (gearId: string): void => {
    dispatch(commandIssued({ kind: 'removeGear', gearId }));
    onClose();
  };
  type Name = Parameters<typeof register>[0];
  const field = (name: Name, label: string, error?: string) => (
    <TextField label={label} className="col-span-3" inputMode="decimal" error={error} {...register(name)} />
  );
  return (
    <DialogFrame
      title={before ? before.name : 'New gear'}
      description="Figures as printed on it. Empty fields are taken as usual."
      isOpen
      onOpenChange={onClose}
    >
      <form onSubmit={(event) => void save(event)} className="grid grid-cols-6 gap-x-3 gap-y-3" noValidate>
        <SelectField
          label="Kind"
          className="col-span-3"
          value={kind}
          onChange={(value) => GEAR_KINDS.some((one) => one === value) && setValue('kind', value as GearKind)}
          options={GEAR_KINDS.map((value) => ({ value, label: GEAR_WORDS[value] }))}
        />
        <TextField label="Name" className="col-span-3" error={errors.name?.message} {...register('name')} />
        {kind === 'switch' && (
          <>
            {field('ports', 'Ports', errors.ports?.message)}
            {field('poePorts', 'Of these, ports that feed', errors.poePorts?.message)}
            <SelectField
              label="Type of IEEE 802.3"
              className="col-span-3"
              value={watch('pseType')}
              onChange={(value) => setValue('pseType', value)}
              options={[
                { value: '1', label: '1 (af): up to class 3' },
                { value: '2', label: '2 (at): up to class 4' },
                { value: '3', label: '3 (bt): up to class 6' },
                { value: '4', label: '4 (bt): up to class 8' },
              ]}
            />
            {field('budgetW', 'Budget of all ports, W', errors.budgetW?.message)}
            <SelectField
              label="It reserves"
              className="col-span-3"
              value={watch('reserves')}
              onChange={(value) => setValue('reserves', value === 'measured' ? 'measured' : 'class')}
              options={[
                { value: 'class', label: 'what the class may take' },
                { value: 'measured', label: 'what is taken' },
              ]}
            />
            {field('uplinkMbps', 'Uplink, Mbit/s', errors.uplinkMbps?.message)}
          </>
        )}
        {kind === 'injector' && (
          <>
            {field('volts', 'Voltage, V', errors.volts?.message)}
            {field('watts', 'Watts', errors.watts?.message)}
            <CheckField label="passive: it does not negotiate" className="col-span-6" {...register('isPassive')} />
          </>
        )}
        {kind === 'supply' && (
          <>
            <SelectField
              label="Output"
              className="col-span-6"
              value={watch('output')}
              onChange={(value) => setValue('output', value === 'usb' ? 'usb' : 'dc')}
              options={[
                { value: 'dc', label: 'low voltage' },
                { value: 'usb', label: 'USB' },
              ]}
            />
            {field('volts', 'Voltage, V', errors.volts?.message)}
            {field('amps', 'Current, A', errors.amps?.message)}
          </>
        )}
        {kind === 'access-point' && (
          <>
            <SelectField
              label="Radio"
              className="col-span-3"
              value={watch('radio')}
              onChange={(value) => setValue('radio', value)}
              options={RADIO_KINDS.map(({ id, label, band }) => ({
                value: id,
                label: `${label}${band === 'sub-GHz' ? '' : `, ${band} GHz`}`,
              }))}
            />
            {field('eirpDbm', 'Radiated, dBm', errors.eirpDbm?.message)}
            {field('channel', 'Channel', errors.channel?.message)}
            <SelectField
              label="Fed by its switch"
              className="col-span-3"
              value={watch('poeClass')}
              onChange={(value) => setValue('poeClass', value)}
              options={[{ value: '', label: 'no' }, ...POE_CLASS_CHOICES]}
            />
          </>
        )}
        {kind === 'powerline' && field('syncMbps', 'Sync rate, Mbit/s', errors.syncMbps?.message)}
        <FormFoot onLeave={onClose} onRemove={before ? () => remove(before.id) : undefined} />
      </form>
      {before && (
        <div className="mt-4 border-t border-hair pt-3">
          <h3 className="mb-1 text-small">Joined to</h3>
          <Joins subject={gearSubject(before.id)} />
        </div>
      )}
    </DialogFrame>
  );
}
