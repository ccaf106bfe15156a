import { type InferType, object, string } from 'yup';
import { GEAR_KINDS, type Gear } from '../../../core/document/chapters/gear/gear.ts';
import { GEAR_FIELDS, GEAR_RANGES, USUAL_VOLTS } from '../../../core/document/chapters/gear/gear-fields.ts';
import { usualOf } from '../../../core/fields/field.ts';
import { RADIO_KINDS, radioKind } from '../../../core/radio/radio-kinds.ts';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { formTable } from '../../ui/form-table.ts';
import { nameField } from '../../ui/form-texts.ts';

const ofSwitch = formTable(GEAR_FIELDS.switch);
const ofInjector = formTable(GEAR_FIELDS.injector);
const ofSupply = formTable(GEAR_FIELDS.supply);
const ofAccessPoint = formTable(GEAR_FIELDS['access-point']);
const ofPowerline = formTable(GEAR_FIELDS.powerline);
const ofRouter = formTable(GEAR_FIELDS.router);

/** Figures of a kind that is not chosen are not looked at: nobody sees them. */
const whenChosen = <F extends Parameters<typeof object>[0]>(kind: Gear['kind'], fields: F) =>
  object(fields as F & object).when('kind', ([chosen], schema) =>
    chosen === kind ? schema : (object() as unknown as typeof schema),
  );

/** Figures of gear as they are typed, each kind for itself. */
export const gearFormSchema = object({
  kind: string().oneOf(GEAR_KINDS).required(),
  name: nameField(),
  price: optionalNumber('Price', GEAR_RANGES.price),
  switch: whenChosen('switch', ofSwitch.fields).test('of-ports', 'More PoE ports than ports.', (value, context) => {
    const { ports, poePorts } = value as { ports?: number; poePorts?: number };
    const most = ports ?? GEAR_FIELDS.switch.ports.usual;
    return (
      context.parent.kind !== 'switch' ||
      poePorts === undefined ||
      poePorts <= most ||
      context.createError({ path: 'switch.poePorts' })
    );
  }),
  injector: whenChosen('injector', ofInjector.fields),
  supply: whenChosen('supply', ofSupply.fields),
  accessPoint: whenChosen('access-point', { radio: string().required(), ...ofAccessPoint.fields }),
  powerline: whenChosen('powerline', ofPowerline.fields),
  router: whenChosen('router', ofRouter.fields),
});
export type GearFields = InferType<typeof gearFormSchema>;

const USUAL_RADIO = 'n20';

/** As most gear is, each kind; of gear that is there its own figures. */
export function gearFieldsOf(gear: Gear | null): GearFields {
  const fields: GearFields = {
    kind: gear?.kind ?? 'switch',
    name: gear?.name ?? '',
    price: gear?.price ?? undefined,
    switch: ofSwitch.show(usualOf(GEAR_FIELDS.switch)),
    injector: ofInjector.show(usualOf(GEAR_FIELDS.injector)),
    supply: ofSupply.show(usualOf(GEAR_FIELDS.supply)),
    accessPoint: { radio: USUAL_RADIO, ...ofAccessPoint.show(usualOf(GEAR_FIELDS['access-point'])) },
    powerline: ofPowerline.show(usualOf(GEAR_FIELDS.powerline)),
    router: ofRouter.show(usualOf(GEAR_FIELDS.router)),
  };
  switch (gear?.kind) {
    case undefined:
      return fields;
    case 'switch':
      return { ...fields, switch: ofSwitch.show(gear) };
    case 'injector':
      return { ...fields, injector: ofInjector.show(gear) };
    case 'supply':
      return { ...fields, supply: ofSupply.show(gear) };
    case 'access-point':
      return { ...fields, accessPoint: { radio: gear.radio, ...ofAccessPoint.show(gear) } };
    case 'powerline':
      return { ...fields, powerline: ofPowerline.show(gear) };
    case 'router':
      return { ...fields, router: ofRouter.show(gear) };
  }
}

/** Gear as the fields say; what no field shows stays as it was before, and an empty one is as most gear is. */
export function gearOf(place: Pick<Gear, 'id' | 'position'>, fields: GearFields, before: Gear | null = null): Gear {
  const base = { ...place, name: fields.name, price: fields.price ?? null };
  switch (fields.kind) {
    case 'switch': {
      const figures = ofSwitch.read(fields.switch);
      return {
        ...base,
        kind: 'switch',
        ...figures,
        poePorts: fields.switch.poePorts ?? figures.ports,
        pseVolts: before?.kind === 'switch' ? before.pseVolts : GEAR_FIELDS.switch.pseVolts.usual,
      };
    }
    case 'injector': {
      const { isPassive, volts } = fields.injector;
      const usual = USUAL_VOLTS[isPassive ? 'passive' : 'injector'];
      return { ...base, kind: 'injector', ...ofInjector.read(fields.injector), volts: volts ?? usual };
    }
    case 'supply': {
      const figures = ofSupply.read(fields.supply);
      return { ...base, kind: 'supply', ...figures, volts: fields.supply.volts ?? USUAL_VOLTS[figures.output] };
    }
    case 'access-point': {
      const kind = radioKind(fields.accessPoint.radio) ?? RADIO_KINDS[1];
      const air = { band: kind?.band ?? '2.4', radio: kind?.id ?? USUAL_RADIO };
      return { ...base, kind: 'access-point', ...air, ...ofAccessPoint.read(fields.accessPoint) };
    }
    case 'powerline':
      return { ...base, kind: 'powerline', ...ofPowerline.read(fields.powerline) };
    case 'router':
      return { ...base, kind: 'router', ...ofRouter.read(fields.router) };
  }
}
