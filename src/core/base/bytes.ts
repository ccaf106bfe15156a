import { base64 } from '@scure/base';
import { err, ok, type Result } from './result.ts';

/** Raised by the readers when a field needs more than is there. Parsers turn it into their own fault at the boundary. */
export class ShortRead extends Error {
  override readonly name = 'ShortRead';
  constructor(
    readonly field: string,
    readonly byteOffset: number,
  ) {
    super(`Expected ${field} at byte ${byteOffset}, but the data ends there`);
  }
}

const utf8 = new TextDecoder('utf-8');
const encoder = new TextEncoder();

/** UTF-8 text of bytes; what is not UTF-8 becomes U+FFFD and stays visible. */
export const textOf = (bytes: Uint8Array): string => utf8.decode(bytes);
export const bytesOf = (text: string): Uint8Array => encoder.encode(text);

export function hexOf(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += byte.toString(16).padStart(2, '0');
  return text;
}

/** Bytes of a base16 text in either letter case; an odd length or another character gives `not-hex`. */
export function bytesFromHex(text: string): Result<Uint8Array, 'not-hex'> {
  if (text.length % 2 !== 0 || !/^[0-9a-fA-F]*$/.test(text)) return err('not-hex');
  const bytes = new Uint8Array(text.length / 2);
  for (let i = 0; i < bytes.length; i++) bytes[i] = Number.parseInt(text.slice(2 * i, 2 * i + 2), 16);
  return ok(bytes);
}

const PADDING = 0x3d; // "="

/** Bytes of a Base64 text (RFC 4648 §4), padding optional: cameras leave it out in sprop-parameter-sets. */
export function bytesFromBase64(text: string): Result<Uint8Array, 'not-base64'> {
  let end = text.length;
  while (end > 0 && text.charCodeAt(end - 1) === PADDING) end -= 1;
  const bare = text.slice(0, end);
  try {
    return ok(base64.decode(bare.padEnd(Math.ceil(bare.length / 4) * 4, '=')));
  } catch {
    return err('not-base64');
  }
}

export const base64Of = (bytes: Uint8Array): string => base64.encode(bytes);

export function concatBytes(parts: readonly Uint8Array[]): Uint8Array {
  let length = 0;
  for (const part of parts) length += part.length;
  const whole = new Uint8Array(length);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
