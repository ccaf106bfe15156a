import { number } from 'yup';

/** A number as typed, comma or point; an empty field is no number yet. */
const typed = (value: unknown, original: unknown): number | undefined => {
  if (typeof original !== 'string') return typeof value === 'number' && !Number.isNaN(value) ? value : undefined;
  const text = original.trim().replace(',', '.');
  return text === '' ? undefined : Number(text);
};

interface Limits {
  readonly min: number;
  readonly max: number;
  readonly unit?: string;
}
const unitOf = ({ unit }: Limits): string => (unit ? ` ${unit}` : '');

/** A number that may stay out. The message says what is expected and what came. */
export const optionalNumber = (label: string, limits: Limits) =>
  number()
    .transform(typed)
    .typeError(`${label}: a number, such as ${(limits.min + Math.min(limits.max, limits.min + 10)) / 2}.`)
    .test('limits', (value, context) =>
      value === undefined || (value >= limits.min && value <= limits.max)
        ? true
        : context.createError({
            message: `${label}: ${limits.min} to ${limits.max}${unitOf(limits)}, not ${value}.`,
          }),
    );

export const neededNumber = (label: string, limits: Limits) =>
  optionalNumber(label, limits).required(`${label} is needed.`);
