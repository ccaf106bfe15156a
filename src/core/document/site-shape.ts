import { type ISchema, mixed } from 'yup';
import { TEXT_LIMITS } from '../base/limits.ts';
import { id, line, list, oneNumberOf, oneOf, shapeOf, text } from '../base/schema-parts.ts';
import type { Entry } from './chapters/journal/entry.ts';
import { journalProblem } from './chapters/journal/entry-check.ts';
import { LIST_SHAPES, type ListName, VALUE_SHAPES } from './chapters/shapes.ts';
import { type Plan, SITE_FORMAT, type Site } from './site.ts';
import { SITE_VERSION } from './version.ts';

/** All of a plan but its lists. */
export const SITE_VALUES = {
  format: oneOf([SITE_FORMAT]),
  version: oneNumberOf([SITE_VERSION]),
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  notes: text(TEXT_LIMITS.siteNotes),
  ...VALUE_SHAPES,
} as const satisfies { readonly [K in Exclude<keyof Plan, ListName>]: ISchema<Site[K]> };

const listsOf = (): { readonly [K in ListName]: ISchema<Site[K]> } => {
  const lists = Object.entries(LIST_SHAPES).map(([name, { item, most }]) => [
    name,
    list<unknown>(item as ISchema<unknown>, most),
  ]);
  return Object.fromEntries(lists); // the table is typed by name
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
