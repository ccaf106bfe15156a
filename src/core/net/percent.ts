/** Half of a sign that needs two UTF-16 units: it has no UTF-8, and percent-encoding it throws. */
const LONE_HALF = /\p{Cs}/gu;

/** Percent-encoding of any text (RFC 3986 §2.1): what is no text becomes U+FFFD, as everywhere where text leaves. */
export const percentEncode = (text: string): string => encodeURIComponent(text.replace(LONE_HALF, '\ufffd'));

/** What a percent-encoded text means; one that is not encoded, or not whole, is taken as it stands. */
export function percentDecode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** A blank in a path or a query as it goes over the wire (RFC 3986 §2.1); nothing else changes. */
export const blanksEncoded = (text: string): string => text.replaceAll(' ', '%20');
