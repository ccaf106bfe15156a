import type { Credentials } from '../../core/auth/authorization.ts';
import type { ProofGate } from '../../core/auth/proof-gate.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import type { TransportChoice } from '../../core/rtsp/client-types.ts';
import { SessionsMachine } from '../../core/sessions/sessions-machine.ts';
import type { SessionsEvent, SessionsReport } from '../../core/sessions/sessions-types.ts';
import { driveToReport, USER_AGENT, type World } from '../drive.ts';
import type { LoginLeave } from '../logins.ts';
import { toSessions } from '../sessions-transport.ts';

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
  const { url, credentials, leave } = run;
  signal.throwIfAborted();
  return world.logins.inTurn({ host: url.host, credentials, leave }, signal, (gate) =>
    count(run, gate, world, signal, onEvent),
  );
}

async function count(
  run: SessionsRun,
  gate: ProofGate,
  world: World,
  signal: AbortSignal,
  onEvent: (event: SessionsEvent) => void,
): Promise<SessionsReport> {
  const { url, timeoutMs, credentials, knownFingerprint = null } = run;
  const machine = new SessionsMachine({
    ...run,
    gate,
    knownFingerprint,
    userAgent: USER_AGENT,
    cnonce: () => world.entropy.hex(8),
  });
  return driveToReport({
    machine,
    transport: toSessions({ url, timeoutMs }),
    world,
    signal,
    credentials,
    what: 'the session count',
    reportIn: (event: SessionsEvent) => (event.kind === 'counted' ? event.report : null),
    onEffect: onEvent,
  });
}
