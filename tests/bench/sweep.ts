import { parseScanRange } from '../../src/core/net/scan-range.ts';
import { USUAL_PORTS } from '../../src/core/scan/greetings.ts';
import { impliedSeconds } from '../../src/core/scan/scan-plan.ts';
import { createSimulatedDialer, createSimulatedFinder } from '../../src/server/adapters/simulated-network.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { Logins } from '../../src/server/logins.ts';
import { runScan } from '../../src/server/works/run-scan.ts';
import type { Fleet } from '../../src/standins/fleet.ts';
import type { Figure } from './measure.ts';

const PACE = { rate: 1000, timeoutMs: 1000 };

/** A /22 of the simulated network, all but a few of its addresses silent, against the time that its rate implies. */
export async function sweepFigure(fleet: Fleet): Promise<Figure> {
  const range = parseScanRange('10.77.4.0/22');
  if (!range.ok) throw new Error(range.error.message);
  const world = {
    dialer: createSimulatedDialer(fleet),
    finder: createSimulatedFinder(fleet),
    clock: systemClock,
    entropy: systemEntropy,
    logins: new Logins(systemClock, systemEntropy),
  };
  const ended = { seconds: 0, asked: 0 };
  const run = { range: range.value, ports: USUAL_PORTS, pace: PACE, isDiscovering: true };
  await runScan(run, world, new AbortController().signal, (event) => {
    if (event.kind === 'ended') Object.assign(ended, event.summary);
  });
  const wanted = 1022 * USUAL_PORTS.length;
  if (ended.asked !== wanted) throw new Error(`${ended.asked} of ${wanted} calls were made`);
  return {
    what: `a sweep of 1,022 addresses, ${USUAL_PORTS.length} ports each`,
    value: ended.seconds * 1000,
    unit: 'ms',
    against: impliedSeconds(wanted, PACE) * 1000,
    peer: `${PACE.rate} calls a second, as stated`,
    limit: 1.3,
  };
}
