// How fast this machine is, and whether it is left alone: one fixed piece of work on each of two cores at once.
import { fileURLToPath } from 'node:url';
import { isMainThread, parentPort, Worker } from 'node:worker_threads';

/** The piece as long as it takes where this was written, on two idle cores, in ms of processor time. */
const USUAL_MS = 400;
/** Two at once on two idle cores: of the time by the clock almost all is theirs. */
const CALM_SHARE = 0.85;
/** A test that is slow on a machine this much slower says nothing about the test. */
const MOST_SLOWNESS = 1.5;

/** Numbers, texts and a table, as the programs here use them. */
function piece() {
  let sum = 0;
  const table = new Map();
  for (let at = 0; at < 700_000; at++) {
    const key = `k${(at * 2_654_435_761) % 5000}`;
    const known = table.get(key) ?? { count: 0, text: '' };
    known.count += 1;
    known.text = `${known.text.slice(-20)}${at.toString(36)}`;
    table.set(key, known);
    sum += known.text.length;
  }
  return sum;
}

function timed() {
  piece(); // compiled meanwhile
  const startedMs = performance.now();
  const before = process.cpuUsage();
  piece();
  const { user, system } = process.cpuUsage(before);
  return { wallMs: performance.now() - startedMs, processMs: (user + system) / 1000 };
}

const onAnotherThread = () =>
  new Promise((resolve, reject) => {
    const worker = new Worker(fileURLToPath(import.meta.url));
    worker.once('message', resolve);
    worker.once('error', reject);
  });

/** @returns how many times as long as usual the piece took, and whether the cores were ours and the machine as fast as usual */
export async function measureMachine() {
  const both = await Promise.all([onAnotherThread(), onAnotherThread()]);
  const wallMs = Math.max(...both.map((one) => one.wallMs));
  // processor time is counted for the whole process, and so for both threads
  const share = Math.min(1, Math.max(...both.map((one) => one.processMs)) / (2 * wallMs));
  const slowness = wallMs / USUAL_MS;
  const isOurs = share >= CALM_SHARE;
  return { slowness, share, isOurs, isCalm: isOurs && slowness <= MOST_SLOWNESS };
}

export const sayMachine = ({ slowness, share, isCalm }) =>
  `this machine: a fixed piece of work takes ${slowness.toFixed(2)} times the usual, ${(100 * share).toFixed(0)} % of two cores are ours: ${isCalm ? 'calm' : 'not calm'}`;

if (!isMainThread) parentPort.postMessage(timed());
// By itself it prints one JSON object: for a program that is bundled, and cannot start a thread of this file.
else if (process.argv[1] === fileURLToPath(import.meta.url)) console.log(JSON.stringify(await measureMachine()));
