import { type ISchema, mixed } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { id, list, oneNumberOf, oneOf, shapeOf, text } from '../base/schema-parts.ts';
import { assumptionsShape } from './chapters/assumptions/assumptions-shape.ts';
import { cameraShape } from './chapters/cameras/camera-shape.ts';
import { costingShape } from './chapters/costing/costing-shape.ts';
import { destinationShape } from './chapters/destinations/destination-shape.ts';
import { gearShape } from './chapters/gear/gear-shape.ts';
import type { Entry } from './chapters/journal/entry.ts';
import { journalProblem } from './chapters/journal/entry-check.ts';
import { linkShape } from './chapters/links/link-shape.ts';
import { modelShape } from './chapters/models/model-shape.ts';
import { networkShape } from './chapters/networks/network-shape.ts';
import { planShape } from './chapters/plan/plan-shape.ts';
import { skyShape } from './chapters/sky/sky-shape.ts';
import { tapShape } from './chapters/taps/tap-shape.ts';
import { type Plan, SITE_FORMAT, SITE_VERSION, type Site } from './site.ts';

/** Chapters that are lists of things with ids. */
type ListName = {
  readonly [K in keyof Plan]: Plan[K] extends readonly { readonly id: string }[] ? K : never;
}[keyof Plan];

/** Lists of the document: what an item is, and how many there may be. */
export const SITE_LISTS = {
  networks: { item: networkShape, most: LIST_LIMITS.networks },
  gear: { item: gearShape, most: LIST_LIMITS.gear },
  links: { item: linkShape, most: LIST_LIMITS.links },
  models: { item: modelShape, most: LIST_LIMITS.models },
  cameras: { item: cameraShape, most: LIST_LIMITS.cameras },
  destinations: { item: destinationShape, most: LIST_LIMITS.destinations },
  taps: { item: tapShape, most: LIST_LIMITS.taps },
} as const satisfies { readonly [K in ListName]: { readonly item: ISchema<Site[K][number]>; readonly most: number } };

/** All else of it. */
export const SITE_VALUES = {
  format: oneOf([SITE_FORMAT]),
  version: oneNumberOf([SITE_VERSION]),
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  notes: text(TEXT_LIMITS.siteNotes),
  sky: skyShape,
  plan: planShape,
  costing: costingShape,
  assumptions: assumptionsShape,
} as const satisfies { readonly [K in Exclude<keyof Plan, ListName>]: ISchema<Site[K]> };

const listsOf = (): { readonly [K in keyof typeof SITE_LISTS]: ISchema<Site[K]> } => {
  const lists = Object.entries(SITE_LISTS).map(([name, { item, most }]) => [name, list<unknown>(item, most)]);
  return Object.fromEntries(lists); // the table above is typed by name
};

/** Entries are looked over by a check of their own: a schema would take seconds over a year of them. */
const journalShape = mixed<readonly Entry[]>()
  .required()
  .test(
    'journal',
    ({ value }) => journalProblem(value) ?? '',
    (value) => journalProblem(value) === null,
  ) as ISchema<readonly Entry[]>;

/** The site document, in its newest version. */
export const siteShape = shapeOf<Site>()({ ...SITE_VALUES, ...listsOf(), journal: journalShape });
