import type { FactValue } from './entry.ts';
import type { HandQuantity } from './hand-quantities.ts';
import type { JournalCommand } from './journal-commands.ts';

/** What a field keeps that somebody reads on the spot: a value is written down, an emptied field takes it back. */
export const readingOf = (
  about: string,
  subject: string,
  quantity: HandQuantity,
  value: FactValue | null,
  under: readonly { readonly quantity: HandQuantity; readonly value: FactValue }[] = [],
): JournalCommand =>
  value === null
    ? { kind: 'withdrawReading', about, subject, quantity }
    : { kind: 'recordReading', about, subject, quantity, value, by: 'read by hand', under };
