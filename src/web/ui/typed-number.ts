/** Units that people write behind a number, beside the one that its field has. */
const WRITTEN = ['mm', 'px', 'fps', 'years', 'metres', 'meters', 'degrees', 'deg'];

/** The number without its unit, if it has one that says the same. */
function withoutUnit(text: string, unit: string | undefined): string {
  const unitless = text.toLowerCase();
  for (const one of unit === undefined ? WRITTEN : [unit.toLowerCase(), ...WRITTEN])
    if (unitless.endsWith(one) && /[\d\s.,]$/.test(unitless.slice(0, -one.length)))
      return text.slice(0, -one.length).trim();
  return text;
}

/**
 * A number as a person types it, comma or point, its unit behind it or not; `undefined` for an empty field, NaN for what is
 * no number.
 * @param unit of the field: “2.8 mm” in a field of mm is 2.8, and 5 V in a field of W is none
 */
export function typedNumber(text: string, unit?: string): number | undefined {
  const trimmed = withoutUnit(text.trim(), unit).replace(',', '.');
  if (trimmed === '') return text.trim() === '' ? undefined : Number.NaN;
  return /[box]/i.test(trimmed) ? Number.NaN : Number(trimmed); // 0x10 is a number to a program, and to nobody else
}
