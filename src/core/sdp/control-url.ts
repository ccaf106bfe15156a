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
