import type { ISchema } from 'yup';
import { TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import {
  byField,
  flag,
  id,
  line,
  oneNumberOf,
  oneOf,
  orNull,
  shape,
  shapeOf,
  text,
  within,
} from '../../../base/schema-parts.ts';
import { RADIO_BANDS } from '../../../base/ways.ts';
import { GEAR_KINDS, GEAR_RANGES, type Gear, type GearKind } from './gear.ts';

type GearOf<K extends GearKind> = Extract<Gear, { readonly kind: K }>;

const gearBase = {
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  position: orNull(pointShape),
  price: orNull(within(GEAR_RANGES.price)),
};
const GEAR_SHAPES: { readonly [K in GearKind]: ISchema<GearOf<K>> } = {
  switch: shapeOf<GearOf<'switch'>>()({
    ...gearBase,
    kind: oneOf(['switch']),
    ports: within(GEAR_RANGES.ports),
    poePorts: within(GEAR_RANGES.poePorts),
    pseType: oneNumberOf([1, 2, 3, 4]),
    budgetW: within(GEAR_RANGES.budgetW),
    pseVolts: within(GEAR_RANGES.volts),
    reserves: oneOf(['class', 'measured']),
    uplinkMbps: within(GEAR_RANGES.uplinkMbps),
  }),
  injector: shapeOf<GearOf<'injector'>>()({
    ...gearBase,
    kind: oneOf(['injector']),
    isPassive: flag(),
    volts: within(GEAR_RANGES.volts),
    watts: within(GEAR_RANGES.watts),
  }),
  supply: shapeOf<GearOf<'supply'>>()({
    ...gearBase,
    kind: oneOf(['supply']),
    output: oneOf(['dc', 'usb']),
    volts: within(GEAR_RANGES.volts),
    amps: within(GEAR_RANGES.amps),
  }),
  'access-point': shapeOf<GearOf<'access-point'>>()({
    ...gearBase,
    kind: oneOf(['access-point']),
    band: oneOf(RADIO_BANDS),
    radio: text(TEXT_LIMITS.label).min(1),
    eirpDbm: within(GEAR_RANGES.eirpDbm),
    channel: orNull(within(GEAR_RANGES.channel)),
    poeClass: orNull(within(GEAR_RANGES.poeClass)),
  }),
  powerline: shapeOf<GearOf<'powerline'>>()({
    ...gearBase,
    kind: oneOf(['powerline']),
    syncMbps: within(GEAR_RANGES.syncMbps),
  }),
  router: shapeOf<GearOf<'router'>>()({
    ...gearBase,
    kind: oneOf(['router']),
    uploadMbps: orNull(within(GEAR_RANGES.uplinkMbps)),
  }),
};
export const gearShape = byField<Gear>('kind', GEAR_SHAPES, shape({ kind: oneOf(GEAR_KINDS) }));
