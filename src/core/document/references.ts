import { LIST_SHAPES, type ListName } from './chapters/shapes.ts';
import type { Site } from './site.ts';

const LIST_NAMES = Object.keys(LIST_SHAPES) as ListName[]; // Object.keys of a literal are its keys

/** The first id of a list that stands there for the second time, in words. */
function repeatedId(name: string, items: readonly { readonly id: string }[]): string | null {
  const seen = new Set<string>();
  for (const [index, { id }] of items.entries()) {
    if (seen.has(id)) return `${name}[${index}].id: “${id}” stands there twice.`;
    seen.add(id);
  }
  return null;
}

/** What is wrong with how the parts of a plan name each other: every id once, every reference to something that is there. */
export function brokenReference(site: Site): string | null {
  for (const name of LIST_NAMES) {
    const repeated = repeatedId(name, site[name]);
    if (repeated) return repeated;
  }
  for (const name of LIST_NAMES) {
    const broken = LIST_SHAPES[name].broken?.(site);
    if (broken) return broken;
  }
  return null;
}
