import { callServer } from './client.ts';

/** Asks the server for work, and hands its lines on as they come. Aborting the signal cancels it there at once. */
export async function streamLines<Event>(
  path: string,
  request: object,
  signal: AbortSignal,
  onEvent: (event: Event) => void,
): Promise<void> {
  const response = await callServer(path, {
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
