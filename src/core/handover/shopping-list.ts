import type { PlanLine } from '../places/cost/plan-lines.ts';
import { writeCsv } from './csv.ts';

/** The list as CSV (RFC 4180), a row a thing; what has no price yet leaves its fields empty, and is no sum of zero. */
export const shoppingCsv = (lines: readonly PlanLine[], currency: string): string =>
  writeCsv(
    lines.map(({ label, count, unit, price, note }) => ({
      what: label,
      count,
      unit,
      [`price (${currency})`]: price ?? '',
      [`sum (${currency})`]: price === null ? '' : Number((price * count).toFixed(2)),
      for: note,
    })),
  );
