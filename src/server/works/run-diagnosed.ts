import type { ProbeEvent } from '../../contract/probe-api.ts';
import { diagnose } from '../../core/diagnosis/diagnose.ts';
import type { CallAnswer, Neighbour, OnvifTold, Trial, TrialAnswer } from '../../core/diagnosis/trials.ts';
import { keptPath } from '../../core/evidence/kept-path.ts';
import { createDeepVeil } from '../../core/machine/password-veil.ts';
import { parseArpTable } from '../../core/net/arp-table.ts';
import { holds, parseCidr, parseIpv4 } from '../../core/net/ipv4.ts';
import { withDiagnosis } from '../../core/probe/probe-report.ts';
import type { ProbeReport } from '../../core/probe/probe-types.ts';
import type { Diagnosis } from '../../core/probe/reasons.ts';
import type { World } from '../drive.ts';
import { logFault } from '../last-guard.ts';
import { DialFailure } from '../ports.ts';
import { runOnvif } from './run-onvif.ts';
import { type ProbeRun, runProbe } from './run-probe.ts';

export interface DiagnosedRun extends ProbeRun {
  readonly paths: readonly string[];
  readonly onvifPort: number | null;
}

/** Of each trial; a device on a house's network answers within it or not at all [A]. */
const TRIAL_MS = 1500;
/** Slow devices take nearly half of it for one answer [A]. */
const LEAST_TRIAL_MS = 700;
/** All trials together last no longer than two answers may, and no longer than this. */
const MOST_MS = 10_000;

/**
 * Probes; where that fails, finds out why by experiment. Each experiment is told as it ends. The whole takes at most twice the
 * limit of an answer longer than the probe alone.
 */
export async function runDiagnosed(
  run: DiagnosedRun,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void = () => {},
): Promise<ProbeReport> {
  const { url, credentials, leave } = run;
  // experiments spend of the same account, also where they log in otherwise
  return world.logins.inTurn({ host: url.host, credentials, leave }, signal, (gate) =>
    probeAndAsk({ ...run, gate }, world, signal, onEvent),
  );
}

async function probeAndAsk(
  run: DiagnosedRun,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void,
): Promise<ProbeReport> {
  const { credentials } = run;
  const veil = createDeepVeil(credentials);
  const report = await runProbe(run, world, signal, (event) => {
    if (event.kind !== 'report') onEvent(event);
  });
  const diagnosis =
    report.verdict === 'fail'
      ? await whyFailed(run, report, world, signal, onEvent).catch(withoutReason(signal))
      : null;
  const told = veil(diagnosis ? withDiagnosis(report, diagnosis) : report);
  onEvent({ kind: 'report', report: told });
  return told;
}

/** A fault of ours costs the reason, and not the report. */
const withoutReason =
  (signal: AbortSignal) =>
  (error: unknown): null => {
    if (signal.aborted) throw error;
    logFault(error);
    return null;
  };

async function whyFailed(
  run: DiagnosedRun,
  report: ProbeReport,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void,
): Promise<Diagnosis> {
  const endsMs = world.clock.monotonicMs() + Math.min(MOST_MS, 2 * run.timeoutMs);
  const mayGoReadable = run.leave?.mayGoReadable === true;
  const trials = diagnose({ ...run, report, mayGoReadable });
  let step = trials.next();
  while (!step.done) {
    onEvent({ kind: 'trial', trial: step.value.kind });
    const leftMs = endsMs - world.clock.monotonicMs();
    const timeoutMs = Math.min(TRIAL_MS, Math.max(LEAST_TRIAL_MS, run.timeoutMs / 2), leftMs);
    // a sample that is cut short would say nothing
    const needsMs = step.value.kind === 'probe' && step.value.media ? step.value.sampleS * 1000 : 50;
    const answer: TrialAnswer =
      leftMs < needsMs ? { kind: 'late' } : await carryOut(step.value, run, { timeoutMs, endsMs, world, signal });
    signal.throwIfAborted();
    step = trials.next(answer);
  }
  return step.value;
}

