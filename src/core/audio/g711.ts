/** G.711, eight bits a sample by either law. Source: ITU-T G.711 (1988) Tables 1a to 2b. */
export type G711Law = 'PCMU' | 'PCMA';

/** μ-law counts from this offset. */
const BIAS = 0x84;
const MOST = 32_635;

function muLaw(code: number): number {
  const byte = ~code & 0xff;
  const exponent = (byte >> 4) & 7;
  const magnitude = (((byte & 15) << 3) + BIAS) << exponent;
  return byte & 0x80 ? BIAS - magnitude : magnitude - BIAS;
}

function aLaw(code: number): number {
  const byte = code ^ 0x55;
  const exponent = (byte >> 4) & 7;
  const mantissa = ((byte & 15) << 4) + 8;
  const magnitude = exponent === 0 ? mantissa : (mantissa + 0x100) << (exponent - 1);
  return byte & 0x80 ? magnitude : -magnitude;
}

const table = (decode: (code: number) => number): Int16Array =>
  Int16Array.from({ length: 256 }, (_, code) => decode(code));
const TABLES: Readonly<Record<G711Law, Int16Array>> = { PCMU: table(muLaw), PCMA: table(aLaw) };

/** Samples of 16 bits, one for each byte. */
export function decodeG711(law: G711Law, bytes: Uint8Array): Int16Array {
  const values = TABLES[law];
  return Int16Array.from(bytes, (code) => values[code] ?? 0);
}

/** The highest exponent whose segment holds `magnitude`, from 0 to 7. */
const segmentOf = (magnitude: number, first: number): number => {
  let exponent = 7;
  for (let edge = first << 7; exponent > 0 && magnitude < edge; edge >>= 1) exponent -= 1;
  return exponent;
};

/** The nearest code of each sample of 16 bits. */
export function encodeG711(law: G711Law, samples: Int16Array): Uint8Array {
  return Uint8Array.from(samples, (sample) => {
    if (law === 'PCMU') {
      const magnitude = Math.min(Math.abs(sample), MOST) + BIAS;
      const exponent = segmentOf(magnitude, 0x80);
      return ~((sample < 0 ? 0x80 : 0) | (exponent << 4) | ((magnitude >> (exponent + 3)) & 15)) & 0xff;
    }
    const magnitude = Math.min(Math.abs(sample), MOST);
    const exponent = segmentOf(magnitude, 0x80);
    const mantissa = exponent === 0 ? magnitude >> 4 : magnitude >> (exponent + 3);
    return ((sample < 0 ? 0 : 0x80) | (exponent << 4) | (mantissa & 15)) ^ 0x55;
  });
}
