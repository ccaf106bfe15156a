import type { SessionsLine, SessionsRequest } from '../../contract/probe-api.ts';
import { streamLines } from './stream-lines.ts';

/** Counts the sessions of a camera on the server, and hands each seat on as it is had. */
export const countSessions = (
  request: SessionsRequest,
  signal: AbortSignal,
  onLine: (line: SessionsLine) => void,
): Promise<void> => streamLines('/api/sessions', request, signal, onLine);
