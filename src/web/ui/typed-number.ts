/** A number as a person types it, comma or point; `undefined` for an empty field, NaN for what is no number. */
export function typedNumber(text: string): number | undefined {
  const trimmed = text.trim().replace(',', '.');
  return trimmed === '' ? undefined : Number(trimmed);
}
