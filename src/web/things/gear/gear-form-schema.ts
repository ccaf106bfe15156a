import { boolean, type InferType, object, string } from 'yup';
import { GEAR_KINDS, GEAR_RANGES, type Gear, type PseType } from '../../../core/document/chapters/gear/gear.ts';
import { RADIO_KINDS, radioKind } from '../../../core/radio/radio.ts';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { nameField } from '../../ui/form-texts.ts';

export const POE_CLASS_CHOICES = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((value) => ({
  value: String(value),
  label: `class ${value}`,
}));

/** Figures of gear as they are typed. */
export const gearFormSchema = object({
  kind: string().oneOf(GEAR_KINDS).required(),
  name: nameField(),
  ports: optionalNumber('Ports', GEAR_RANGES.ports),
  poePorts: optionalNumber('Ports that feed', GEAR_RANGES.poePorts).test(
    'of-ports',
    'More ports feed than there are.',
    (value, { parent }) =>
      value === undefined || parent.kind !== 'switch' || value <= (parent.ports ?? GEAR_RANGES.ports.max),
  ),
  pseType: string().required(),
  budgetW: optionalNumber('Budget', GEAR_RANGES.budgetW),
  reserves: string().oneOf(['class', 'measured']).required(),
  uplinkMbps: optionalNumber('Uplink', GEAR_RANGES.uplinkMbps),
  isPassive: boolean().required(),
  volts: optionalNumber('Voltage', GEAR_RANGES.volts),
  watts: optionalNumber('Watts', GEAR_RANGES.watts),
  output: string().oneOf(['dc', 'usb']).required(),
  amps: optionalNumber('Current', GEAR_RANGES.amps),
  radio: string().required(),
  eirpDbm: optionalNumber('Radiated power', GEAR_RANGES.eirpDbm),
  channel: optionalNumber('Channel', GEAR_RANGES.channel),
  poeClass: string()
    .oneOf(['', ...POE_CLASS_CHOICES.map(({ value }) => value)])
    .defined(),
  syncMbps: optionalNumber('Sync rate', GEAR_RANGES.syncMbps),
  uploadMbps: optionalNumber('Upload', GEAR_RANGES.uplinkMbps),
  price: optionalNumber('Price', GEAR_RANGES.price),
});

export type GearFields = InferType<typeof gearFormSchema>;
/** As most gear is; an empty field is taken so. */
export const USUAL_GEAR: GearFields = {
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
  uploadMbps: undefined,
  price: undefined,
};

/** What is printed on most of a kind; USB has its five volts, an injector its forty-eight. */
export const USUAL_VOLTS = { dc: 12, usb: 5, injector: 48, passive: 24 } as const;

export const gearFieldsOf = (gear: Gear | null): Partial<GearFields> =>
  gear ? { price: gear.price ?? undefined, ...figuresOf(gear) } : {};

function figuresOf(gear: Gear): Partial<GearFields> {
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
      return { kind, name, uploadMbps: gear.uploadMbps ?? undefined };
  }
}

const TYPES: readonly PseType[] = [1, 2, 3, 4];
/** Middle of what IEEE 802.3 lets a switch give, V. */
const PSE_VOLTS = 52;

/** Gear as the fields say; what no field shows stays as it was before. */
export function gearOf(
  place: Pick<Gear, 'id' | 'name' | 'position'>,
  fields: GearFields,
  before: Gear | null = null,
): Gear {
  const base = { ...place, price: fields.price ?? null };
  switch (fields.kind) {
    case 'switch': {
      const ports = fields.ports ?? 8;
      return {
        ...base,
        kind: 'switch',
        ports,
        poePorts: fields.poePorts ?? ports,
        pseType: TYPES.find((type) => String(type) === fields.pseType) ?? 2,
        budgetW: fields.budgetW ?? 65,
        pseVolts: before?.kind === 'switch' ? before.pseVolts : PSE_VOLTS,
        reserves: fields.reserves,
        uplinkMbps: fields.uplinkMbps ?? 1000,
      };
    }
    case 'injector':
      return {
        ...base,
        kind: 'injector',
        isPassive: fields.isPassive,
        volts: fields.volts ?? USUAL_VOLTS[fields.isPassive ? 'passive' : 'injector'],
        watts: fields.watts ?? 15.4,
      };
    case 'supply':
      return {
        ...base,
        kind: 'supply',
        output: fields.output,
        volts: fields.volts ?? USUAL_VOLTS[fields.output],
        amps: fields.amps ?? 2,
      };
    case 'access-point': {
      const kind = radioKind(fields.radio) ?? RADIO_KINDS[1];
      return {
        ...base,
        kind: 'access-point',
        band: kind?.band ?? '2.4',
        radio: kind?.id ?? 'n20',
        eirpDbm: fields.eirpDbm ?? 20,
        channel: fields.channel ?? null,
        poeClass: fields.poeClass === '' ? null : Number(fields.poeClass),
      };
    }
    case 'powerline':
      return { ...base, kind: 'powerline', syncMbps: fields.syncMbps ?? 200 };
    case 'router':
      return { ...base, kind: 'router', uploadMbps: fields.uploadMbps ?? null };
  }
}
