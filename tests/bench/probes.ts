import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { type Fleet, fleetListing } from '../../src/standins/fleet.ts';
import { probe } from '../support/test-camera.ts';
import { type Figure, median, timed } from './measure.ts';

const FFPROBE = process.env.FFPROBE ?? '/usr/bin/ffprobe';
const ROUNDS = 3;
export const AT_ONCE = 256;

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

function cameraOf(fleet: Fleet) {
  const device = fleetListing(fleet).devices[0];
  const [main = '', small = ''] = (device?.rtsp ?? []).map(({ url }) => url);
  const bare = (url: string): string => url.replace(/\/\/[^@]*@/, '//');
  return {
    url: main,
    plain: bare(main),
    small: bare(small),
    credentials: { user: device?.user ?? '', password: device?.password ?? '' },
  };
}

/** How soon a camera is told about, inside the application and as a command, against a general media prober. */
export async function verdictFigures(fleet: Fleet, root: string): Promise<readonly Figure[]> {
  const { url, plain, credentials } = cameraOf(fleet);
  const withoutMedia = () => probe(plain, { credentials, media: false });
  await withoutMedia(); // warm: the application runs for hours, not for one probe
  const inside = median(await timed(20, withoutMedia));
  const peer = median(
    await timed(ROUNDS, () => run(FFPROBE, ['-v', 'quiet', '-show_streams', '-rtsp_transport', 'tcp', url])),
  );
  const cleartap = ['probe', plain, '--user', credentials.user, '--pass-env', 'BENCH_SECRET', '--no-media', '--json'];
  const asCommand = () =>
    run(process.execPath, [join(root, 'dist/node/cleartap.mjs'), ...cleartap], { BENCH_SECRET: credentials.password });
  const against = { unit: 'ms', against: peer, peer: 'general media prober' } as const;
  return [
    { what: 'verdict without media, inside the application', value: inside, ...against, limit: 1 / 500 },
    {
      what: 'the same as a command, start included',
      value: median(await timed(7, asCommand)),
      ...against,
      limit: 1 / 10,
    },
  ];
}

/** Many probes at once against one alone, and what each of them holds. A stream as many viewers draw at once: the small one. */
export async function manyFigures(fleet: Fleet): Promise<readonly Figure[]> {
  const { small, credentials } = cameraOf(fleet);
  const sampled = () => probe(small, { credentials, seconds: 3 });
  const single = Math.min(...(await timed(2, sampled)));
  const memory = watchMemory();
  const many = Math.min(...(await timed(2, () => Promise.all(Array.from({ length: AT_ONCE }, sampled)))));
  return [
    {
      what: `${AT_ONCE} probes with a 3 s sample at once`,
      value: many,
      unit: 'ms',
      against: single,
      peer: 'one such probe',
      limit: 1.3,
    },
    {
      what: 'memory of a probe, its stand-in included',
      value: memory.stop() / AT_ONCE / 2 ** 20,
      unit: 'MiB',
      against: 8,
      peer: 'budget',
      limit: 1,
    },
  ];
}
