import { string } from 'yup';
import { REFUSED_CHARS } from '../../core/auth/secret-limits.ts';
import { hasControl } from '../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../core/base/limits.ts';
import type { Range } from '../../core/base/range.ts';
import type { Result } from '../../core/base/result.ts';
import { readSize } from '../../core/figures/written-figures.ts';
import { addressRemarks } from '../../core/net/address-remarks.ts';

/** Text of a form over several lines, as long as the document takes it. */
export const notesField = (max: number) => string().trim().max(max, `At most ${max} characters.`).defined();

/** Text that ends up in a line of a protocol, as it is typed: blanks at its ends count. */
export const lineField = (max: number) =>
  string()
    .max(max, `At most ${max} characters.`)
    .test('no-control', 'A tab, a line break or another control character is in it.', (text) => !hasControl(text ?? ''))
    .defined();

/** Text on one line, which may stay out. */
export const textField = (max: number) => lineField(max).trim();

/** Signs one after the other, such as `"&<>`: blanks between them mean nothing. */
export const signsField = () =>
  string()
    .transform((text: unknown) => (typeof text === 'string' ? [...new Set(text.replace(/\s/g, ''))].join('') : text))
    .max(REFUSED_CHARS, `At most ${REFUSED_CHARS} characters.`)
    .test('no-control', 'A control character is in it.', (text) => !hasControl(text ?? ''))
    .defined();

/** An address or a host name, which may stay out. */
export const hostField = () =>
  string()
    .trim()
    .defined()
    .test('host', (text, context) => {
      if (text === '') return true;
      const { host } = addressRemarks({ ...NO_ADDRESS, host: text }, { networks: [], workedPaths: [] });
      return !host?.stops || context.createError({ message: host.text });
    });
const NO_ADDRESS = { port: '554', path: '', user: '', secret: '' };

/** A name, which everything has. */
export const nameField = (missing = 'A name is needed.') => textField(TEXT_LIMITS.name).required(missing);

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

/** What a reader makes of a field; `other` where it is empty or not understood. */
export function readOr<T, E>(read: (text: string) => Result<T, string>, text: string, other: E): T | E {
  if (text.trim() === '') return other;
  const found = read(text);
  return found.ok ? found.value : other;
}

/**
 * A figure as people write it, which may stay out: what its reader does not understand is said at the field.
 * @param problemOf what else is wrong with what was read, in words
 */
export const writtenField = <T>(
  read: (text: string) => Result<T, string>,
  problemOf: (value: T) => string | null = () => null,
) =>
  string()
    .trim()
    .max(TEXT_LIMITS.refValue)
    .defined()
    .test('written', (text, context) => {
      if (text === '') return true;
      const found = read(text);
      const problem = found.ok ? problemOf(found.value) : found.error;
      return problem === null || context.createError({ message: problem });
    });

/** A picture's size as people write it: “2560×1440”, “4MP”; one side may be open where it need not be whole. */
export const sizeField = ({ min, max }: Range, { isWhole = false } = {}) =>
  writtenField(readSize, ({ widthPx, heightPx }) => {
    const sides = [widthPx, heightPx].filter((side) => side !== null);
    if (isWhole && sides.length < 2) return 'Both sides are needed, such as 3840×2160.';
    return sides.every((side) => side >= min && side <= max) ? null : `A side has ${min} to ${max} pixels.`;
  });
