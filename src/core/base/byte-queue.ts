const SMALLEST_STORE = 1024;

/**
 * Bytes waiting to be parsed. Bytes that were handed out are never written over, so that a packet is a view and not a
 * copy; a chunk that meets an empty queue is taken as it is. What trickles in grows by doubling, and costs no more than
 * what comes at once.
 */
export class ByteQueue {
  #store: Uint8Array = new Uint8Array(0);
  #from = 0;
  #to = 0;
  /** Whether the room behind the bytes is ours to write into; a chunk that was taken as it is belongs to its giver. */
  #isOwn = false;

  get length(): number {
    return this.#to - this.#from;
  }
  /** @param chunk must not change until `own` is called; views that were taken of it live no longer than it stays as it is */
  append(chunk: Uint8Array): void {
    const { length } = this;
    if (length === 0) {
      this.#store = chunk;
      this.#from = 0;
      this.#to = chunk.length;
      this.#isOwn = false;
      return;
    }
    if (!this.#isOwn || this.#to + chunk.length > this.#store.length) {
      const larger = new Uint8Array(Math.max(SMALLEST_STORE, 2 * (length + chunk.length)));
      larger.set(this.#store.subarray(this.#from, this.#to));
      this.#store = larger;
      this.#from = 0;
      this.#to = length;
      this.#isOwn = true;
    }
    this.#store.set(chunk, this.#to);
    this.#to += chunk.length;
  }
  /** Copies what is left of a chunk that was taken as it is: from here on its giver may fill it again. */
  own(): void {
    if (this.#isOwn || this.length === 0) return;
    this.#store = this.peek(this.length).slice();
    this.#from = 0;
    this.#to = this.#store.length;
    this.#isOwn = true;
  }
  at(offset: number): number | undefined {
    return offset < this.length ? this.#store[this.#from + offset] : undefined;
  }
  /** Offset of the first `byte` at or after `start`, or −1. */
  indexOf(byte: number, start = 0): number {
    const found = this.#store.indexOf(byte, this.#from + start);
    return found < 0 || found >= this.#to ? -1 : found - this.#from;
  }
  /** A view of the first `byteCount` bytes, left in the queue. */
  peek(byteCount: number): Uint8Array {
    return this.#store.subarray(this.#from, this.#from + Math.min(byteCount, this.length));
  }
  /** A view of the first `byteCount` bytes, taken off the queue. */
  take(byteCount: number): Uint8Array {
    const view = this.peek(byteCount);
    this.#from += view.length;
    return view;
  }
  drop(byteCount: number): void {
    this.#from = Math.min(this.#to, this.#from + byteCount);
  }
  clear(): void {
    this.#store = new Uint8Array(0);
    this.#from = 0;
    this.#to = 0;
    this.#isOwn = false;
  }
}
