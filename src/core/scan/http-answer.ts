import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
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
  const headers = new Map<string, string>();
  for (const line of lines) {
    const at = line.indexOf(':');
    if (at > 0) headers.set(line.slice(0, at).trim().toLowerCase(), line.slice(at + 1).trim());
  }
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

/** Whether an answer has come as far as it will be looked at. */
export function isEnough({ protocol, headers, body, hasHead }: FirstAnswer, want: 'head' | 'title' | 'body'): boolean {
  if (!hasHead) return false;
  if (protocol === 'RTSP' || want === 'head') return true;
  const length = Number(headers.get('content-length') ?? Number.NaN);
  if (body.length >= length) return true;
  return want === 'title' ? body.toLowerCase().includes('</title') : body.includes('Envelope>');
}
