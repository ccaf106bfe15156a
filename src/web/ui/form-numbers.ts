import { number } from 'yup';
import { typedNumber } from './typed-number.ts';

const typed = (value: unknown, original: unknown): number | undefined => {
  if (typeof original === 'string') return typedNumber(original);
  return typeof value === 'number' && !Number.isNaN(value) ? value : undefined;
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
