import { TEXT_LIMITS } from '../../../base/limits.ts';
import { FAR_M } from '../../../base/plan-geometry.ts';
import { above0, between } from '../../../base/range.ts';
import { amount, type FieldTable, figure, lineOf, own, tick, usualOf } from '../../../fields/field.ts';
import type { Link } from './link.ts';

type LinkFigures = Omit<Link, 'id' | 'from' | 'to' | 'medium'>;
const LENGTH = between(0, FAR_M, 'm');

/** What is known of a link beside its ends and its kind: warm, indoors, nothing measured, when nobody said. */
export const LINK_FIELDS = {
  name: lineOf('Label', TEXT_LIMITS.name, { placeholder: 'C-07' }),
  lengthM: figure('Length, m', LENGTH),
  route: own('Drawn route, m', null),
  extraM: amount('Risers, slack, loops, m', LENGTH, 0),
  areaMm2: figure('Wire, mm²', above0(500, 'mm²'), { placeholder: 'as usual' }),
  isCopperClad: tick('copper-clad aluminium'),
  conductorC: amount('Warmest, °C', between(-60, 120, '°C'), 40),
  leavesBuilding: tick('leaves the building'),
  capacityMbps: figure('Capacity, Mbit/s', above0(1e6, 'Mbit/s'), { placeholder: 'as its ends allow' }),
} as const satisfies FieldTable<LinkFigures>;

/** A link of which only its ends and its kind are known. */
export const UNMEASURED_LINK = usualOf<LinkFigures>(LINK_FIELDS);
