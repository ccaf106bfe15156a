import type { EnoughRequest, ProbeEvent, ProbeRequest } from '../../contract/probe-api.ts';
import { streamLines } from './stream-lines.ts';

/** Runs a probe on the server and hands its events on as they come. */
export const streamProbe = (
  request: ProbeRequest,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void,
): Promise<void> => streamLines('/api/probe', request, signal, onEvent);

/** Ends the sample of a probe that is under way: it judges what came so far. */
export const endSample = (request: EnoughRequest): Promise<void> =>
  streamLines('/api/enough', request, new AbortController().signal, () => {});
