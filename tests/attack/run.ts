import { parseArgs } from 'node:util';
import { type RunningServer, startServer } from '../support/running-server.ts';
import { attackByForeignPage, attackWindows, launch } from './browser-attack.ts';
import { attackBodies, attackByDevices, attackScans } from './device-attack.ts';
import { attackByOpenedFiles } from './file-attack.ts';
import { createRandom } from './random.ts';
import { attackByCameras, attackRequests, rssMb } from './server-attack.ts';

// `npm run attack`: everything that the product is promised to withstand (docs/security.md), at random and for as long as
// wanted. Every round has a seed of its own, printed with what it found: `-- --seed N --rounds 1` repeats it.

const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '60' },
    rounds: { type: 'string', default: '1000000' },
    seed: { type: 'string', default: String(Date.now() % 2 ** 31) },
  },
});
const [minutes, rounds, firstSeed] = [Number(values.minutes), Number(values.rounds), Number(values.seed)];
if (![minutes, rounds, firstSeed].every((number) => Number.isFinite(number) && number >= 0))
  throw new RangeError('--minutes, --rounds and --seed take numbers');

const [server, demo, browser] = await Promise.all([startServer(), startServer('--demo'), launch()]);
/** What is not there any more is found once, not in every round. */
const isGone = ({ process: { exitCode, signalCode } }: RunningServer): boolean =>
  exitCode !== null || signalCode !== null;
const endsAt = Date.now() + minutes * 60_000;
const counts = new Map<string, number>();
let found = 0;

for (let round = 0; round < rounds && Date.now() < endsAt; round++) {
  const seed = firstSeed + round;
  const random = createRandom(seed);
  const attacks = {
    requests: () => attackRequests(server, random),
    cameras: () => attackByCameras(server, random),
    'foreign page': () => attackByForeignPage(browser, server, random),
    windows: () => attackWindows(browser, demo, random),
    devices: () => attackByDevices(server, random),
    scans: () => attackScans(server, random),
    bodies: () => attackBodies(server, random),
    'opened files': () => attackByOpenedFiles(browser, server, random),
  };
  for (const [name, attack] of Object.entries(attacks)) {
    try {
      await attack();
      counts.set(name, (counts.get(name) ?? 0) + 1);
    } catch (error) {
      found += 1;
      console.error(`\nFOUND by ${name}, seed ${seed}:\n${error instanceof Error ? error.message : String(error)}`);
      if (isGone(server) || isGone(demo) || !browser.isConnected()) process.exit(1);
    }
  }
  if (round % 10 === 0)
    console.log(`seed ${seed}: ${round + 1} rounds, server ${(await rssMb(server)).toFixed(0)} MB, ${found} found`);
}
const told = [...counts].map(([name, count]) => `${count} × ${name}`).join(', ');
console.log(`\nseeds from ${firstSeed}: ${told}; ${found} found`);
server.process.kill('SIGTERM');
demo.process.kill('SIGTERM');
await browser.close();
process.exit(found === 0 ? 0 : 1);
