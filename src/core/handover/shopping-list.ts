import Papa from 'papaparse';
import type { PlanLine } from '../places/cost/plan-lines.ts';

/** The list as CSV (RFC 4180), a row a thing; what has no price yet leaves its fields empty, and is no sum of zero. */
export const shoppingCsv = (lines: readonly PlanLine[], currency: string): string =>
  `${Papa.unparse(
    lines.map(({ label, count, unit, price, note }) => ({
      what: label,
      count,
      unit,
      [`price (${currency})`]: price ?? '',
      [`sum (${currency})`]: price === null ? '' : Number((price * count).toFixed(2)),
      for: note,
    })),
    { newline: '\r\n', escapeFormulae: true },
  )}\r\n`;
