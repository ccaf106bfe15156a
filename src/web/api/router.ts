import type { RouterAnswer, RouterRequest } from '../../contract/router-api.ts';
import { callServer } from './client.ts';

/** Asks the simulated router of the demo. */
export const askRouter = async (request: RouterRequest): Promise<RouterAnswer> =>
  (
    await callServer('/api/router', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(request),
    })
  ).json();
