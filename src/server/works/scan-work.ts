import { type ScanLine, scanRequestSchema } from '../../contract/scan-api.ts';
import { liesWithin, parseScanRange, sayRange } from '../../core/net/scan-range.ts';
import { runScan } from './run-scan.ts';
import { workOf } from './work.ts';

/** One at a time: two would be twice as loud as either says. */
const MOST = { most: 1, many: 'sweeps' };

export const SCAN = workOf(scanRequestSchema, MOST, async (request, world, signal, out) => {
  const say = (line: ScanLine): void => out.sendEvent(line);
  const { range: text, within, ports, rate, timeoutMs, discover: isDiscovering } = request;
  const range = text === null ? null : parseScanRange(text);
  if (range && !range.ok) return say({ kind: 'refused', note: range.error.message });
  if (range && !liesWithin(range.value, within))
    return say({
      kind: 'refused',
      note: `${sayRange(range.value)} does not lie within ${within}, the network for which scanning is permitted.`,
    });
  if (!range && !isDiscovering)
    return say({ kind: 'refused', note: 'Nothing was asked for: neither a range nor WS-Discovery.' });
  if (range && ports.length === 0) return say({ kind: 'refused', note: 'Enter the ports to scan.' });
  await runScan({ range: range?.value ?? null, ports, pace: { rate, timeoutMs }, isDiscovering }, world, signal, say);
});
