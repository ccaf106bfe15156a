// Probes 10,000 times in a row in a process of its own, and tells what is left: sockets and timers, and what the heap holds
// after a sweep, against what it held after the first thousand. Run with --expose-gc. Prints JSON.
import { setTimeout } from 'node:timers/promises';
import { probe } from '../support/test-camera.ts';

const PROBES = 10_000;
const WARM = 1000;
declare const gc: () => void;

const [url = ''] = process.argv.slice(2);
/** Sockets, timers and look-ups; what is printed to is none of them. */
const OURS = /^(TCP|UDP|TLS|Timeout|Immediate|GetAddrInfo)/;
const open = (): number => process.getActiveResourcesInfo().filter((kind) => OURS.test(kind)).length;

/** What the heap holds once what nobody has is gone. */
async function heldMiB(): Promise<number> {
  for (let round = 0; round < 3; round++) {
    gc();
    await setTimeout(100);
  }
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return (heapUsed + arrayBuffers) / 2 ** 20;
}

let early = 0;
for (let count = 1; count <= PROBES; count++) {
  const { report } = await probe(url, { credentials: null, media: false });
  if (report.verdict === 'fail') throw new Error(`probe ${count}: ${report.cause}`);
  if (count !== WARM) continue;
  await setTimeout(1000); // a farewell takes up to half a second
  early = await heldMiB();
}
await setTimeout(1000);
console.log(JSON.stringify({ openLate: open(), earlyMiB: early, lateMiB: await heldMiB() }));
