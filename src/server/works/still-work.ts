import { type StillLine, type StillRequest, stillRequestSchema } from '../../contract/still-api.ts';
import { base64Of } from '../../core/base/bytes.ts';
import { type HttpAnswer, type HttpHeader, headersOf } from '../../core/http/http-message.ts';
import { Login } from '../../core/rtsp/login.ts';
import { createHttpPort } from '../adapters/http-port.ts';
import { USER_AGENT, type World } from '../drive.ts';
import { HttpFailure } from '../ports.ts';
import { accountOf } from './run-onvif.ts';
import { workOf } from './work.ts';

const TIMEOUT_MS = 5000;
/** A picture of 12 Mpx in good quality is below it. */
const MOST_BYTES = 8 * 1024 * 1024;
const MOST = { most: 8, many: 'stills' };
const none = (note: string): StillLine => ({ kind: 'none', note });

/** Asks without a login first, and answers at most one challenge: a still is not worth an account. */
async function fetchStill(
  { host, port, path, user, secret }: StillRequest,
  world: World,
  signal: AbortSignal,
): Promise<StillLine> {
  const http = createHttpPort(world.dialer);
  const login = new Login(accountOf(user, secret), () => world.entropy.hex(8));
  const get = async (headers: readonly HttpHeader[]): Promise<HttpAnswer> => {
    const request = { method: 'GET', host, port, path, headers, body: '' } as const;
    const limits = { timeoutMs: TIMEOUT_MS, mostBytes: MOST_BYTES, mayRepeat: true, signal };
    return (await http.exchange(request, limits)).answer;
  };
  const agent = { name: 'User-Agent', value: USER_AGENT };
  try {
    let answer = await get([agent]);
    if (answer.status === 401) {
      const failure = login.refused(headersOf(answer, 'WWW-Authenticate'), false);
      if (failure) return none(failure.note);
      const proof = login.authorizationFor('GET', path);
      answer = await get([agent, ...(proof === null ? [] : [{ name: 'Authorization', value: proof }])]);
    }
    if (answer.status !== 200) return none(`Asked for a still, it answered ${answer.status}.`);
    const [first, second] = answer.body;
    if (first !== 0xff || second !== 0xd8) return none('What it gave is no JPEG picture.');
    return { kind: 'still', jpeg: base64Of(answer.body) };
  } catch (error) {
    if (error instanceof HttpFailure) return none(error.message);
    throw error;
  } finally {
    http.close();
  }
}

export const STILL = workOf(stillRequestSchema, MOST, async (request, world, signal, { say }) =>
  say(await fetchStill(request, world, signal)),
);
