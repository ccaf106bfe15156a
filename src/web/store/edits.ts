/** What changes a site. It comes beside the first view, and is there before anything is opened. */
type Editing = typeof import('./editing.ts');

let editing: Editing | null = null;

/** Whoever begins loads it: the page beside its first view, the thread that judges with itself. */
export function haveEditing(given: Editing): void {
  editing ??= given;
}

/** Raises a RangeError where nobody did: a mistake of ours. */
export function withEditing(): Editing {
  if (!editing) throw new RangeError('A site was worked on before what changes it was there');
  return editing;
}
