import { type Plan, planOf, type Site } from '../../core/document/site.ts';
import { goesOn, type JournalMark } from './journal-chunks.ts';
import { newId } from './new-id.ts';
import { ChangedElsewhere, saveSite } from './site-store.ts';
import { dropSpill, putSpill, type Spill } from './spill.ts';

/** How the last change stands in the browser's store. */
export type SaveState =
  | { readonly status: 'saved' }
  | { readonly status: 'pending' }
  | { readonly status: 'failed'; readonly message: string }
  /** What it became could not be opened again: nothing was written over the last that can. */
  | { readonly status: 'unfit'; readonly message: string }
  /** Another tab wrote to the same site: the person chooses. */
  | { readonly status: 'clash'; readonly savedAt: string };

interface Waiting {
  readonly site: Site;
  readonly change: string;
}

/** A site as it was opened. */
export interface OpenedSite {
  readonly site: Site;
  /** Of the stored record it was read from; `null` when the store does not have it. */
  readonly revision: number | null;
  /** How much of its journal the store has. */
  readonly journal?: JournalMark | null | undefined;
  /** It holds what is not in the store yet, and is written soon. */
  readonly isUnsaved?: boolean | undefined;
  /** The page that put it down as it closed. */
  readonly spilledBy?: string | undefined;
}

/** Plans share what did not change: the same parts are the same objects. */
const isSamePlan = (a: Site, b: Site): boolean =>
  (Object.keys(planOf(b)) as (keyof Plan)[]).every((part) => a[part] === b[part]); // the keys of a plan are its parts

export interface SaverOptions {
  readonly onState: (state: SaveState) => void;
  readonly onSaved: (siteId: string, revision: number) => void;
  /** Why a changed site could not be opened again; `fits` is one that can. */
  readonly refusalOf: (fits: Site, changed: Site) => Promise<string | null>;
}

/** Quiet time after a change before it is written, and the longest that a change waits. */
const QUIET_MS = 400;
const LONGEST_MS = 2000;

const words = (error: unknown): string => {
  const name = error instanceof Error || error instanceof DOMException ? error.name : 'unknown';
  return name === 'QuotaExceededError'
    ? 'The browser’s storage is full: the last changes are in this page only. Export the site file, then free some space.'
    : `The browser could not save the last changes (${name}): they are in this page only. Export the site file now.`;
};

/** Writes the open site behind the person's back: soon after a change, and at once when the page is about to go. */
export class SiteSaver {
  #waiting: Waiting | null = null;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #waitingSinceMs = 0;
  #revision: number | null = null;
  /** Grows with every site that is opened: a write of the one before says nothing of this one. */
  #opening = 0;
  /** The change that a file holds which the person saved. */
  #exportedChange: string | null = null;
  /** As the store has it: what it is made of need not be written again, nor put down. */
  #written: Site | null = null;
  #journal: JournalMark | null = null;
  /** The last that is known to open again. */
  #fits: Site | null = null;
  /** What waits could not be opened again: put down it would be as good as lost. */
  #isUnfit = false;
  /** Names what this page puts down as it closes. */
  readonly #page = newId('page');
  /** The page that is gone and whose change was taken up here. */
  #takenUp: string | undefined;
  #running: Promise<void> = Promise.resolve();

  constructor(private readonly options: SaverOptions) {}

  get hasUnsaved(): boolean {
    return this.#waiting !== null;
  }

  /** Whether the open site may be left: nothing waits, or what waits is in a file of the person's. */
  get mayLeave(): boolean {
    return this.#waiting === null || this.#waiting.change === this.#exportedChange;
  }
  /** The site as it stands was saved to a file. */
  exported(): void {
    this.#exportedChange = this.#waiting?.change ?? null;
  }

