import type { Header } from '../http/headers.ts';
import type { HttpAnswer, HttpRequest } from '../http/http-message.ts';
import { MAX_ANSWER_BYTES } from '../onvif/onvif-limits.ts';
import { writeEnvelope } from '../onvif/operation.ts';
import { asked, type ServicePlace } from '../onvif/service-place.ts';
import type { Call } from './onvif-script.ts';
import { failed, type Judged } from './session-types.ts';

interface Proven {
  readonly userAgent: string;
  readonly knownFingerprint: string | null;
  /** The header of WS-Security; empty without one. */
  readonly security: string;
  readonly authorization: string | null;
}

const originOf = ({ host, port, isTls }: ServicePlace): string => {
  const named = host.includes(':') ? `[${host}]` : host;
  return `${isTls ? 'https' : 'http'}://${named}${port === (isTls ? 443 : 80) ? '' : `:${port}`}`;
};

/** One call as a request of HTTP. Source: SOAP 1.2 part 2 §7 (HTTP binding). */
export function writeCall(
  { operation, inner, echo }: Call,
  place: ServicePlace,
  { userAgent, knownFingerprint, security, authorization }: Proven,
): HttpRequest {
  const headers: Header[] = [
    { name: 'User-Agent', value: userAgent },
    { name: 'Content-Type', value: 'application/soap+xml; charset=utf-8' },
    ...(authorization === null ? [] : [{ name: 'Authorization', value: authorization }]),
  ];
  const to = `${originOf(place)}${place.path}`;
  const body = writeEnvelope({ operation, inner, to, security, echo });
  return { method: 'POST', ...asked(place), headers, body, knownFingerprint };
}

/** Why an answer is none of SOAP. */
export function notSoap({ status }: HttpAnswer, type: string, code: string, text: string): Judged {
  if (code === 'onvif.doctype' && !/^\s*<!doctype html/i.test(text.slice(0, 200)))
    return failed(
      'hostile-xml',
      'The answer contains a document type, which SOAP forbids and attacks begin with: it was not read.',
    );
  if (code === 'onvif.too-large')
    return failed('too-large', `The answer is larger than ${MAX_ANSWER_BYTES / 1024} KiB.`);
  if (code === 'onvif.too-many') return failed('too-large', 'The answer has more elements than any device sends.');
  if (status === 404 || status === 405) return failed('not-found', `No ONVIF service at this path (${status}).`);
  const what = type.includes('html') || /^\s*<(?:!doctype )?html/i.test(text.slice(0, 200)) ? 'a web page' : 'no SOAP';
  return failed('not-soap', `It answered with ${what} (${status}).`);
}

/** A Location that names no host leads to the one that sent it; empty where it is none. Source: RFC 9110 §10.2.2. */
export function resolvedLocation(location: string, from: ServicePlace): string {
  try {
    return new URL(location.slice(0, 1024), `${originOf(from)}${from.path}`).href;
  } catch {
    return '';
  }
}
