import type { FactValue } from './entry.ts';
import type { JournalCommand } from './journal-commands.ts';
import type { QuantityName } from './quantities.ts';

/** What a field keeps that somebody reads on the spot: a value is written down, an emptied field takes it back. */
export const readingOf = (
  about: string,
  subject: string,
  quantity: QuantityName,
  value: FactValue | null,
  under: readonly { readonly quantity: QuantityName; readonly value: FactValue }[] = [],
): JournalCommand =>
  value === null
    ? { kind: 'withdrawReading', about, subject, quantity }
    : { kind: 'recordReading', about, subject, quantity, value, by: 'read by hand', under };
