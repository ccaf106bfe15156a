import { BitReader } from '../base/bit-reader.ts';
import { ShortRead } from '../base/bytes.ts';

/** How access units lie in a payload, as the description says. */
export interface AacPacking {
  readonly sizeBits: number;
  readonly indexBits: number;
  readonly deltaBits: number;
}

const bitsOf = (text: string | undefined): number => (/^\d{1,2}$/.test(text ?? '') ? Math.min(32, Number(text)) : 0);

/** Of the format parameters of a track. Mode AAC-hbr has 13, 3 and 3 where they are left out. Source: RFC 3640 §3.3.6, §4.1. */
export function aacPackingOf(fmtp: Readonly<Record<string, string>>): AacPacking {
  const isHighRate = /hbr/i.test(fmtp.mode ?? '');
  return {
    sizeBits: bitsOf(fmtp.sizelength) || (isHighRate ? 13 : 0),
    indexBits: bitsOf(fmtp.indexlength) || (isHighRate ? 3 : 0),
    deltaBits: bitsOf(fmtp.indexdeltalength) || (isHighRate ? 3 : 0),
  };
}

/** A packet of sound holds few of them; more are no camera's. */
const MOST_UNITS = 64;

/**
 * Access units of one payload: a length of all headers in bits, the headers, then the units one after the other. Without
 * headers the payload is one unit. `null` where the sizes do not fit what came, a part of a unit over several packets too:
 * no camera's sound is that large. Source: RFC 3640 §3.2.1, §3.2.3.
 */
export function aacUnits(payload: Uint8Array, packing: AacPacking): readonly Uint8Array[] | null {
  if (packing.sizeBits === 0) return payload.length > 0 ? [payload] : null;
  const bits = new BitReader(payload);
  try {
    const headerBits = bits.u(16, 'AU-headers-length');
    const first = packing.sizeBits + packing.indexBits;
    const later = packing.sizeBits + packing.deltaBits;
    if (headerBits < first || (headerBits - first) % later !== 0) return null;
    const count = 1 + (headerBits - first) / later;
    if (count > MOST_UNITS) return null;
    const sizes: number[] = [];
    for (let unit = 0; unit < count; unit++) {
      sizes.push(bits.u(packing.sizeBits, 'AU-size'));
      bits.u(unit === 0 ? packing.indexBits : packing.deltaBits, 'AU-Index');
    }
    let at = 2 + Math.ceil(headerBits / 8);
    const units: Uint8Array[] = [];
    for (const size of sizes) {
      if (size === 0 || at + size > payload.length) return null;
      units.push(payload.subarray(at, at + size));
      at += size;
    }
    return units;
  } catch (error) {
    if (error instanceof ShortRead) return null;
    throw error;
  }
}

/** One access unit as a payload of mode AAC-hbr. */
export function packAac(unit: Uint8Array): Uint8Array {
  const payload = new Uint8Array(4 + unit.length);
  payload.set([0, 16, unit.length >> 5, (unit.length << 3) & 0xff]);
  payload.set(unit, 4);
  return payload;
}
