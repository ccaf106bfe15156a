import { ByteQueue } from '../base/byte-queue.ts';
import { textOf } from '../base/bytes.ts';
import { hasControl, oneLine } from '../base/control-signs.ts';
import { headersOf, readHeaderLines } from '../http/headers.ts';
import type { RtspMessage, RtspRequest, RtspResponse } from './rtsp-message.ts';

export type RtspFaultCode =
  | 'rtsp.not-rtsp'
  | 'rtsp.start-line-too-long'
  | 'rtsp.headers-too-long'
  | 'rtsp.bad-content-length'
  | 'rtsp.body-too-long'
  | 'rtsp.truncated';

export type RtspEvent =
  | { readonly kind: 'response'; readonly response: RtspResponse }
  | { readonly kind: 'request'; readonly request: RtspRequest }
  | { readonly kind: 'interleaved'; readonly channel: number; readonly payload: Uint8Array }
  | {
      readonly kind: 'malformed';
      readonly code: RtspFaultCode;
      readonly byteOffset: number;
      readonly excerpt: string;
    };

/** Takes an interleaved frame; its payload is a view of what was pushed. */
export type OnFrame = (channel: number, payload: Uint8Array) => void;

/** Longest start line: RFC 2326 sets none; a URL of 2,000 characters with its method and version fits twice. */
const MAX_START_LINE_BYTES = 4096;
/** A camera's whole header is under 2 KiB; 32 times that is no camera. */
const MAX_HEADER_BYTES = 64 * 1024;
/** The largest body read: an SDP of a recorder with many channels stays far below. */
const MAX_BODY_BYTES = 1024 * 1024;
const EXCERPT_BYTES = 48;

/** “$”, channel, length. */
const FRAME_HEAD_BYTES = 4;
const NO_EVENTS: readonly RtspEvent[] = [];

const LF = 10;
const CR = 13;
const DOLLAR = 36;
const STATUS_LINE = /^RTSP\/1\.\d (\d{3})(?: (.*))?$/;
const REQUEST_LINE = /^([A-Z_]{2,32}) (\S+) RTSP\/1\.\d$/;

/** What no RTSP peer sends as its first bytes: control characters other than line ends, or bytes above ASCII. */
const isTextByte = (byte: number): boolean => byte === CR || byte === LF || byte === 9 || (byte >= 32 && byte < 127);

/**
 * Bytes in, messages and interleaved frames out: no socket, no clock. How the bytes are cut changes nothing.
 * Header names in any case, LF for CRLF and folded header lines are taken; unknown headers are kept. After `malformed`
 * the connection cannot be understood any more and further bytes are dropped.
 * Source: RFC 2326 §4 (messages), §10.12 (`$`, channel, 16-bit length).
 */
