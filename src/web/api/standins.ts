import type { StandinAnswer, StandinRequest } from '../../contract/standin-api.ts';
import { callServer } from './client.ts';

/** Does something to a simulated camera of the demo. */
export const askStandin = async (request: StandinRequest): Promise<StandinAnswer> =>
  (
    await callServer('/api/standin', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(request),
    })
  ).json();
