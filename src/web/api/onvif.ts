import type { HearLine, HearRequest, OnvifLine, OnvifRequest } from '../../contract/onvif-api.ts';
import { streamLines } from './stream-lines.ts';

/** Reads a device by ONVIF on the server, and hands its steps on as they come. */
export const readDevice = (
  request: OnvifRequest,
  signal: AbortSignal,
  onLine: (line: OnvifLine) => void,
): Promise<void> => streamLines('/api/onvif', request, signal, onLine);

/** Listens to the events of a device. */
export const hearDevice = (
  request: HearRequest,
  signal: AbortSignal,
  onLine: (line: HearLine) => void,
): Promise<void> => streamLines('/api/hear', request, signal, onLine);