export class RtspMessageParser {
  readonly #queue = new ByteQueue();
  #consumed = 0;
  #searchedTo = 0;
  #failed = false;
  #onFrame: OnFrame | null = null;
  #pending: {
    readonly startLine: string;
    readonly message: Omit<RtspMessage, 'body'>;
    readonly bodyBytes: number;
  } | null = null;

  /**
   * @param chunk may be filled again once this returns; so events are to be read before the next push
   * @param onFrame takes interleaved frames as they are found; without it they are events like all else. Where a chunk begins with
   * one and nothing waits, frames are read off it where they lie: of a stream nearly every chunk does
   */
  push(chunk: Uint8Array, onFrame?: OnFrame): readonly RtspEvent[] {
    if (this.#failed) return [];
    const from = onFrame && this.#queue.length === 0 && !this.#pending ? this.#framesOf(chunk, onFrame) : 0;
    if (from === chunk.length) return NO_EVENTS;
    this.#queue.append(from === 0 ? chunk : chunk.subarray(from));
    this.#onFrame = onFrame ?? null;
    const events: RtspEvent[] = [];
    for (let event = this.#next(); event; event = this.#next()) {
      events.push(event);
      if (event.kind === 'malformed') break;
    }
    this.#queue.own();
    return events;
  }

  /** End of stream: a half-read message becomes one `malformed` event, never silence. */
  end(): readonly RtspEvent[] {
    if (this.#failed) return [];
    this.#dropBlankLines();
    if (this.#queue.length === 0 && !this.#pending) return [];
    return [this.#malformed('rtsp.truncated')];
  }

  /** Whole frames from the beginning of a chunk; where what follows them begins. Source: RFC 2326 §10.12. */
  #framesOf(chunk: Uint8Array, onFrame: OnFrame): number {
    const { length } = chunk;
    let at = 0;
    while (at + FRAME_HEAD_BYTES <= length && chunk[at] === DOLLAR) {
      const end = at + FRAME_HEAD_BYTES + (chunk[at + 2] ?? 0) * 0x100 + (chunk[at + 3] ?? 0);
      if (end > length) break;
      onFrame(chunk[at + 1] ?? 0, chunk.subarray(at + FRAME_HEAD_BYTES, end));
      at = end;
    }
    this.#consumed += at;
    return at;
  }

  #next(): RtspEvent | null {
    while (!this.#failed) {
      if (this.#pending) return this.#finishMessage();
      this.#dropBlankLines();
      const first = this.#queue.at(0);
      if (first === undefined) return null;
      if (first !== DOLLAR) return this.#readHead() ?? this.#finishMessage();
      const frame = this.#interleaved();
      if (frame?.kind !== 'interleaved' || !this.#onFrame) return frame;
      this.#onFrame(frame.channel, frame.payload);
    }
    return null;
  }

  #interleaved(): RtspEvent | null {
    const [channel, high, low] = [this.#queue.at(1), this.#queue.at(2), this.#queue.at(3)];
    if (channel === undefined || high === undefined || low === undefined) return null;
    const length = high * 256 + low;
    if (this.#queue.length < 4 + length) return null;
    this.#drop(4);
    return { kind: 'interleaved', channel, payload: this.#take(length) };
  }

  /** Looks for the empty line; sets `#pending` when the head is whole. */
  #readHead(): RtspEvent | null {
    const startLineEnd = this.#queue.indexOf(LF);
    const startBytes = this.#queue.peek(Math.min(startLineEnd < 0 ? this.#queue.length : startLineEnd, EXCERPT_BYTES));
    if (!startBytes.every(isTextByte)) return this.#malformed('rtsp.not-rtsp');
    if (startLineEnd < 0)
      return this.#queue.length > MAX_START_LINE_BYTES ? this.#malformed('rtsp.start-line-too-long') : null;
    if (startLineEnd > MAX_START_LINE_BYTES) return this.#malformed('rtsp.start-line-too-long');
    if (this.#searchedTo === 0) {
      const startLine = textOf(this.#queue.peek(startLineEnd)).trimEnd();
      if (!STATUS_LINE.test(startLine) && !REQUEST_LINE.test(startLine)) return this.#malformed('rtsp.not-rtsp');
      this.#searchedTo = startLineEnd;
    }
    for (;;) {
      const lf = this.#queue.indexOf(LF, this.#searchedTo);
      if ((lf < 0 ? this.#queue.length : lf) > MAX_HEADER_BYTES) return this.#malformed('rtsp.headers-too-long');
      if (lf < 0) return null;
      const next = this.#queue.at(lf + 1);
      const headEnd = next === LF ? lf + 2 : next === CR && this.#queue.at(lf + 2) === LF ? lf + 3 : null;
      if (headEnd !== null) return this.#openMessage(headEnd);
      if (next === undefined || (next === CR && this.#queue.at(lf + 2) === undefined)) {
        this.#searchedTo = lf;
        return null;
      }
      this.#searchedTo = lf + 1;
    }
  }

  #openMessage(headBytes: number): RtspEvent | null {
    const head = textOf(this.#queue.peek(headBytes)).trimEnd();
    const lines = unfolded(head.split('\n'));
    const [startLine = '', ...rest] = lines;
    const headers = readHeaderLines(rest);
    const lengths = new Set(headersOf({ headers }, 'content-length'));
    const [length = '0'] = lengths;
    if (lengths.size > 1 || !/^\d{1,15}$/.test(length)) return this.#malformed('rtsp.bad-content-length');
    if (Number(length) > MAX_BODY_BYTES) return this.#malformed('rtsp.body-too-long');
    this.#drop(headBytes);
    this.#searchedTo = 0;
    const oddLines = rest.filter((line) => line.indexOf(':') <= 0);
    this.#pending = { startLine, message: { headers, oddLines, head }, bodyBytes: Number(length) };
    return null;
  }

  #finishMessage(): RtspEvent | null {
    const pending = this.#pending;
    if (!pending || this.#queue.length < pending.bodyBytes) return null;
    this.#pending = null;
    const body = this.#take(pending.bodyBytes);
    const { startLine } = pending;
    const message = { ...pending.message, body };
    const status = STATUS_LINE.exec(startLine);
    if (status)
      return { kind: 'response', response: { ...message, status: Number(status[1]), reason: status[2]?.trim() ?? '' } };
    const request = REQUEST_LINE.exec(startLine);
    return { kind: 'request', request: { ...message, method: request?.[1] ?? '', uri: request?.[2] ?? '' } };
  }

  #dropBlankLines(): void {
    if (this.#pending || this.#searchedTo > 0) return;
    let blank = 0;
    for (let byte = this.#queue.at(0); byte === CR || byte === LF; byte = this.#queue.at(blank)) blank += 1;
    if (blank > 0) this.#drop(blank);
  }
  #drop(byteCount: number): void {
    this.#queue.drop(byteCount);
    this.#consumed += byteCount;
  }
  #take(byteCount: number): Uint8Array {
    this.#consumed += byteCount;
    return this.#queue.take(byteCount);
  }
  #malformed(code: RtspFaultCode): RtspEvent {
    const excerpt = printable(this.#queue.peek(EXCERPT_BYTES));
    this.#failed = true;
    this.#queue.clear();
    return { kind: 'malformed', code, byteOffset: this.#consumed, excerpt };
  }
}

/** Header lines without their line ends; a line that begins with a blank goes on with the one before (RFC 2326 §4.2). */
function unfolded(raw: readonly string[]): readonly string[] {
  const lines: string[] = [];
  for (const text of raw) {
    const line = text.endsWith('\r') ? text.slice(0, -1) : text;
    const isFolded = lines.length > 0 && (line.startsWith(' ') || line.startsWith('\t'));
    if (isFolded) lines.push(`${lines.pop()} ${line.trimStart()}`);
    else lines.push(line);
  }
  // A lone CR or another control sign would end a line of what we send back (realm, nonce, session).
  return lines.map((line) => (hasControl(line) ? oneLine(line) : line));
}

function printable(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += byte >= 32 && byte < 127 ? String.fromCharCode(byte) : '·';
  return text;
}
