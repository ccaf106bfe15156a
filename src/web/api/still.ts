import type { StillLine, StillRequest } from '../../contract/still-api.ts';
import { streamLines } from './stream-lines.ts';

/** One picture of a device by HTTP, as a data URL. Rejects with what stands in the way. */
export async function fetchStill(request: StillRequest, signal: AbortSignal): Promise<string> {
  let told: StillLine | null = null;
  await streamLines('/api/still', request, signal, (line: StillLine) => {
    told = line;
  });
  const line = told as StillLine | null; // set by what was handed on
  if (line?.kind === 'still') return `data:image/jpeg;base64,${line.jpeg}`;
  throw new Error(line?.note ?? 'No snapshot came.');
}
