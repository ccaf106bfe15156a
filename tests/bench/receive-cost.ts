import { execFile, spawn } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { promisify } from 'node:util';
import type { Figure } from './measure.ts';

const SAMPLE_S = 20;
const FFMPEG = process.env.FFMPEG ?? '/usr/bin/ffmpeg';
const run = promisify(execFile);

/** Processor time that a program took, user and system, by the shell's own count; ms. */
async function cpuOfProgram(command: string, args: readonly string[]): Promise<number> {
  const quoted = [command, ...args].map((part) => `'${part.replace(/'/g, "'\\''")}'`).join(' ');
  const { stderr } = await run('bash', ['-c', `TIMEFORMAT='%U %S'; time ${quoted}`], { timeout: 90_000 });
  const [user = Number.NaN, system = Number.NaN] = (stderr.trim().split('\n').at(-1) ?? '').split(' ').map(Number);
  return (user + system) * 1000;
}

/** A stream of about 4 Mbit/s from a process of its own. */
async function withSource<T>(folder: string, use: (url: string, kbps: number) => Promise<T>): Promise<T> {
  const source = spawn(process.execPath, [join(folder, 'media-source.mjs')]);
  try {
    let told = '';
    for await (const line of createInterface(source.stdout)) {
      told = line;
      break;
    }
    const { url, kbps }: { url: string; kbps: number } = JSON.parse(told);
    return await use(url, kbps);
  } finally {
    source.kill('SIGTERM');
  }
}

/**
 * What it costs to receive and analyse a stream of about 4 Mbit/s, against copying it to nowhere: on a warm path, and after a
 * rest. Both receive over the same seconds: what a machine does faster or slower from one minute to the next is the same for both.
 */
export const receiveFigures = (folder: string): Promise<readonly Figure[]> =>
  withSource(folder, async (url, kbps) => {
    const copy = [
      '-v',
      'quiet',
      '-rtsp_transport',
      'tcp',
      '-i',
      url,
      '-t',
      String(SAMPLE_S),
      '-c',
      'copy',
      '-f',
      'null',
      '-',
    ];
    const receiver = spawn(process.execPath, [join(folder, 'receiver.mjs'), url, String(SAMPLE_S)], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const copies: Promise<number>[] = [];
    let told = '{}';
    for await (const line of createInterface(receiver.stdout)) {
      if (line === 'sample') copies.push(cpuOfProgram(FFMPEG, copy));
      else told = line;
    }
    const { warmMs = Number.NaN, restedMs = Number.NaN }: { warmMs?: number; restedMs?: number } = JSON.parse(told);
    const [besideRested = Number.NaN, besideWarm = Number.NaN] = await Promise.all(copies);
    const how = { unit: 'ms', peer: 'general media tool, copy to nowhere', limit: 0.5 } as const;
    const stream = `${SAMPLE_S} s of ${(kbps / 1000).toFixed(1)} Mbit/s received and analysed`;
    return [
      { what: `processor time, ${stream}`, value: restedMs, against: besideRested, ...how },
      { what: 'the same on a warm path', value: warmMs, against: besideWarm, ...how },
    ];
  });

/** What 10,000 probes leave behind. */
export const leakFigures = (folder: string): Promise<readonly Figure[]> =>
  withSource(folder, async (url) => {
    const leaks = await run(process.execPath, ['--expose-gc', join(folder, 'leaks.mjs'), url], { timeout: 400_000 });
    const left: { openLate: number; earlyMiB: number; lateMiB: number } = JSON.parse(leaks.stdout);
    return [
      {
        what: 'sockets and timers open after 10,000 probes',
        value: left.openLate,
        unit: '',
        against: 1,
        peer: 'a single one',
        limit: 0,
      },
      {
        what: 'memory held after 10,000 probes',
        value: left.lateMiB,
        unit: 'MiB',
        against: left.earlyMiB,
        peer: 'after 1,000 of them',
        limit: 1.1,
      },
    ];
  });
