import { type StillLine, type StillRequest, stillRequestSchema } from '../../contract/still-api.ts';
import { type ProofGate, proofEndOf, sayHeld } from '../../core/auth/proof-gate.ts';
import { base64Of } from '../../core/base/bytes.ts';
import { type Header, headersOf } from '../../core/http/headers.ts';
import type { HttpAnswer } from '../../core/http/http-message.ts';
import { createDeepVeil } from '../../core/machine/password-veil.ts';
import { asksForSecret, fillPath } from '../../core/net/path-places.ts';
import { Login } from '../../core/rtsp/login.ts';
import { createHttpPort } from '../adapters/http-port.ts';
import { USER_AGENT, type World } from '../drive.ts';
import { HttpFailure } from '../ports.ts';
import { accountOf } from './run-onvif.ts';
import { leaveOf, workOf } from './work.ts';

const TIMEOUT_MS = 5000;
/** A picture of 12 Mpx in good quality is below it. */
const MOST_BYTES = 8 * 1024 * 1024;
const MOST = { most: 8, many: 'stills' };
const none = (note: string): Extract<StillLine, { kind: 'none' }> => ({ kind: 'none', note });

/** Asks without a login first, and answers at most one challenge: a still is not worth an account. */
async function fetchStill(
  request: StillRequest,
  gate: ProofGate,
  world: World,
  signal: AbortSignal,
): Promise<StillLine> {
  const { host, port, path, tls: isTls = false, knownFingerprint = null } = request;
  const credentials = accountOf(request.user, request.secret);
  const http = createHttpPort(world.dialer);
  const login = new Login({ credentials, cnonce: () => world.entropy.hex(8), gate, isEncrypted: isTls });
  const filled = credentials ? fillPath(path, credentials.user, credentials.password) : path;
  const get = async (headers: readonly Header[]): Promise<HttpAnswer> => {
    const asked = { method: 'GET', host, port, isTls, path: filled, headers, body: '', knownFingerprint } as const;
    const limits = { timeoutMs: TIMEOUT_MS, mostBytes: MOST_BYTES, mayRepeat: headers.length < 2, signal };
    const { answer } = await http.exchange(asked, limits);
    login.proofEnded(proofEndOf(answer.status), 'still');
    return answer;
  };
  const agent = { name: 'User-Agent', value: USER_AGENT };
  try {
    const held = asksForSecret(path) ? login.beginInPath() : null;
    if (held) return { kind: 'none', note: sayHeld(held, request.user ?? ''), isHeld: true };
    let answer = await get([agent]);
    if (answer.status === 401) {
      const failure = login.refused(headersOf(answer, 'WWW-Authenticate'), false);
      if (failure) return { ...none(failure.note), ...(failure.cause === 'login-held' ? { isHeld: true } : {}) };
      const proof = login.authorizationFor('GET', filled);
      if (login.heldBack) return { kind: 'none', note: sayHeld(login.heldBack, request.user ?? ''), isHeld: true };
      answer = await get([agent, ...(proof === null ? [] : [{ name: 'Authorization', value: proof }])]);
    }
    if (answer.status !== 200) return none(`Asked for a snapshot, it answered ${answer.status}.`);
    const [first, second] = answer.body;
    if (first !== 0xff || second !== 0xd8) return none('What it gave is no JPEG picture.');
    return { kind: 'still', jpeg: base64Of(answer.body) };
  } catch (error) {
    if (error instanceof HttpFailure) return none(error.message);
    throw error;
  } finally {
    login.proofEnded('unanswered', 'still');
    http.close();
  }
}

export const STILL = workOf(stillRequestSchema, MOST, async (request, world, signal, { sendEvent: say }) => {
  const credentials = accountOf(request.user, request.secret);
  const line = await world.logins.inTurn({ host: request.host, credentials, leave: leaveOf(request) }, signal, (gate) =>
    fetchStill(request, gate, world, signal),
  );
  say(line.kind === 'none' ? createDeepVeil(credentials)(line) : line);
});
