/** What is printed on the board: an image is published for all four, and the outer label is not enough. */
export const MARKS = ['board', 'flash', 'sensor', 'radio'] as const;
export type Mark = (typeof MARKS)[number];
/** Empty where nobody looked. */
export type Marks = Readonly<Record<Mark, string>>;
export const NO_MARKS: Marks = { board: '', flash: '', sensor: '', radio: '' };