interface Doing {
  /** When the time for all of them is over, by the monotonic clock. */
  readonly endsMs: number;
  readonly timeoutMs: number;
  readonly world: World;
  readonly signal: AbortSignal;
}

async function carryOut(trial: Trial, run: DiagnosedRun, doing: Doing): Promise<TrialAnswer> {
  const { timeoutMs, world, signal } = doing;
  switch (trial.kind) {
    case 'calls':
      return { kind: 'calls', answers: await callAll(run.url.host, trial.ports, doing) };
    case 'probe': {
      const { gate, knownFingerprint = null } = run;
      const once = { ...trial, timeoutMs, seconds: trial.sampleS, knownFingerprint };
      const report = await runProbe({ ...once, ...(gate ? { gate } : {}) }, world, signal);
      return { kind: 'probe', report };
    }
    case 'neighbour':
      return { kind: 'neighbour', of: await neighbourOf(run, doing) };
    case 'onvif':
      return { kind: 'onvif', told: await askByOnvif(trial, run, doing) };
  }
}

/** What the tables of this computer say of the address that a host leads to. Those of IPv6 are not read. */
async function neighbourOf(
  { url: { host, port } }: DiagnosedRun,
  { world, signal, timeoutMs }: Doing,
): Promise<Neighbour> {
  const resolved = await world.dialer.resolve(host, port, { timeoutMs, signal }).catch((error: unknown) => {
    if (error instanceof DialFailure) return null; // a name that leads nowhere any more
    throw error;
  });
  const address = resolved?.address ?? '';
  const value = parseIpv4(address);
  if (value === null) return { mac: null, isOnLink: null };
  const networks = world.finder.ownNetworks().flatMap((network) => parseCidr(network) ?? []);
  return {
    mac: parseArpTable(await world.finder.neighbours()).get(address) ?? null,
    isOnLink: networks.some((network) => holds(network, value)),
  };
}

async function callAll(
  host: string,
  ports: readonly number[],
  { world, signal, timeoutMs }: Doing,
): Promise<ReadonlyMap<number, CallAnswer>> {
  const limits = { timeoutMs, signal };
  const answers = ports.map(async (port): Promise<readonly [number, CallAnswer]> => {
    try {
      const address = await world.dialer.resolve(host, port, limits);
      const connection = await world.dialer.dial(address, { onData: () => {}, onEnd: () => {} }, limits);
      connection.close();
      return [port, 'open'];
    } catch (error) {
      if (!(error instanceof DialFailure)) throw error;
      return [port, error.probeCause === 'refused' || error.probeCause === 'closed' ? 'refused' : 'silent'];
    }
  });
  return new Map(await Promise.all(answers));
}

const NOT_THERE: OnvifTold = { isThere: false, skewS: null, isAdmitted: null, paths: [] };

async function askByOnvif(
  { port, credentials }: Extract<Trial, { kind: 'onvif' }>,
  { url, gate }: DiagnosedRun,
  { world, signal, timeoutMs, endsMs }: Doing,
): Promise<OnvifTold> {
  const enoughMs = Math.max(1, Math.ceil(endsMs - world.clock.monotonicMs()));
  const depth = credentials === null ? 'clock' : 'streams';
  const asked = { host: url.host, port, credentials, timeoutMs, depth, enoughMs } as const;
  const reading = await runOnvif({ ...asked, ...(gate ? { gate } : {}) }, world, signal);
  const { cause, profiles } = reading;
  if (!reading.clock && reading.services.length === 0) return NOT_THERE;
  return {
    isThere: true,
    skewS: reading.clock?.skewS ?? null,
    isAdmitted: credentials === null ? null : profiles.length > 0 ? true : cause === 'auth-failed' ? false : null,
    paths: profiles.flatMap((profile) => keptPath(profile) ?? []),
  };
}
