import { ByteQueue } from '../base/byte-queue.ts';
import { textOf } from '../base/bytes.ts';
import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { readHeaderLines } from '../http/headers.ts';
import { SEEN_LIMITS } from './seen.ts';

/** As much of an answer as is looked at: heads and titles stand at its beginning. */
export const MAX_GREETING_BYTES = 16 * 1024;

/** A first answer in the manner of HTTP or RTSP, as far as it got. */
export interface FirstAnswer {
  readonly protocol: 'RTSP' | 'HTTP';
  readonly status: number;
  /** Names in small letters. */
  readonly headers: ReadonlyMap<string, string>;
  readonly body: string;
  /** All of its head is there. */
  readonly hasHead: boolean;
}

const STATUS = /^(RTSP|HTTP)\/\d\.\d (\d{3})/;

/** Reads what stands at the beginning of an answer; `null` when it is of neither protocol. */
export function readFirstAnswer(text: string): FirstAnswer | null {
  const clipped = text.slice(0, MAX_GREETING_BYTES);
  const found = STATUS.exec(clipped);
  if (!found) return null;
  const end = clipped.indexOf('\r\n\r\n');
  const hasHead = end !== -1;
  const [, ...lines] = (hasHead ? clipped.slice(0, end) : clipped).split('\r\n', 100);
  const headers = new Map(readHeaderLines(lines).map(({ name, value }) => [name.toLowerCase(), value]));
  return {
    protocol: found[1] === 'RTSP' ? 'RTSP' : 'HTTP',
    status: Number(found[2]),
    headers,
    body: hasHead ? clipped.slice(end + 4) : '',
    hasHead,
  };
}

/** A text of a stranger as it is kept: one line, and short. */
export const said = (text: string | undefined): string => clipText(oneLine(text ?? '').trim(), SEEN_LIMITS.text);

/** The title of a page, if its beginning has one. */
export function titleOf(page: string): string {
  const lower = page.toLowerCase();
  const open = lower.indexOf('<title');
  const from = open === -1 ? -1 : lower.indexOf('>', open);
  const to = from === -1 ? -1 : lower.indexOf('</title', from);
  return to === -1 ? '' : said(page.slice(from + 1, to).replace(/\s+/g, ' '));
}

/** How much of an answer is wanted: its head, a page up to its title, or all of it. */
export type Wanted = 'head' | 'title' | 'body';

const HEAD_END = '\r\n\r\n';
/** Signs that what is wanted is there, though more may come: in small letters. */
const MARKS = { title: '</title', body: 'envelope>' } as const;
/** One sign for each byte, so that a place in the text is one in the bytes. */
const signs = new TextDecoder('latin1');
/** As many bytes tell which protocol it is. */
const STATUS_BYTES = 'RTSP/1.0 200'.length;

/**
 * Takes an answer piece by piece, and tells when enough of it is there. Each piece is looked at once, with the few bytes before it that
 * a mark may have begun in: a peer that sends a byte at a time costs no more than one that sends all at once.
 */
export class FirstAnswerReader {
  readonly #bytes = new ByteQueue();
  /** Where the body begins; `null` until the head is there. */
  #bodyAt: number | null = null;
  #bodyBytes = Number.POSITIVE_INFINITY;
  #isEnough = false;

  constructor(private readonly wanted: Wanted) {}

  /** Nothing that comes after this is looked at. */
  get isEnough(): boolean {
    return this.#isEnough;
  }

  push(chunk: Uint8Array): void {
    if (this.#isEnough) return;
    const from = this.#bytes.length;
    this.#bytes.append(chunk.subarray(0, MAX_GREETING_BYTES - from));
    this.#bytes.own();
    this.#isEnough = this.#bytes.length >= MAX_GREETING_BYTES || this.#look(from);
  }

  /** What came so far; `null` when it is of neither protocol. */
  answer(): FirstAnswer | null {
    return readFirstAnswer(textOf(this.#bytes.peek(this.#bytes.length)));
  }

  /** @param from how many bytes were looked at already */
  #look(from: number): boolean {
    if (this.#bodyAt !== null) return this.#isBodyEnough(from);
    if (this.#bytes.length < STATUS_BYTES) return false;
    if (from < STATUS_BYTES && !STATUS.test(textOf(this.#bytes.peek(STATUS_BYTES)))) return true;
    const end = this.#find(HEAD_END, from);
    if (end === null) return false;
    this.#bodyAt = end + HEAD_END.length;
    const answer = this.answer();
    if (answer?.protocol === 'RTSP' || this.wanted === 'head') return true;
    this.#bodyBytes = Number(answer?.headers.get('content-length') ?? Number.POSITIVE_INFINITY);
    return this.#isBodyEnough(this.#bodyAt);
  }

  #isBodyEnough(from: number): boolean {
    const bodyAt = this.#bodyAt ?? 0;
    if (this.#bytes.length - bodyAt >= this.#bodyBytes) return true;
    const found = this.wanted === 'head' ? null : this.#find(MARKS[this.wanted], from);
    return found !== null && found >= bodyAt;
  }

  /** Where a mark stands that ends after `from`. */
  #find(mark: string, from: number): number | null {
    const start = Math.max(0, from - mark.length + 1);
    const at = signs.decode(this.#bytes.peek(this.#bytes.length).subarray(start)).toLowerCase().indexOf(mark);
    return at === -1 ? null : start + at;
  }
}
