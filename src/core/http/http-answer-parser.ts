import { ByteQueue } from '../base/byte-queue.ts';
import { textOf } from '../base/bytes.ts';
import { fault } from '../base/fault.ts';
import { type Header, headerOf, readHeaderLines } from './headers.ts';
import type { HttpAnswer, HttpEvent, HttpFaultCode } from './http-message.ts';

/** Heads of devices are a few hundred bytes. */
export const MAX_HEAD_BYTES = 16 * 1024;
/** “1f40;name=value”: longer is no chunk size. */
const MAX_SIZE_LINE_BYTES = 256;

const LF = 0x0a;
const CR = 0x0d;

type Phase = 'head' | 'length' | 'chunkSize' | 'chunkData' | 'chunkEnd' | 'trailer' | 'untilEnd' | 'broken';

const STATUS_LINE = /^HTTP\/1\.([01]) (\d{3})(?: |$)/;

/**
 * Bytes in, answers out: no socket, no clock. How the bytes are cut changes nothing. What is malformed ends it: whatever
 * follows cannot be told apart any more.
 * @param mostBytes of one body
 * Source: RFC 9112 §6.3 (length of a body), §7.1 (chunks), §9.3 (persistence).
 */
export class HttpAnswerParser {
  #phase: Phase = 'head';
  readonly #held = new ByteQueue();
  /** How far no end of a head was found. */
  #searched = 0;
  #head: { readonly status: number; readonly minor: string; readonly headers: readonly Header[] } | null = null;
  readonly #body = new ByteQueue();
  #wanted = 0;

  constructor(private readonly mostBytes: number) {}

  /** Nothing of an answer has come yet. */
  get isIdle(): boolean {
    return this.#phase === 'head' && this.#held.length === 0;
  }

  push(chunk: Uint8Array): readonly HttpEvent[] {
    if (this.#phase === 'broken' || chunk.length === 0) return [];
    this.#held.append(chunk);
    const events: HttpEvent[] = [];
    for (;;) {
      const event = this.#step();
      if (event === 'more') return events;
      if (event !== 'on') events.push(event);
    }
  }

  /** The peer hung up: of an answer without a length that is its end, else it is cut. */
  end(): readonly HttpEvent[] {
    if (this.#phase === 'broken' || this.isIdle) return [];
    if (this.#phase === 'untilEnd') return [this.#complete(false)];
    const got = this.#phase === 'head' ? this.#held.length : this.#body.length;
    return [
      this.#broken(
        'http.cut',
        `The answer breaks off after ${got} bytes of its ${this.#phase === 'head' ? 'head' : 'body'}.`,
      ),
    ];
  }

  #step(): HttpEvent | 'on' | 'more' {
    switch (this.#phase) {
      case 'head':
        return this.#readHead();
      case 'length':
        return this.#readLength();
      case 'untilEnd':
        return this.#readUntilEnd();
      case 'chunkSize':
        return this.#readChunkSize();
      case 'chunkData':
        return this.#readChunkData();
      case 'chunkEnd':
      case 'trailer':
        return this.#readLineAfter();
      case 'broken':
        return 'more';
    }
  }

  #readHead(): HttpEvent | 'on' | 'more' {
    if (this.#searched === 0) this.#held.drop(blankLines(this.#held.peek(this.#held.length)));
    const held = this.#held.peek(this.#held.length);
    const end = headEnd(held, this.#searched);
    if (end === null) {
      // a line end may be cut in two
      this.#searched = Math.max(0, held.length - 3);
      if (held.length > MAX_HEAD_BYTES)
        return this.#broken('http.head-too-large', `Expected a header below ${MAX_HEAD_BYTES} bytes.`);
      // what cannot be HTTP is said at once: nobody waits for its end
      const begin = textOf(held.subarray(0, 7));
      return begin === 'HTTP/1.'.slice(0, begin.length) ? 'more' : this.#notHttp();
    }
    if (end > MAX_HEAD_BYTES)
      return this.#broken('http.head-too-large', `Expected a header below ${MAX_HEAD_BYTES} bytes.`);
    const [statusLine = '', ...lines] = textOf(held.subarray(0, end)).split(/\r?\n/);
    const found = STATUS_LINE.exec(statusLine);
    if (!found) return this.#notHttp();
    const headers = readHeaderLines(lines);
    const status = Number(found[2]);
    this.#held.drop(end);
    this.#searched = 0;
    if (status < 200) return 'on'; // RFC 9110 §15.2: the real answer follows
    this.#head = { status, minor: found[1] ?? '1', headers };
    this.#body.clear();
    return this.#beginBody(status, headers);
  }

  #beginBody(status: number, headers: readonly Header[]): HttpEvent | 'on' {
    if (status === 204 || status === 304) return this.#complete(true);
    if (headerOf({ headers }, 'transfer-encoding')?.toLowerCase().includes('chunked')) {
      this.#phase = 'chunkSize';
      return 'on';
    }
    const length = headerOf({ headers }, 'content-length');
    if (length === undefined) {
      this.#phase = 'untilEnd';
      return 'on';
    }
    if (!/^\d{1,12}$/.test(length)) return this.#broken('http.bad-length', 'Expected a number as Content-Length.');
    if (Number(length) > this.mostBytes) return this.#tooLarge(Number(length));
    this.#wanted = Number(length);
    this.#phase = 'length';
    return 'on';
  }

  #readLength(): HttpEvent | 'more' {
    this.#take(this.#wanted);
    return this.#wanted === 0 ? this.#complete(true) : 'more';
  }

