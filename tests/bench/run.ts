import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ALDER_MILL_FLEET, fleetListing, startFleet } from '../../src/standins/fleet.ts';
import { probe } from '../support/test-camera.ts';
import { dragFigures } from './drag.ts';
import { firstLoadBytes } from './first-load.ts';
import { imageHashFigures } from './image-hash.ts';
import { type Figure, median, printTable, timed } from './measure.ts';
import { onvifFigures } from './onvif.ts';
import { receiveFigures } from './receive-cost.ts';
import { editFigures } from './site-edit.ts';
import { stopFigure } from './stop-beside.ts';
import { sweepFigure } from './sweep.ts';

const BENCH = import.meta.dirname;
const ROOT = join(BENCH, '../..');
const FFPROBE = process.env.FFPROBE ?? '/usr/bin/ffprobe';
const ROUNDS = 3;
const AT_ONCE = 256;

/** Runs a program to its end; its output is nobody's business. */
const run = (program: string, args: readonly string[], env: Record<string, string> = {}): Promise<void> =>
  new Promise((resolve, reject) => {
    const child = spawn(program, args, { stdio: 'ignore', env: { ...process.env, ...env } });
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve() : reject(new Error(`${program} ended with ${code}`))));
  });

/** The most that this process held above what it held at first, bytes. */
function watchMemory(): { stop(): number } {
  const held = (): number => {
    const { heapUsed, external } = process.memoryUsage();
    return heapUsed + external;
  };
  const before = held();
  let most = before;
  const timer = setInterval(() => {
    most = Math.max(most, held());
  }, 20);
  return {
    stop: () => {
      clearInterval(timer);
      return most - before;
    },
  };
}

// Every camera is asked by many at once below; a stand-in's own session limit is not what is measured.
const fleet = await startFleet(ALDER_MILL_FLEET.map((one) => ({ ...one, maxSessions: 2 * AT_ONCE })));
const device = fleetListing(fleet).devices[0];
const url = device?.rtsp[0]?.url ?? '';
const plain = url.replace(/\/\/[^@]*@/, '//');
const credentials = { user: device?.user ?? '', password: device?.password ?? '' };
const withoutMedia = () => probe(plain, { credentials, media: false });

try {
  const receive = await receiveFigures(BENCH);
  await withoutMedia(); // warm: the application runs for hours, not for one probe
  const inside = median(await timed(20, withoutMedia));
  const peer = median(
    await timed(ROUNDS, () => run(FFPROBE, ['-v', 'quiet', '-show_streams', '-rtsp_transport', 'tcp', url])),
  );
  const cleartap = ['probe', plain, '--user', credentials.user, '--pass-env', 'BENCH_SECRET', '--no-media', '--json'];
  const asCommand = () =>
    run(process.execPath, [join(ROOT, 'dist/node/cleartap.mjs'), ...cleartap], { BENCH_SECRET: credentials.password });
  const command = median(await timed(7, asCommand));

  // a stream as many viewers draw at once: the small one
  const small = device?.rtsp[1]?.url.replace(/\/\/[^@]*@/, '//') ?? '';
  const sampled = () => probe(small, { credentials, seconds: 3 });
  const single = Math.min(...(await timed(2, sampled)));
  const memory = watchMemory();
  const many = Math.min(...(await timed(2, () => Promise.all(Array.from({ length: AT_ONCE }, sampled)))));

  const perPeer = memory.stop() / AT_ONCE / 2 ** 20;

  const figures: Figure[] = [
    {
      what: 'verdict without media, inside the application',
      value: inside,
      unit: 'ms',
      against: peer,
      peer: 'general media prober',
      limit: 1 / 500,
    },
    {
      what: 'the same as a command, start included',
      value: command,
      unit: 'ms',
      against: peer,
      peer: 'general media prober',
      limit: 1 / 10,
    },
    {
      what: `${AT_ONCE} probes with a 3 s sample at once`,
      value: many,
      unit: 'ms',
      against: single,
      peer: 'one such probe',
      limit: 1.3,
    },
    ...receive,
    {
      what: 'memory of a probe, its stand-in included',
      value: perPeer,
      unit: 'MiB',
      against: 8,
      peer: 'budget',
      limit: 1,
    },
    await sweepFigure(fleet),
    await stopFigure(fleet),
    ...(await onvifFigures(BENCH)),
    ...(await editFigures(BENCH)),
    ...(await dragFigures(ROOT)),
    ...(await imageHashFigures(ROOT)),
    {
      what: 'first load, script compressed',
      value: (await firstLoadBytes(join(ROOT, 'dist/web'))) / 1000,
      unit: 'kB',
      against: 150,
      peer: 'budget',
      limit: 1,
    },
  ];
  printTable(figures);
  process.exitCode = figures.every(({ value, against, limit }) => value / against <= limit) ? 0 : 1;
} finally {
  await fleet.close();
}
