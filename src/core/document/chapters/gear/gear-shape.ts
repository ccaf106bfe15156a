import type { ISchema } from 'yup';
import { TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import {
  byField,
  flag,
  id,
  oneNumberOf,
  oneOf,
  orNull,
  positive,
  real,
  shape,
  shapeOf,
  text,
  whole,
} from '../../../base/schema-parts.ts';
import { RADIO_BANDS } from '../../../base/ways.ts';
import { GEAR_KINDS, type Gear, type GearKind } from './gear.ts';

type GearOf<K extends GearKind> = Extract<Gear, { readonly kind: K }>;

const gearBase = { id: id(), name: text(TEXT_LIMITS.name).min(1), position: orNull(pointShape) };
const GEAR_SHAPES: { readonly [K in GearKind]: ISchema<GearOf<K>> } = {
  switch: shapeOf<GearOf<'switch'>>()({
    ...gearBase,
    kind: oneOf(['switch']),
    ports: whole(1, 96).required(),
    poePorts: whole(0, 96).required(),
    pseType: oneNumberOf([1, 2, 3, 4]),
    budgetW: real(0, 10_000).required(),
    pseVolts: positive(60).required(),
    reserves: oneOf(['class', 'measured']),
    uplinkMbps: positive(1e6).required(),
  }),
  injector: shapeOf<GearOf<'injector'>>()({
    ...gearBase,
    kind: oneOf(['injector']),
    isPassive: flag(),
    volts: positive(60).required(),
    watts: positive(1000).required(),
  }),
  supply: shapeOf<GearOf<'supply'>>()({
    ...gearBase,
    kind: oneOf(['supply']),
    output: oneOf(['dc', 'usb']),
    volts: positive(60).required(),
    amps: positive(1000).required(),
  }),
  'access-point': shapeOf<GearOf<'access-point'>>()({
    ...gearBase,
    kind: oneOf(['access-point']),
    band: oneOf(RADIO_BANDS),
    radio: text(TEXT_LIMITS.label).min(1),
    eirpDbm: real(-20, 40).required(),
    channel: orNull(whole(1, 200)),
    poeClass: orNull(whole(0, 8)),
  }),
  powerline: shapeOf<GearOf<'powerline'>>()({
    ...gearBase,
    kind: oneOf(['powerline']),
    syncMbps: positive(10_000).required(),
  }),
  router: shapeOf<GearOf<'router'>>()({ ...gearBase, kind: oneOf(['router']), uploadMbps: orNull(positive(1e6)) }),
};
export const gearShape = byField<Gear>('kind', GEAR_SHAPES, shape({ kind: oneOf(GEAR_KINDS) }));
