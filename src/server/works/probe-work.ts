import { enoughRequestSchema, probeRequestSchema } from '../../contract/probe-api.ts';
import { readTarget } from '../../core/net/target.ts';
import { reportOfBadTarget } from '../../core/probe/probe-report.ts';
import { runDiagnosed } from './run-diagnosed.ts';
import { runProbe } from './run-probe.ts';
import { leaveOf, workOf } from './work.ts';

/** What ends the sample of a probe that is under way, by the name that its page gave it. */
const sampling = new Map<string, () => void>();

/** A whole site at once, but not a scan. */
const MOST = { most: 64, many: 'probes' };

export const PROBE = workOf(probeRequestSchema, MOST, async (request, world, signal, { sendEvent: say }) => {
  const target = readTarget(request.url, request.user, request.secret, request.tunnel);
  if (!target.ok) return say({ kind: 'report', report: reportOfBadTarget(target.error) });
  const { diagnose = false, paths = [], onvifPort = null, knownFingerprint = null, probeId, ...rest } = request;
  const onSampling = (enough: () => void): void => {
    if (probeId !== undefined) sampling.set(probeId, enough);
  };
  const run = { ...rest, ...target.value, knownFingerprint, leave: leaveOf(request), onSampling };
  try {
    await (diagnose
      ? runDiagnosed({ ...run, paths, onvifPort }, world, signal, say)
      : runProbe(run, world, signal, say));
  } finally {
    if (probeId !== undefined) sampling.delete(probeId);
  }
});

/** Ends the sample of a probe that is under way; one that is over already has nothing to end. */
export const ENOUGH = workOf(enoughRequestSchema, { most: 64, many: 'requests' }, async ({ probeId }, _, __, out) => {
  sampling.get(probeId)?.();
  out.sendEvent({ kind: 'told' });
});
