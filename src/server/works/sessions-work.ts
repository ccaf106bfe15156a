import { type SessionsLine, sessionsRequestSchema } from '../../contract/probe-api.ts';
import { readTarget } from '../../core/net/target.ts';
import { badTargetReport } from '../../core/sessions/sessions-types.ts';
import { runSessions } from './run-sessions.ts';
import { leaveOf, workOf } from './work.ts';

/** Each of them opens many sessions: more at once would be a load test. */
const MOST = { most: 4, many: 'counts' };

const TIMEOUT_MS = 5000;

export const SESSIONS = workOf(sessionsRequestSchema, MOST, async (request, world, signal, out) => {
  const { url, user, secret, tunnel, most, knownFingerprint = null } = request;
  const say = (line: SessionsLine): void => out.sendEvent(line);
  const target = readTarget(url, user, secret, tunnel);
  if (!target.ok) return say({ kind: 'counted', report: badTargetReport(target.error.note, most) });
  const run = { ...target.value, transport: 'auto', most, timeoutMs: TIMEOUT_MS, knownFingerprint } as const;
  await runSessions({ ...run, leave: leaveOf(request) }, world, signal, say);
});
