/** A number as a person types it, comma or point; `undefined` for an empty field, NaN for what is no number. */
export function typedNumber(text: string): number | undefined {
  const trimmed = text.trim().replace(',', '.');
  if (trimmed === '') return undefined;
  return /[box]/i.test(trimmed) ? Number.NaN : Number(trimmed); // 0x10 is a number to a program, and to nobody else
}
