import type { Range } from '../base/range.ts';

// A field of a record stands on one line of its chapter's table: shape, empty record, form and cells are made from it.

/** What a cell shows beside its label. */
export interface FieldHelp {
  readonly placeholder?: string;
  readonly hint?: string;
  /** What is said where it is needed and was left empty. */
  readonly missing?: string;
  /** It takes twice the room. */
  readonly isWide?: boolean;
  /** The group of a form that it stands in; one without a group is placed by hand. */
  readonly group?: string;
}

interface Base<V> extends FieldHelp {
  /** On screen, with its unit. */
  readonly label: string;
  /** As it is when nobody said. */
  readonly usual: V;
}
interface Typed<V> extends Base<V> {
  /** Never there: holds the type in both directions, so that a field of another type does not compile. */
  readonly of?: (value: V) => V;
}
export interface NumberField<V extends number | null = number | null> extends Typed<V> {
  readonly kind: 'number';
  readonly range: Range;
  /** It may be left empty, and is not known then. */
  readonly isOptional: boolean;
  /** It has no usual size: whoever leaves it empty is asked for it. */
  readonly isNeeded?: boolean;
}
export interface TextField extends Typed<string> {
  /** `line` stands on one line, `text` may have several, `path` is a path of a URL. */
  readonly kind: 'line' | 'text' | 'path';
  readonly max: number;
  readonly isNeeded: boolean;
}
export type Choosable = string | number;
export interface ChoiceField<V extends Choosable | null = Choosable | null> extends Typed<V> {
  readonly kind: 'choice';
  readonly values: readonly Choosable[];
  readonly words: Readonly<Record<string, string>>;
  readonly isOptional: boolean;
}
export interface FlagField<V extends boolean | null = boolean | null> extends Typed<V> {
  readonly kind: 'flag';
  readonly isOptional: boolean;
}
export interface SeveralField<T extends string = string> extends Typed<readonly T[]> {
  readonly kind: 'several';
  readonly values: readonly T[];
  readonly words: Readonly<Record<string, string>>;
}
/** A value with a shape, and often fields, of its own. */
export interface OwnField<V> extends Base<V> {
  readonly kind: 'own';
}
/** The table of a record: a field without its line, and a line of another type, do not compile. */
export type FieldTable<T> = { readonly [K in keyof T]: Typed<T[K]> & { readonly kind: string } };

/** A number that may be left empty: then it is not known. */
export const figure = (label: string, range: Range, help: FieldHelp = {}): NumberField => ({
  kind: 'number',
  label,
  range,
  isOptional: true,
  usual: null,
  ...help,
});
/** A number that everything has; what is left empty is taken as usual. */
export const amount = (label: string, range: Range, usual: number, help: FieldHelp = {}): NumberField<number> => ({
  kind: 'number',
  label,
  range,
  isOptional: false,
  usual,
  ...help,
});
/** A number that has no usual size, and must be typed. */
export const needed = (label: string, range: Range, help: FieldHelp = {}): NumberField<number> => ({
  ...amount(label, range, 0, help),
  isNeeded: true,
});
const textOf =
  (kind: TextField['kind'], isNeeded = false) =>
  (label: string, max: number, help: FieldHelp = {}): TextField => ({ kind, label, max, isNeeded, usual: '', ...help });
export const lineOf = textOf('line');
export const nameOf = textOf('line', true);
export const notesOf = textOf('text');
export const pathOf = textOf('path');

type Words = Readonly<Record<string, string>>;
/** One of several words, or not known. */
export const choice = <const T extends Choosable>(
  label: string,
  values: readonly T[],
  { words = {}, ...help }: FieldHelp & { readonly words?: Words } = {},
): ChoiceField<T | null> => ({ kind: 'choice', label, values, words, isOptional: true, usual: null, ...help });
/** One of several words, and always one. */
export const oneAmong = <const T extends Choosable>(
  label: string,
  values: readonly T[],
  usual: T,
  { words = {}, ...help }: FieldHelp & { readonly words?: Words } = {},
): ChoiceField<T> => ({ kind: 'choice', label, values, words, isOptional: false, usual, ...help });
/** Yes, no or not known. */
export const yesNo = (label: string, help: FieldHelp = {}): FlagField => ({
  kind: 'flag',
  label,
  isOptional: true,
  usual: null,
  ...help,
});
export const tick = (label: string, help: FieldHelp = {}): FlagField<boolean> => ({
  kind: 'flag',
  label,
  isOptional: false,
  usual: false,
  ...help,
});
export const several = <const T extends string>(
  label: string,
  values: readonly T[],
  { words = {}, ...help }: FieldHelp & { readonly words?: Words } = {},
): SeveralField<T> => ({ kind: 'several', label, values, words, usual: [], ...help });
export const own = <V>(label: string, usual: V, help: FieldHelp = {}): OwnField<V> => ({
  kind: 'own',
  label,
  usual,
  ...help,
});

type Untyped<F> = F extends unknown ? Omit<F, 'of'> : never;
/** A row as it is read at run time. */
export type AnyField = Untyped<NumberField | TextField | ChoiceField | FlagField | SeveralField> | OwnField<unknown>;

/** The record as it is when nobody said anything of it. */
export const usualOf = <T>(table: FieldTable<T>): T =>
  Object.fromEntries(Object.entries<Base<unknown>>(table).map(([name, { usual }]) => [name, usual])) as T; // each of its names with a value of its type
