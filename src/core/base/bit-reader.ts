import { ShortRead } from './bytes.ts';

/** Longest Exp-Golomb prefix that still fits 32 bits: H.264 §9.1 bounds ue(v) to 2^32 − 2. */
const MAX_GOLOMB_ZEROS = 32;

/**
 * Bit reader for RBSP data (emulation bytes already removed), with the descriptors of H.264 §7.2: u(n), ue(v), se(v).
 * @throws ShortRead from every read past the end, with the field that was wanted
 */
export class BitReader {
  #bit = 0;
  constructor(private readonly bytes: Uint8Array) {}

  get bitsLeft(): number {
    return this.bytes.length * 8 - this.#bit;
  }
  /** u(n), 0…32 bits, unsigned. */
  u(bitCount: number, field: string): number {
    if (bitCount > this.bitsLeft) throw new ShortRead(field, this.bytes.length);
    let value = 0;
    for (let i = 0; i < bitCount; i++) {
      const byte = this.bytes[this.#bit >> 3] ?? 0;
      value = value * 2 + ((byte >> (7 - (this.#bit & 7))) & 1);
      this.#bit += 1;
    }
    return value;
  }
  flag(field: string): boolean {
    return this.u(1, field) === 1;
  }
  /** ue(v), H.264 §9.1. */
  ue(field: string): number {
    let zeros = 0;
    while (this.u(1, field) === 0) {
      zeros += 1;
      if (zeros > MAX_GOLOMB_ZEROS) throw new ShortRead(field, this.#bit >> 3);
    }
    return 2 ** zeros - 1 + this.u(zeros, field);
  }
  /** se(v), H.264 §9.1.1: 1, −1, 2, −2 … */
  se(field: string): number {
    const code = this.ue(field);
    return code % 2 === 0 ? 0 - code / 2 : (code + 1) / 2;
  }
  skip(bitCount: number, field: string): void {
    if (bitCount > this.bitsLeft) throw new ShortRead(field, this.bytes.length);
    this.#bit += bitCount;
  }
}
