import { stringify } from 'yaml';
import { writeCsv } from './csv.ts';
import type { PackSheet } from './pack.ts';
import type { Sheet } from './sheet.ts';

const head = (sheet: Sheet): Record<string, string> => ({
  site: sheet.site,
  camera: sheet.camera,
  destination: sheet.destination,
  stream: sheet.stream,
});
const fieldsOf = (sheet: Sheet): Record<string, string> =>
  Object.fromEntries(sheet.fields.map(({ key, value }) => [key, value === '–' ? '' : value]));

/**
 * Sheets as CSV (RFC 4180), a row each under one header row. Text that a spreadsheet would run as a formula is quoted
 * with an apostrophe.
 */
export const sheetsAsCsv = (sheets: readonly Sheet[]): string =>
  writeCsv(sheets.map((sheet) => ({ ...head(sheet), ...fieldsOf(sheet) })));

/** Many sheets as CSV, each with the channel that it fills. */
export const packAsCsv = (pack: readonly PackSheet[]): string =>
  writeCsv(pack.map(({ channel, sheet }) => ({ channel, ...head(sheet), ...fieldsOf(sheet) })));

/** The same as YAML 1.2, a list. */
export const packAsYaml = (pack: readonly PackSheet[]): string =>
  stringify(pack.map(({ channel, sheet }) => ({ channel, ...head(sheet), ...fieldsOf(sheet) })));

/** Sheets as YAML 1.2, a list. */
export const sheetsAsYaml = (sheets: readonly Sheet[]): string =>
  stringify(sheets.map((sheet) => ({ ...head(sheet), ...fieldsOf(sheet) })));
