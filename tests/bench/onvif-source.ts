// A device in a process of its own that answers as quickly as a good camera does: each answer takes it 40 ms.
import { fleetListing, startFleet } from '../../src/standins/fleet.ts';
import { SLUICE_RAIL } from '../../src/standins/personality.ts';

const ANSWER_MS = 40;
const [sub] = SLUICE_RAIL.streams.filter(({ label }) => label === 'sub');
if (!sub) throw new Error('a small stream');
const fleet = await startFleet([{ ...SLUICE_RAIL, answerDelayMs: ANSWER_MS, streams: [sub] }]);
console.log(JSON.stringify(fleetListing(fleet).devices[0]));
process.once('SIGTERM', () => void fleet.close().then(() => process.exit(0)));
