/** Bytes waiting to be parsed: grows by doubling, so a message that trickles in costs no more than one that comes at once. */
export class ByteQueue {
  #store = new Uint8Array(1024);
  #from = 0;
  #to = 0;

  get length(): number {
    return this.#to - this.#from;
  }
  append(chunk: Uint8Array): void {
    if (this.#from > 0 && (this.#from === this.#to || this.#to + chunk.length > this.#store.length)) {
      this.#store.copyWithin(0, this.#from, this.#to);
      this.#to -= this.#from;
      this.#from = 0;
    }
    if (this.#to + chunk.length > this.#store.length) {
      const larger = new Uint8Array(Math.max(this.#store.length * 2, this.#to + chunk.length));
      larger.set(this.#store.subarray(0, this.#to));
      this.#store = larger;
    }
    this.#store.set(chunk, this.#to);
    this.#to += chunk.length;
  }
  at(offset: number): number | undefined {
    return offset < this.length ? this.#store[this.#from + offset] : undefined;
  }
  /** Offset of the first `byte` at or after `start`, or −1. */
  indexOf(byte: number, start = 0): number {
    const found = this.#store.indexOf(byte, this.#from + start);
    return found < 0 || found >= this.#to ? -1 : found - this.#from;
  }
  /** A view of the first `byteCount` bytes; it is overwritten by the next append. */
  peek(byteCount: number): Uint8Array {
    return this.#store.subarray(this.#from, this.#from + Math.min(byteCount, this.length));
  }
  /** The first `byteCount` bytes as a copy of their own, taken off the queue. */
  take(byteCount: number): Uint8Array {
    const copy = this.#store.slice(this.#from, this.#from + byteCount);
    this.#from += copy.length;
    return copy;
  }
  drop(byteCount: number): void {
    this.#from = Math.min(this.#to, this.#from + byteCount);
  }
  clear(): void {
    this.#store = new Uint8Array(0);
    this.#from = 0;
    this.#to = 0;
  }
}
