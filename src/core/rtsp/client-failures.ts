import { redactUrl, type StreamUrl, withoutAccount } from '../net/stream-url.ts';
import { parseStreamUrl } from '../net/stream-url-parser.ts';
import type { ProbeCause } from './exchange-types.ts';
import type { RtspFaultCode } from './message-parser.ts';
import type { RtspResponse } from './rtsp-message.ts';
import { meaningOf } from './status-codes.ts';

/** Why an exchange ended without what was asked for: the cause, and what happened in plain words. */
export interface ClientFailure {
  readonly cause: ProbeCause;
  readonly note: string;
}

const DISMISSALS: Readonly<Partial<Record<string, string>>> = {
  TEARDOWN: 'The camera ended the session itself (TEARDOWN).',
  REDIRECT: 'The camera redirects its clients (REDIRECT); another address is never followed.',
};
/** What a request of the camera's own ends, in words; `null` for one that ends nothing. */
export const dismissalOf = (method: string): string | null =>
  Object.hasOwn(DISMISSALS, method) ? (DISMISSALS[method] ?? null) : null;

const MALFORMED: Readonly<Record<Exclude<RtspFaultCode, 'rtsp.truncated'>, ClientFailure>> = {
  'rtsp.not-rtsp': { cause: 'not-rtsp', note: 'Something other than RTSP responded' },
  'rtsp.start-line-too-long': { cause: 'not-rtsp', note: 'The answer began with a line longer than any RTSP answer' },
  'rtsp.headers-too-long': { cause: 'protocol-error', note: 'The headers went on beyond 64 KiB, after' },
  'rtsp.bad-content-length': { cause: 'protocol-error', note: 'The answer gives a length that is no number, in' },
  'rtsp.body-too-long': { cause: 'protocol-error', note: 'The answer announces a body above 1 MiB, in' },
};

/** @param spokeRtsp whether the peer had answered in RTSP before: then it is no other protocol, but a broken one */
export function failureOfMalformed(
  code: Exclude<RtspFaultCode, 'rtsp.truncated'>,
  excerpt: string,
  spokeRtsp: boolean,
): ClientFailure {
  if (spokeRtsp && MALFORMED[code].cause === 'not-rtsp')
    return { cause: 'protocol-error', note: `After an answer came something that is not RTSP: “${excerpt}”` };
  const { cause, note } = MALFORMED[code];
  return { cause, note: `${note}: “${excerpt}”` };
}

export function failureOfStatus(response: RtspResponse, method: string): ClientFailure {
  const { cause, reason, means } = meaningOf(response.status);
  return { cause, note: `${response.status} ${response.reason || reason} to ${method}: ${means}.` };
}

/** What is no description of a stream, whatever status it came with. Some cameras leave the type out or wrong. */
export const failureOfDescription = (type: string, text: string): ClientFailure | null =>
  /^application\/sdp\b/i.test(type) || /^v=0/.test(text.trimStart())
    ? null
    : { cause: 'protocol-error', note: `Expected a stream description (application/sdp), got ${type.slice(0, 40)}.` };

const MAX_REDIRECTS = 3;

/**
 * Where a redirect leads: another path of the same camera is followed, another address never, since the account would go
 * with it. Source: RFC 2326 §11.3; the limit is ours.
 * @param count how many redirects this one makes
 */
export function followRedirect(location: string, from: StreamUrl, count: number): { url: string } | ClientFailure {
  const target = parseStreamUrl(location);
  if (!target.ok) return { cause: 'protocol-error', note: 'Redirected, but not to a URL that can be read.' };
  const { url } = target.value;
  if (url.host !== from.host || url.port !== from.port || url.scheme !== from.scheme) {
    const note = `Redirected to ${redactUrl(location)}: another address is never followed with this account.`;
    return { cause: 'blocked-by-policy', note };
  }
  const next = withoutAccount(url);
  if (count > MAX_REDIRECTS) return { cause: 'redirect-loop', note: `Redirected ${count} times, last to ${next}.` };
  return { url: next };
}
