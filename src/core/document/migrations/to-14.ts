import { eachOf, isDocument, type Migration, type OldDocument } from './migrate.ts';

/** Its own radio was not on a card before 14: that is not known of it. */
export const cardTo14 = (card: OldDocument): OldDocument => ({ radio: null, radioDbm: null, ...card });

/**
 * Jitter before 14 was the last value of a running mean, which forgets a stall: it is kept under its own name, and no rule
 * goes by it.
 */
export const to14: Migration = (document) => ({
  ...document,
  version: 14,
  models: eachOf(document.models, cardTo14),
  journal: eachOf(document.journal, (entry) => {
    const { payload } = entry;
    const facts = eachOf(entry.facts, (fact) =>
      fact.quantity === 'jitterMs' ? { ...fact, quantity: 'meanJitterMs' } : fact,
    );
    const named = facts === entry.facts ? entry : { ...entry, facts };
    if (!isDocument(payload) || payload.kind !== 'probe' || !isDocument(payload.facts)) return named;
    const { jitterMs: _, ...kept } = payload.facts;
    return { ...named, payload: { ...payload, facts: kept } };
  }),
});
