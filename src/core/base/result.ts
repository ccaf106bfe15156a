/** What a parser returns: the value, or the fault that says why there is none. */
export type Result<T, F> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: F };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });
export const err = <F>(error: F): { readonly ok: false; readonly error: F } => ({ ok: false, error });
