import { probeRequestSchema } from '../../contract/probe-api.ts';
import { readTarget } from '../../core/net/target.ts';
import { reportOfBadTarget } from '../../core/probe/probe-report.ts';
import { runProbe } from './run-probe.ts';
import { workOf } from './work.ts';

/** A whole site at once, but not a scan. */
const MOST = { most: 64, many: 'probes' };

export const PROBE = workOf(probeRequestSchema, MOST, async (request, world, signal, { say }) => {
  const target = readTarget(request.url, request.user, request.secret);
  if (!target.ok) return say({ kind: 'report', report: reportOfBadTarget(target.error) });
  await runProbe({ ...request, ...target.value }, world, signal, say);
});
