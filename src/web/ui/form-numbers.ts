import { number } from 'yup';
import { type Range, rangeProblem } from '../../core/base/range.ts';
import { typedNumber } from './typed-number.ts';

const typed =
  (unit: string | undefined) =>
  (value: unknown, original: unknown): number | undefined => {
    if (typeof original === 'string') return typedNumber(original, unit);
    return typeof value === 'number' && !Number.isNaN(value) ? value : undefined;
  };

/** A number as its chapter allows it, that may stay out. The message says what is expected and what came. */
export const optionalNumber = (label: string, range: Range) =>
  number()
    .transform(typed(range.unit))
    .typeError(`${label}: a number, such as ${(range.min + Math.min(range.max, range.min + 10)) / 2}.`)
    .test('range', (value, context) => {
      const problem = value === undefined ? null : rangeProblem(range, value);
      return problem === null || context.createError({ message: `${label}: ${problem}` });
    });

export const neededNumber = (label: string, range: Range) =>
  optionalNumber(label, range).required(`${label} is needed.`);
