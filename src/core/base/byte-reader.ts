import { ShortRead } from './bytes.ts';

/**
 * Big-endian reader that knows where it is. Every read names the field it wants.
 * @throws ShortRead from every read past the end
 */
export class ByteReader {
  #at = 0;
  constructor(private readonly bytes: Uint8Array) {}

  get byteOffset(): number {
    return this.#at;
  }
  get bytesLeft(): number {
    return this.bytes.length - this.#at;
  }
  u8(field: string): number {
    const value = this.bytes[this.#at];
    if (value === undefined) throw new ShortRead(field, this.#at);
    this.#at += 1;
    return value;
  }
  u16(field: string): number {
    return this.u8(field) * 0x100 + this.u8(field);
  }
  u32(field: string): number {
    return this.u16(field) * 0x10000 + this.u16(field);
  }
  /** A view, not a copy: valid as long as the bytes it was given are. */
  take(byteCount: number, field: string): Uint8Array {
    if (byteCount > this.bytesLeft) throw new ShortRead(field, this.bytes.length);
    const view = this.bytes.subarray(this.#at, this.#at + byteCount);
    this.#at += byteCount;
    return view;
  }
  skip(byteCount: number, field: string): void {
    this.take(byteCount, field);
  }
}
