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

/** What it costs to receive and analyse a stream of about 4 Mbit/s, against copying it to nowhere. */
export async function receiveFigure(folder: string): Promise<Figure> {
  const source = spawn(process.execPath, [join(folder, 'media-source.mjs')]);
  try {
    let told = '';
    for await (const line of createInterface(source.stdout)) {
      told = line;
      break;
    }
    const { url, kbps }: { url: string; kbps: number } = JSON.parse(told);
    const { stdout } = await run(process.execPath, [join(folder, 'receiver.mjs'), url, String(SAMPLE_S)]);
    const ours = Number(stdout);
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
    const theirs = await cpuOfProgram(FFMPEG, copy);
    return {
      what: `processor time, ${SAMPLE_S} s of ${(kbps / 1000).toFixed(1)} Mbit/s received and analysed`,
      value: ours,
      unit: 'ms',
      against: theirs,
      peer: 'general media tool, copy to nowhere',
      limit: 1,
    };
  } finally {
    source.kill('SIGTERM');
  }
}
