import { bytesFromHex } from '../base/bytes.ts';

/** Constants of ours: a letter wrong in one is a mistake in this file, not of a camera. */
function constant(hex: string): Uint8Array {
  const read = bytesFromHex(hex);
  if (!read.ok) throw new Error(`jpeg-tables: ${hex.slice(0, 20)} is no hex`);
  return read.value;
}

/** Huffman tables as DHT segments hold them: class and number, 16 counts, symbols. Source: ITU-T T.81 Annex K.3; RFC 2435 Appendix B. */
export const STANDARD_HUFFMAN: readonly Uint8Array[] = [
  constant('0000010501010101010100000000000000000102030405060708090a0b'),
  constant(
    '100002010303020403050504040000017d01020300041105122131410613516107227114328191a1082342b1c11552d1f02433627282090a161718191a25262728292a3435363738393a434445464748494a535455565758595a636465666768696a737475767778797a838485868788898a92939495969798999aa2a3a4a5a6a7a8a9aab2b3b4b5b6b7b8b9bac2c3c4c5c6c7c8c9cad2d3d4d5d6d7d8d9dae1e2e3e4e5e6e7e8e9eaf1f2f3f4f5f6f7f8f9fa',
  ),
  constant('0100030101010101010101010000000000000102030405060708090a0b'),
  constant(
    '1100020102040403040705040400010277000102031104052131061241510761711322328108144291a1b1c109233352f0156272d10a162434e125f11718191a262728292a35363738393a434445464748494a535455565758595a636465666768696a737475767778797a82838485868788898a92939495969798999aa2a3a4a5a6a7a8a9aab2b3b4b5b6b7b8b9bac2c3c4c5c6c7c8c9cad2d3d4d5d6d7d8d9dae2e3e4e5e6e7e8e9eaf2f3f4f5f6f7f8f9fa',
  ),
];

/** Luma and chroma quantisation at Q 50, in zigzag order. Source: ITU-T T.81 Annex K.1; RFC 2435 Appendix A. */
const BASE_QUANTISATION: readonly Uint8Array[] = [
  constant(
    '100b0c0e0c0a100e0d0e1211101318281a181616183123251d283a333d3c3933383740485c4e404457453738506d51575f626768673e4d71797064785c656763',
  ),
  constant(
    '1112121815182f1a1a2f634238426363636363636363636363636363636363636363636363636363636363636363636363636363636363636363636363636363',
  ),
];

/**
 * The tables that a Q value from 1 to 99 stands for.
 * Source: RFC 2435 §4.2 and Appendix A: factor 5000/Q below 50, 200 − 2Q from there; values from 1 to 255.
 */
export function quantisationOf(q: number): readonly Uint8Array[] {
  const factor = q < 50 ? Math.floor(5000 / q) : 200 - 2 * q;
  return BASE_QUANTISATION.map((table) =>
    table.map((value) => Math.min(255, Math.max(1, Math.floor((value * factor + 50) / 100)))),
  );
}
