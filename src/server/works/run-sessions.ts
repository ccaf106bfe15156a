import type { Credentials } from '../../core/auth/authorization.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import type { TransportChoice } from '../../core/rtsp/client-types.ts';
import { SessionsMachine } from '../../core/sessions/sessions-machine.ts';
import type { SessionsEvent, SessionsReport } from '../../core/sessions/sessions-types.ts';
import { drive, USER_AGENT, type World } from '../drive.ts';
import type { LoginLeave } from '../logins.ts';
import { toSeats } from '../seats-way.ts';

export interface SessionsRun {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly transport: TransportChoice;
  readonly most: number;
  readonly timeoutMs: number;
  readonly leave?: LoginLeave;
  readonly knownFingerprint?: string | null;
}

/** Counts sessions once. Resolves with the report; rejects with the reason of `signal` when it was given up, all sessions closed. */
export async function runSessions(
  run: SessionsRun,
  world: World,
  signal: AbortSignal,
  onEvent: (event: SessionsEvent) => void = () => {},
): Promise<SessionsReport> {
  signal.throwIfAborted();
  const { url, timeoutMs, credentials, knownFingerprint = null } = run;
  await world.logins.turn(url.host, credentials, signal);
  signal.throwIfAborted();
  const machine = new SessionsMachine({
    ...run,
    gate: world.logins.gateFor(url.host, credentials, run.leave),
    knownFingerprint,
    userAgent: USER_AGENT,
    cnonce: () => world.entropy.hex(8),
  });
  let report: SessionsReport | null = null;
  await drive({
    machine,
    way: toSeats({ url, timeoutMs }),
    world,
    signal,
    credentials,
    what: 'the count',
    onEffect: (event: SessionsEvent) => {
      if (event.kind === 'counted') report = event.report;
      if (event.kind !== 'counted' || !signal.aborted) onEvent(event);
    },
  });
  signal.throwIfAborted();
  if (!report) throw new Error('The count ended without a report.');
  return report;
}
