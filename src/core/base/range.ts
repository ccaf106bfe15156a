/** What a number of the document may be. It stands once, in its chapter: shape, field, importer and command read it there. */
export interface Range {
  readonly min: number;
  readonly max: number;
  /** As it is said behind the number. */
  readonly unit?: string;
  readonly isWhole?: boolean;
  /** Above `min`, and not at it. */
  readonly isAbove?: boolean;
}

const withUnit = (unit: string | undefined): Pick<Range, 'unit'> => (unit === undefined ? {} : { unit });
export const between = (min: number, max: number, unit?: string): Range => ({ min, max, ...withUnit(unit) });
export const wholes = (min: number, max: number, unit?: string): Range => ({
  min,
  max,
  isWhole: true,
  ...withUnit(unit),
});
/** Above zero: a length, a size, the price of something sold. */
export const above0 = (max: number, unit?: string): Range => ({ min: 0, max, isAbove: true, ...withUnit(unit) });

/** The range of a share as people type it. */
export const inPercent = ({ min, max, ...rest }: Range): Range => ({
  ...rest,
  min: 100 * min,
  max: 100 * max,
  unit: '%',
});

/** “0 to 96”, “more than 0, up to 60 V”. */
function sayRange({ min, max, unit, isWhole, isAbove }: Range): string {
  const numbers = isAbove ? `more than ${min}, up to ${max}` : `${min} to ${max}`;
  return `${isWhole ? 'a whole number, ' : ''}${numbers}${unit ? ` ${unit}` : ''}`;
}

/** What is wrong with a number, in words; `null` when it lies within. NaN lies nowhere. */
export function rangeProblem(range: Range, value: number): string | null {
  const { min, max, isWhole = false, isAbove = false } = range;
  const isWithin = value <= max && (isAbove ? value > min : value >= min) && (!isWhole || Number.isInteger(value));
  return isWithin ? null : `${sayRange(range)}, not ${value}.`;
}
