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

const keyOf = (siteId: string): string => `clear-tap:spill:${siteId}`;

/** Puts a change down, in the moment. False when the browser has no room or no such store. */
export function putSpill(siteId: string, spill: Spill): boolean {
  try {
    localStorage.setItem(keyOf(siteId), JSON.stringify(spill));
    return true;
  } catch {
    return false;
  }
}

export function takeSpill(siteId: string): Spill | null {
  try {
    const text = localStorage.getItem(keyOf(siteId));
    if (text === null) return null;
    const value: Partial<Spill> = JSON.parse(text);
    return typeof value.change === 'string' && (typeof value.revision === 'number' || value.revision === null)
      ? { revision: value.revision, change: value.change, site: value.site }
      : null;
  } catch {
    return null; // damaged or blocked: the record itself is still there
  }
}

export function dropSpill(siteId: string): void {
  try {
    localStorage.removeItem(keyOf(siteId));
  } catch {
    // blocked: then there is none
  }
}
