import type { ProbeEvent, ProbeRequest } from '../../contract/probe-api.ts';
import { callServer } from './client.ts';

/** Runs a probe on the server and hands its events on as they come. Aborting the signal cancels it there at once. */
export async function streamProbe(
  request: ProbeRequest,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void,
): Promise<void> {
  const response = await callServer('/api/probe', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(request),
    signal,
  });
  if (!response.body) return;
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) if (line !== '') onEvent(JSON.parse(line));
  }
}
