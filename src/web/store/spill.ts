/**
 * A change that the page had no time to write: the browser’s database needs a moment that a closing page does not have,
 * so it is put down at once beside it, and taken up by the next page that opens the site.
 */
export interface Spill {
  /** The revision that the change was made upon. */
  readonly revision: number | null;
  /** Names the change, so that one that was written after all is not taken up again. */
  readonly change: string;
  readonly site: unknown;
}

/** A change as it was found, with the page that put it down: two pages of one site never put down over each other. */
export interface FoundSpill extends Spill {
  readonly page: string;
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
    const value: Partial<Spill> = JSON.parse(localStorage.getItem(keyOf(siteId, page)) ?? '');
    return typeof value.change === 'string' && (typeof value.revision === 'number' || value.revision === null)
      ? { revision: value.revision, change: value.change, site: value.site, page }
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
