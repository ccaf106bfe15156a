/**
 * URL of a track or session: absent or `*` is the base, an absolute URL is taken as it is, a relative one is appended to
 * the base with one `/` between.
 * Plain appending, also after a query, is what devices expect; RFC 3986 §5 merging would drop the last path segment.
 * Source: RFC 2326 §C.1.1, RFC 7826 §D.1.1.
 */
export function resolveControl(base: string, control: string | null): string {
  if (control === null || control === '*' || control === '') return base;
  if (/^[A-Za-z][A-Za-z0-9+.-]*:\/\//.test(control)) return control;
  return base.endsWith('/') || control.startsWith('/')
    ? `${base.replace(/\/$/, '')}/${control.replace(/^\//, '')}`
    : `${base}/${control}`;
}

/**
 * The same put together as the standard for URLs has it: a relative one takes the place of what follows the last `/` of the base's
 * path, one that begins with `/` of the whole path. `null` where that is what appending gives, or nothing is to be put together.
 * Source: RFC 3986 §5.2.3.
 */
export function mergedControl(base: string, control: string | null): string | null {
  if (control === null || control === '*' || control === '' || /^[A-Za-z][A-Za-z0-9+.-]*:\/\//.test(control))
    return null;
  const root = /^[A-Za-z][A-Za-z0-9+.-]*:\/\/[^/?#]*/.exec(base)?.[0];
  if (root === undefined) return null;
  const path = base.slice(root.length).split('?', 1)[0] ?? '';
  const merged = control.startsWith('/')
    ? `${root}${control}`
    : `${root}${path.slice(0, path.lastIndexOf('/') + 1) || '/'}${control}`;
  return merged === resolveControl(base, control) ? null : merged;
}