  /** A site was opened at this revision; `null` when the store does not have it. */
  opened({ site, revision, journal = null, isUnsaved = false, spilledBy: takenUp }: OpenedSite): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#fits = site;
    this.#written = isUnsaved || revision === null ? null : site;
    this.#journal = isUnsaved ? null : journal;
    this.#isUnfit = false;
    this.#takenUp = takenUp;
    this.#timer = null;
    this.#waiting = null;
    this.#revision = revision;
    this.#opening += 1;
  }

  changed(site: Site): void {
    const nowMs = performance.now();
    if (!this.#waiting) this.#waitingSinceMs = nowMs;
    this.#waiting = { site, change: newId('change') };
    this.options.onState({ status: 'pending' });
    if (this.#timer) clearTimeout(this.#timer);
    const latestMs = this.#waitingSinceMs + LONGEST_MS - nowMs;
    this.#timer = setTimeout(() => void this.flush(), Math.max(0, Math.min(QUIET_MS, latestMs)));
  }

  /** Writes now what waits. */
  flush(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    this.#running = this.#running.then(() => this.#write());
    return this.#running;
  }

  /**
   * The page may be gone in a moment: puts what waits down at once, and begins to write it. False when it could not be put
   * down and is in no file either: then it is lost with the page.
   */
  leave(): boolean {
    if (!this.#waiting) return true;
    const { site, change } = this.#waiting;
    const isDown = putSpill(site.id, this.#page, { revision: this.#revision, change, ...this.#unwritten(site) });
    if (isDown) this.#letGoTakenUp(site.id);
    void this.flush();
    return (isDown && !this.#isUnfit) || this.mayLeave;
  }

  /** What of a site the store does not have. */
  #unwritten(site: Site): Pick<Spill, 'plan' | 'entries' | 'isWhole'> {
    const written = this.#written;
    const goesOnThere = written !== null && goesOn(written.journal, site.journal);
    return {
      plan: written && isSamePlan(written, site) ? null : planOf(site),
      entries: goesOnThere ? site.journal.slice(written.journal.length) : site.journal,
      isWhole: !goesOnThere,
    };
  }

  /** What this page had put down is given up with its changes. */
  giveUp(siteId: string): void {
    dropSpill(siteId, this.#page);
    this.#letGoTakenUp(siteId);
  }
  #letGoTakenUp(siteId: string): void {
    if (this.#takenUp !== undefined) dropSpill(siteId, this.#takenUp);
    this.#takenUp = undefined;
  }

  /** The person chose this tab's site over the other's. */
  async overwrite(site: Site): Promise<void> {
    this.#revision = null;
    this.#written = null;
    this.#journal = null;
    this.changed(site);
    await this.flush();
  }

  async #write(): Promise<void> {
    const waiting = this.#waiting;
    if (!waiting) return;
    const opening = this.#opening;
    try {
      const refusal = this.#fits && (await this.options.refusalOf(this.#fits, waiting.site));
      this.#isUnfit = refusal !== null;
      if (refusal) {
        if (this.#opening === opening && this.#waiting === waiting)
          this.options.onState({ status: 'unfit', message: refusal });
        return;
      }
      const stored = this.#written && goesOn(this.#written.journal, waiting.site.journal) ? this.#journal : null;
      const { revision, journal } = await saveSite(waiting.site, this.#revision, waiting.change, stored);
      dropSpill(waiting.site.id, this.#page, waiting.change);
      this.options.onSaved(waiting.site.id, revision);
      if (this.#opening !== opening) return; // another site is open by now
      this.#letGoTakenUp(waiting.site.id);
      this.#fits = waiting.site;
      this.#written = waiting.site;
      this.#journal = journal;
      this.#revision = revision;
      if (this.#waiting !== waiting) return; // changed meanwhile; its own timer writes that
      this.#waiting = null;
      this.options.onState({ status: 'saved' });
    } catch (error) {
      if (this.#opening !== opening) return;
      if (error instanceof ChangedElsewhere) this.options.onState({ status: 'clash', savedAt: error.savedAt });
      else this.options.onState({ status: 'failed', message: words(error) });
    }
  }
}
