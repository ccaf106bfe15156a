import Papa from 'papaparse';

/**
 * What a spreadsheet would run: a formula begins with one of these, also behind blanks or a line end, and also where the text goes on
 * over several lines. Source: OWASP, CSV Injection.
 */
const FORMULA = /^\s*[=+\-@|%]|^[\t\r\n]/;
/** A number is none, with its sign or without. */
const NUMBER = /^[+-]?\d{1,15}(?:\.\d{1,15})?$/;

type Cell = string | number;
const cell = (value: Cell): Cell =>
  typeof value === 'string' && FORMULA.test(value) && !NUMBER.test(value) ? `'${value}` : value;

/** Rows as CSV (RFC 4180) under one header row. Text that a spreadsheet would run as a formula has an apostrophe before it. */
export const writeCsv = (rows: readonly Readonly<Record<string, Cell>>[], fields?: readonly string[]): string => {
  const names = fields ?? [...new Set(rows.flatMap((row) => Object.keys(row)))];
  const data = rows.map((row) => names.map((name) => cell(row[name] ?? '')));
  return `${Papa.unparse({ fields: names.map((name) => String(cell(name))), data }, { newline: '\r\n' })}\r\n`;
};
