import { eachOf, isDocument, type Migration, type OldDocument } from './migrate.ts';

/** By which hash a certificate was signed was not read before 13: that is not known of it. */
export const withSignatureHash = (reading: OldDocument): OldDocument =>
  isDocument(reading.tls) && !Object.hasOwn(reading.tls, 'signatureHash')
    ? { ...reading, tls: { ...reading.tls, signatureHash: null } }
    : reading;

/** From 13 on a certificate that a reading saw says by which hash it was signed. */
export const to13: Migration = (document) => ({
  ...document,
  version: 13,
  journal: eachOf(document.journal, (entry) => {
    const { payload } = entry;
    if (!isDocument(payload) || payload.kind !== 'reading' || !isDocument(payload.reading)) return entry;
    return { ...entry, payload: { ...payload, reading: withSignatureHash(payload.reading) } };
  }),
});
