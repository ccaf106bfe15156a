import type { ISchema } from 'yup';
import { TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import { byField, id, line, oneOf, orNull, shape, text, within } from '../../../base/schema-parts.ts';
import { RADIO_BANDS } from '../../../base/ways.ts';
import { shapeFrom } from '../../../fields/field-shapes.ts';
import { GEAR_KINDS, type Gear, type GearKind, type GearOf } from './gear.ts';
import { GEAR_FIELDS, GEAR_RANGES } from './gear-fields.ts';

const base = <K extends GearKind>(kind: K) => ({
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  position: orNull(pointShape),
  price: orNull(within(GEAR_RANGES.price)),
  kind: oneOf([kind]),
});
const GEAR_SHAPES: { readonly [K in GearKind]: ISchema<GearOf<K>> } = {
  switch: shapeFrom<GearOf<'switch'>>()(GEAR_FIELDS.switch, { ...base('switch'), pseVolts: within(GEAR_RANGES.volts) }),
  injector: shapeFrom<GearOf<'injector'>>()(GEAR_FIELDS.injector, base('injector')),
  supply: shapeFrom<GearOf<'supply'>>()(GEAR_FIELDS.supply, base('supply')),
  'access-point': shapeFrom<GearOf<'access-point'>>()(GEAR_FIELDS['access-point'], {
    ...base('access-point'),
    band: oneOf(RADIO_BANDS),
    radio: text(TEXT_LIMITS.label).min(1),
  }),
  powerline: shapeFrom<GearOf<'powerline'>>()(GEAR_FIELDS.powerline, base('powerline')),
  router: shapeFrom<GearOf<'router'>>()(GEAR_FIELDS.router, base('router')),
};
export const gearShape = byField<Gear>('kind', GEAR_SHAPES, shape({ kind: oneOf(GEAR_KINDS) }));
