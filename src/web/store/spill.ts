import type { Entry } from '../../core/document/chapters/journal/entry.ts';
import type { Plan } from '../../core/document/site.ts';

/**
 * A change that the page had no time to write: the browser’s database needs a moment that a closing page does not have,
 * so it is put down at once beside it, and taken up by the next page that opens the site. It holds what is not written, and
 * no more: a closing page has little room.
 */
export interface Spill {
  /** The revision that the change was made upon. */
  readonly revision: number | null;
  /** Names the change, so that one that was written after all is not taken up again. */
  readonly change: string;
  /** `null` when the plan is as it was written. */
  readonly plan: Plan | null;
  /** Entries that are not written; with `isWhole` all of them. */
  readonly entries: readonly Entry[];
  readonly isWhole: boolean;
}

/** As it is found: whatever lay there, and what pages of an older version put down, which was the site whole. */
type Found = Pick<Spill, 'revision' | 'change'> & { readonly [K in 'plan' | 'entries' | 'isWhole' | 'site']?: unknown };

/** A change as it was found, with the page that put it down: two pages of one site never put down over each other. */
export type FoundSpill = Found & { readonly page: string };

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The document that a spill makes of the one that is written below it; to be checked as any from outside. */
export function documentOfSpill(
  { site, plan, entries, isWhole }: Found,
  below: Readonly<Record<string, unknown>> | null,
): unknown {
  if (site !== undefined) return site;
  const kept = Array.isArray(entries) ? entries : [];
  const written: readonly unknown[] = !isWhole && Array.isArray(below?.journal) ? below.journal : [];
  const known = new Set(written.map((entry) => (isRecord(entry) ? entry.id : undefined)));
  const journal = [...written, ...kept.filter((entry) => !(isRecord(entry) && known.has(entry.id)))];
  return { ...(isRecord(plan) ? plan : below), journal };
}

const PREFIX = 'clear-tap:spill:';
const keyOf = (siteId: string, page: string): string => `${PREFIX}${siteId}:${page}`;

/** Puts a change down, in the moment. False when the browser has no room or no such store. */
export function putSpill(siteId: string, page: string, spill: Spill): boolean {
  try {
    localStorage.setItem(keyOf(siteId, page), JSON.stringify(spill));
    return true;
  } catch {
    return false;
  }
}

function read(siteId: string, page: string): FoundSpill | null {
  try {
    const value: Partial<Found> = JSON.parse(localStorage.getItem(keyOf(siteId, page)) ?? '');
    return typeof value.change === 'string' && (typeof value.revision === 'number' || value.revision === null)
      ? { ...value, revision: value.revision, change: value.change, page }
      : null;
  } catch {
    return null; // damaged or blocked: the record itself is still there
  }
}

/** What pages that are gone put down of a site. Before pages had names there was one for each site: it is found too. */
export function listSpills(siteId: string): readonly FoundSpill[] {
  try {
    const old = `${PREFIX}${siteId}`;
    const pages = Object.keys(localStorage).flatMap((key) =>
      key.startsWith(`${old}:`) ? key.slice(old.length + 1) : [],
    );
    const unnamed = localStorage.getItem(old);
    if (unnamed !== null) {
      localStorage.setItem(keyOf(siteId, 'unnamed'), unnamed);
      localStorage.removeItem(old);
      pages.push('unnamed');
    }
    return pages.flatMap((page) => read(siteId, page) ?? []);
  } catch {
    return []; // blocked: then there are none
  }
}

/** Lets go what a page put down; with `change`, only when it is that change and no later one. */
export function dropSpill(siteId: string, page: string, change?: string): void {
  try {
    if (change !== undefined && read(siteId, page)?.change !== change) return;
    localStorage.removeItem(keyOf(siteId, page));
  } catch {
    // blocked: then there is none
  }
}
