import { probeRequestSchema } from '../../contract/probe-api.ts';
import { readTarget } from '../../core/net/target.ts';
import { reportOfBadTarget } from '../../core/probe/probe-report.ts';
import { runDiagnosed } from './run-diagnosed.ts';
import { runProbe } from './run-probe.ts';
import { leaveOf, workOf } from './work.ts';

/** A whole site at once, but not a scan. */
const MOST = { most: 64, many: 'probes' };

export const PROBE = workOf(probeRequestSchema, MOST, async (request, world, signal, { sendEvent: say }) => {
  const target = readTarget(request.url, request.user, request.secret, request.tunnel);
  if (!target.ok) return say({ kind: 'report', report: reportOfBadTarget(target.error) });
  const { diagnose = false, paths = [], onvifPort = null, knownFingerprint = null, ...rest } = request;
  const run = { ...rest, ...target.value, knownFingerprint, leave: leaveOf(request) };
  await (diagnose ? runDiagnosed({ ...run, paths, onvifPort }, world, signal, say) : runProbe(run, world, signal, say));
});
