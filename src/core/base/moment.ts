const SHAPE = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(?:\.\d{1,3})?Z$/;

/** Whether a text is a moment in UTC that exists: 2026-02-31 and 25:00 do not. Source: RFC 3339 §5.6, §5.7. */
export function isMoment(text: string): boolean {
  const at = SHAPE.test(text) ? Date.parse(text) : Number.NaN;
  // what does not exist is carried over into the next day
  return Number.isFinite(at) && new Date(at).getUTCDate() === Number(text.slice(8, 10));
}
