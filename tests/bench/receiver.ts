// Probes in a process of its own, so that its processor time is that of receiving and analysing alone: warmed up first,
// since the application runs for hours, then measured over one long sample after a rest, and over another without. Says on a
// line of its own when each begins, so that whoever compares begins then too, and at last prints ms of both.
import { setTimeout } from 'node:timers/promises';
import { probe } from '../support/test-camera.ts';

/** As many packets as one probe sees in minutes: by then the code is compiled as it is in an application that runs for hours. */
const WARM_PROBES = 12;

/** By then an idle process has given back what it had no use for any more. */
const REST_MS = 12_000;

const [url = '', seconds = '20'] = process.argv.slice(2);

/** As `receive-cost.ts` knows it. */
const BEGINS = 'sample';

/** Processor time of one long sample, ms. */
async function sampled(): Promise<number> {
  console.log(BEGINS);
  const before = process.cpuUsage();
  const { report } = await probe(url, { credentials: null, seconds: Number(seconds) });
  const { user, system } = process.cpuUsage(before);
  const measured = report.media[0]?.measured;
  if (!measured || measured.seconds < Number(seconds) - 1 || measured.lost > 0)
    throw new Error(`the stream was not received whole: ${JSON.stringify(report)}`);
  return (user + system) / 1000;
}

await Promise.all(Array.from({ length: WARM_PROBES }, () => probe(url, { credentials: null, seconds: 4 })));
// What the warm-up left behind is swept up before: that is none of the stream's doing.
await setTimeout(REST_MS);
const restedMs = await sampled();
// Straight after it: what the rest made the engine forget is compiled again by now.
console.log(JSON.stringify({ restedMs, warmMs: await sampled() }));
