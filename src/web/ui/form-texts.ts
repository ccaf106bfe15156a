import { string } from 'yup';
import { TEXT_LIMITS } from '../../core/base/limits.ts';

/** Text of a form as long as the document takes it. */
export const textField = (max: number) => string().trim().max(max, `At most ${max} characters.`).defined();

/** A name, which everything has. */
export const nameField = (missing = 'A name is needed.') =>
  string().trim().required(missing).max(TEXT_LIMITS.name, `At most ${TEXT_LIMITS.name} characters.`);

/** Several short texts on one line, with commas between: how many there may be, and how long each. */
export const wordsField = (what: string, { most, max }: { readonly most: number; readonly max: number }) =>
  string()
    .defined()
    .test('words', (value, context) => {
      const words = wordsOf(value);
      if (words.length > most) return context.createError({ message: `At most ${most} ${what}, not ${words.length}.` });
      const long = words.find((word) => word.length > max);
      return long === undefined || context.createError({ message: `Each of the ${what}: at most ${max} characters.` });
    });

export const wordsOf = (line: string): string[] =>
  line
    .split(/[,;]/)
    .map((word) => word.trim())
    .filter((word) => word !== '');
