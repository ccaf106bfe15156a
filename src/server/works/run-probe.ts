import type { ProbeEvent } from '../../contract/probe-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import type { ProofGate } from '../../core/auth/proof-gate.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import { ProbeMachine } from '../../core/probe/probe-machine.ts';
import type { ProbeReport } from '../../core/probe/probe-types.ts';
import type { TransportChoice } from '../../core/rtsp/client-types.ts';
import { toCamera } from '../camera-transport.ts';
import { driveToReport, USER_AGENT, type World } from '../drive.ts';
import type { LoginLeave } from '../logins.ts';

export interface ProbeRun {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly transport: TransportChoice;
  readonly seconds: number;
  readonly timeoutMs: number;
  readonly media: boolean;
  readonly loginBy?: 'any' | 'basic';
  /** Of the press that it belongs to: its own unless experiments share one. */
  readonly gate?: ProofGate;
  readonly leave?: LoginLeave;
  /** The certificate that the camera is known by; `null` takes any. */
  readonly knownFingerprint?: string | null;
  /** Given what ends its sample before its time. */
  readonly onSampling?: (enough: () => void) => void;
}

/**
 * One probe. Resolves with the report; when `signal` aborts, the camera is told to let go and the promise rejects with the
 * signal's reason. A fault of ours ends the probe with a report too.
 */
export async function runProbe(
  run: ProbeRun,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void = () => {},
): Promise<ProbeReport> {
  const { url, credentials, leave, gate } = run;
  signal.throwIfAborted();
  return gate
    ? probe(run, gate, world, signal, onEvent)
    : world.logins.inTurn({ host: url.host, credentials, leave }, signal, (own) =>
        probe(run, own, world, signal, onEvent),
      );
}

async function probe(
  run: ProbeRun,
  gate: ProofGate,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void,
): Promise<ProbeReport> {
  const { clock, entropy } = world;
  const { url, credentials, transport, timeoutMs, media, loginBy = 'any' } = run;
  const machine = new ProbeMachine({
    url,
    credentials,
    gate,
    knownFingerprint: run.knownFingerprint ?? null,
    transport,
    sampleMs: run.seconds * 1000,
    timeoutMs,
    media,
    loginBy,
    userAgent: USER_AGENT,
    cnonce: () => entropy.hex(8),
    ownSsrc: Number.parseInt(entropy.hex(4), 16),
    startedAtUnixMs: clock.unixMs(),
  });
  return driveToReport({
    machine,
    transport: toCamera({ url, timeoutMs }),
    world,
    signal,
    credentials,
    what: 'the probe',
    reportIn: (event: ProbeEvent) => (event.kind === 'report' ? event.report : null),
    onEffect: onEvent,
    onStart: (put, now) => run.onSampling?.(() => put({ kind: 'enough', atMs: now() })),
  });
}
