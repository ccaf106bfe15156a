import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { boolean, type InferType, object, string } from 'yup';
import { RADIO_KINDS, radioKind } from '../../../core/net/radio.ts';
import { GEAR_KINDS, type Gear, type GearKind, type PseType } from '../../../core/site/planning-types.ts';
import { Joins } from '../../plan/joins.tsx';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { CheckField } from '../../ui/check-field.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { SelectField, TextField } from '../../ui/text-field.tsx';

export const GEAR_WORDS: Readonly<Record<GearKind, string>> = {
  switch: 'switch',
  injector: 'injector',
  supply: 'supply',
  'access-point': 'access point',
  powerline: 'powerline',
  router: 'router',
};

const POE_CLASS_CHOICES = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((value) => ({
  value: String(value),
  label: `class ${value}`,
}));

const schema = object({
  kind: string().oneOf(GEAR_KINDS).required(),
  name: string().trim().required('A name is needed.').max(80, 'At most 80 characters.'),
  ports: optionalNumber('Ports', { min: 1, max: 96 }),
  poePorts: optionalNumber('Ports that feed', { min: 0, max: 96 }).test(
    'of-ports',
    'More ports feed than there are.',
    (value, { parent }) => value === undefined || parent.kind !== 'switch' || value <= (parent.ports ?? 96),
  ),
  pseType: string().required(),
  budgetW: optionalNumber('Budget', { min: 0, max: 5000, unit: 'W' }),
  reserves: string().oneOf(['class', 'measured']).required(),
  uplinkMbps: optionalNumber('Uplink', { min: 1, max: 400_000, unit: 'Mbit/s' }),
  isPassive: boolean().required(),
  volts: optionalNumber('Voltage', { min: 1, max: 60, unit: 'V' }),
  watts: optionalNumber('Watts', { min: 0.5, max: 1000, unit: 'W' }),
  output: string().oneOf(['dc', 'usb']).required(),
  amps: optionalNumber('Current', { min: 0.05, max: 100, unit: 'A' }),
  radio: string().required(),
  eirpDbm: optionalNumber('Radiated power', { min: -10, max: 36, unit: 'dBm' }),
  channel: optionalNumber('Channel', { min: 1, max: 200 }),
  poeClass: string()
    .oneOf(['', ...POE_CLASS_CHOICES.map(({ value }) => value)])
    .defined(),
  syncMbps: optionalNumber('Sync rate', { min: 1, max: 3000, unit: 'Mbit/s' }),
});

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
    resolver: yupResolver(schema),
    defaultValues: { ...USUAL, ...fieldsOf(before) },
  });
  const { errors } = formState;
  const kind = watch('kind');
  const save = handleSubmit((fields) => {
    const gear = gearOf(
      { id: before?.id ?? newId('gear'), name: fields.name, position: before?.position ?? null },
      fields,
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
          <Joins subject={`gear:${before.id}`} />
        </div>
      )}
    </DialogFrame>
  );
}

type Fields = InferType<typeof schema>;
const USUAL: Fields = {
  kind: 'switch',
  name: '',
  ports: 8,
  poePorts: 8,
  pseType: '2',
  budgetW: 65,
  reserves: 'class',
  uplinkMbps: 1000,
  isPassive: false,
  volts: 12,
  watts: 24,
  output: 'dc',
  amps: 2,
  radio: 'n20',
  eirpDbm: 20,
  channel: undefined,
  poeClass: '',
  syncMbps: 200,
};

function fieldsOf(gear: Gear | null): Partial<Fields> {
  if (!gear) return {};
  const { kind, name } = gear;
  switch (gear.kind) {
    case 'switch': {
      const { ports, poePorts, pseType, budgetW, reserves, uplinkMbps } = gear;
      return { kind, name, ports, poePorts, pseType: String(pseType), budgetW, reserves, uplinkMbps };
    }
    case 'injector':
      return { kind, name, isPassive: gear.isPassive, volts: gear.volts, watts: gear.watts };
    case 'supply':
      return { kind, name, output: gear.output, volts: gear.volts, amps: gear.amps };
    case 'access-point':
      return {
        kind,
        name,
        radio: gear.radio,
        eirpDbm: gear.eirpDbm,
        channel: gear.channel ?? undefined,
        poeClass: gear.poeClass === null ? '' : String(gear.poeClass),
      };
    case 'powerline':
      return { kind, name, syncMbps: gear.syncMbps };
    case 'router':
      return { kind, name };
  }
}

const TYPES: readonly PseType[] = [1, 2, 3, 4];
/** Middle of what IEEE 802.3 lets a switch give, V. */
const PSE_VOLTS = 52;

function gearOf(base: Pick<Gear, 'id' | 'name' | 'position'>, fields: Fields): Gear {
  switch (fields.kind) {
    case 'switch': {
      const ports = Math.round(fields.ports ?? 8);
      return {
        ...base,
        kind: 'switch',
        ports,
        poePorts: Math.round(fields.poePorts ?? ports),
        pseType: TYPES.find((type) => String(type) === fields.pseType) ?? 2,
        budgetW: fields.budgetW ?? 65,
        pseVolts: PSE_VOLTS,
        reserves: fields.reserves,
        uplinkMbps: fields.uplinkMbps ?? 1000,
      };
    }
    case 'injector':
      return {
        ...base,
        kind: 'injector',
        isPassive: fields.isPassive,
        volts: fields.volts ?? 48,
        watts: fields.watts ?? 15.4,
      };
    case 'supply':
      return { ...base, kind: 'supply', output: fields.output, volts: fields.volts ?? 12, amps: fields.amps ?? 2 };
    case 'access-point': {
      const kind = radioKind(fields.radio) ?? RADIO_KINDS[1];
      return {
        ...base,
        kind: 'access-point',
        band: kind?.band ?? '2.4',
        radio: kind?.id ?? 'n20',
        eirpDbm: fields.eirpDbm ?? 20,
        channel: fields.channel === undefined ? null : Math.round(fields.channel),
        poeClass: fields.poeClass === '' ? null : Number(fields.poeClass),
      };
    }
    case 'powerline':
      return { ...base, kind: 'powerline', syncMbps: fields.syncMbps ?? 200 };
    case 'router':
      return { ...base, kind: 'router', uploadMbps: null };
  }
}
