import { textOf } from '../base/bytes.ts';
import { headerOf } from '../http/headers.ts';
import { parseSdp } from '../sdp/sdp-parser.ts';
import type { SdpFault, SdpSession } from '../sdp/sdp-types.ts';
import { type ClientFailure, failureOfDescription } from './client-failures.ts';
import type { RtspResponse } from './rtsp-message.ts';

/**
 * Reads the answer to DESCRIBE. Relative controls are appended to Content-Base, else to Content-Location, else to the URL
 * that was asked for. Source: RFC 2326 §C.1.1.
 */
export function readDescription(
  response: RtspResponse,
  requestUrl: string,
): { readonly session: SdpSession; readonly faults: readonly SdpFault[] } | ClientFailure {
  const text = textOf(response.body);
  const unfit = failureOfDescription(headerOf(response, 'Content-Type') ?? 'application/sdp', text);
  if (unfit) return unfit;
  return parseSdp(text, headerOf(response, 'Content-Base') ?? headerOf(response, 'Content-Location') ?? requestUrl);
}