  #readUntilEnd(): HttpEvent | 'more' {
    if (this.#body.length + this.#held.length > this.mostBytes)
      return this.#tooLarge(this.#body.length + this.#held.length);
    this.#wanted = this.#held.length;
    this.#take(this.#wanted);
    return 'more';
  }

  #readChunkSize(): HttpEvent | 'on' | 'more' {
    const line = this.#line();
    if (line === null)
      return this.#held.length > MAX_SIZE_LINE_BYTES
        ? this.#broken('http.bad-chunk', 'Expected the size of a chunk on a short line.')
        : 'more';
    const size = /^([0-9a-fA-F]{1,8})(?:[ \t]*;|[ \t]*$)/.exec(line.slice(0, MAX_SIZE_LINE_BYTES))?.[1];
    if (size === undefined) return this.#broken('http.bad-chunk', 'Expected the size of a chunk in hex digits.');
    this.#wanted = Number.parseInt(size, 16);
    if (this.#body.length + this.#wanted > this.mostBytes) return this.#tooLarge(this.#body.length + this.#wanted);
    this.#phase = this.#wanted === 0 ? 'trailer' : 'chunkData';
    return 'on';
  }

  #readChunkData(): 'on' | 'more' {
    this.#take(this.#wanted);
    if (this.#wanted > 0) return 'more';
    this.#phase = 'chunkEnd';
    return 'on';
  }

  /** The empty line behind a chunk, or lines of a trailer up to the empty one. */
  #readLineAfter(): HttpEvent | 'on' | 'more' {
    const line = this.#line();
    if (line === null)
      return this.#held.length > MAX_HEAD_BYTES
        ? this.#broken('http.head-too-large', `Expected a trailer below ${MAX_HEAD_BYTES} bytes.`)
        : 'more';
    if (this.#phase === 'trailer') return line === '' ? this.#complete(true) : 'on';
    if (line !== '') return this.#broken('http.bad-chunk', 'Expected the end of a line behind a chunk.');
    this.#phase = 'chunkSize';
    return 'on';
  }

  /** Moves up to so many bytes into the body. */
  #take(most: number): void {
    const piece = this.#held.take(most);
    if (piece.length > 0) this.#body.append(piece);
    this.#wanted -= piece.length;
  }

  #line(): string | null {
    const held = this.#held.peek(this.#held.length);
    const at = held.indexOf(LF, this.#searched);
    if (at < 0 || at > MAX_HEAD_BYTES) {
      this.#searched = held.length;
      return null;
    }
    this.#searched = 0;
    const line = textOf(held.subarray(0, at > 0 && held[at - 1] === CR ? at - 1 : at));
    this.#held.drop(at + 1);
    return line;
  }

  #complete(hasEnd: boolean): HttpEvent {
    const { status, minor, headers } = this.#head ?? { status: 0, minor: '1', headers: [] };
    const connection = headerOf({ headers }, 'connection')?.toLowerCase() ?? '';
    const answer: HttpAnswer = {
      status,
      headers,
      body: this.#body.take(this.#body.length).slice(),
      staysOpen: hasEnd && (minor === '1' ? !connection.includes('close') : connection.includes('keep-alive')),
    };
    this.#body.clear();
    this.#phase = 'head';
    this.#head = null;
    return { kind: 'answer', answer };
  }

  #notHttp(): HttpEvent {
    return this.#broken('http.not-http', 'What responds there is not HTTP.');
  }
  #tooLarge(bytes: number): HttpEvent {
    return this.#broken('http.body-too-large', `Expected at most ${this.mostBytes} bytes, ${bytes} are on their way.`);
  }
  #broken(code: HttpFaultCode, message: string): HttpEvent {
    this.#phase = 'broken';
    this.#held.clear();
    this.#body.clear();
    return { kind: 'malformed', fault: fault(code, message) };
  }
}

/** Blank lines before a head are passed over (RFC 9112 §2.2). */
function blankLines(bytes: Uint8Array): number {
  let count = 0;
  while (bytes[count] === CR || bytes[count] === LF) count += 1;
  return count;
}

/** Where a head ends, behind its empty line; looked for from a place before which there is none. */
function headEnd(held: Uint8Array, from: number): number | null {
  for (let at = held.indexOf(LF, from); at >= 0 && at <= MAX_HEAD_BYTES; at = held.indexOf(LF, at + 1)) {
    if (held[at + 1] === LF) return at + 2;
    if (held[at + 1] === CR && held[at + 2] === LF) return at + 3;
  }
  return null;
}
