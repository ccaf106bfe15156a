import type { Site } from '../../core/document/site.ts';

/** Why a changed site could not be opened again; `null` when it could. `fits` is one that can. */
export type RefusalOf = (fits: Site, changed: Site, part: 'all' | 'plan') => string | null;

/**
 * Looks at every change of the open site before anybody builds on it. What it looks with (the whole schema) comes a moment
 * after the page; what was changed before that is looked at when it is written.
 */
export class FitGuard {
  #refusalOf: RefusalOf | null = null;
  #loading: Promise<RefusalOf> | null = null;
  /** The last site that is known to open again. */
  #fits: Site | null = null;
  #previous: Site | null = null;

  constructor(private readonly load: () => Promise<RefusalOf>) {}

  /** A site that was read, or just begun. */
  opened(site: Site): void {
    this.#fits = site;
    this.#previous = site;
    this.#ready().catch(() => {}); // the page was updated under it: writing tries again, and says so
  }

  /** Why the change from the site before must be taken back; `null` when it may stand, as far as can be told now. */
  changed(site: Site): string | null {
    const fits = this.#fits;
    const refusal = fits && this.#refusalOf ? this.#refusalOf(fits, site, 'plan') : null;
    // Several changes that nobody looked at: none of them is taken back unasked; the person is told when they are written.
    const mayTakeBack = this.#previous === fits;
    if (refusal !== null && mayTakeBack) return refusal;
    this.#previous = site;
    if (refusal === null && this.#refusalOf) this.#fits = site;
    return null;
  }

  /**
   * The same question of the whole document, waited for. Where it cannot be asked, since the server is gone or was renewed
   * under this page, the change is written: unlooked at it is kept, unwritten it would be lost.
   */
  async refusalOf(fits: Site, changed: Site): Promise<string | null> {
    const refusalOf = await this.#ready().catch(() => null);
    return refusalOf === null ? null : refusalOf(fits, changed, 'all');
  }

  #ready(): Promise<RefusalOf> {
    this.#loading ??= this.load().then(
      (refusalOf) => {
        this.#refusalOf = refusalOf;
        return refusalOf;
      },
      (error: unknown) => {
        this.#loading = null;
        throw error;
      },
    );
    return this.#loading;
  }
}
