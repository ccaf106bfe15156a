import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import { startDemo } from './demo-server.ts';
import { type Figure, median } from './measure.ts';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const MIB = 1024 * 1024;
const SIZE_MIB = 512;
const ROUNDS = 3;

/** A file of noise that repeats: what a hash makes of it does not hang on what is in it. */
async function writeImage(file: string): Promise<void> {
  const piece = Buffer.alloc(MIB, 'half a mebibyte of quern and wheel ');
  const out = createWriteStream(file);
  for (let at = 0; at < SIZE_MIB; at++) if (!out.write(piece)) await once(out, 'drain');
  out.end();
  await once(out, 'finish');
}

const sumMs = (file: string): Promise<{ ms: number; digest: string }> =>
  new Promise((resolve, reject) => {
    const startedMs = performance.now();
    const child = spawn('sha256sum', [file]);
    let out = '';
    child.stdout.on('data', (chunk) => {
      out += chunk;
    });
    child.on('error', reject);
    child.on('close', () => resolve({ ms: performance.now() - startedMs, digest: out.slice(0, 64) }));
  });

/** What a process holds of its own, bytes. Source: proc(5), smaps_rollup: what it shares with others is not its own. */
function ownBytes(pid: number): number {
  try {
    const text = readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8');
    const of = (name: string): number => Number(new RegExp(`^${name}:\\s+(\\d+) kB`, 'm').exec(text)?.[1] ?? 0);
    return 1024 * (of('Private_Clean') + of('Private_Dirty'));
  } catch {
    return 0; // it has ended
  }
}

/** A file of 512 MiB hashed in the page, beside `sha256sum`, and what the page’s process holds meanwhile. */
export async function imageHashFigures(root: string): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'clear-tap-bench-'));
  const file = join(folder, 'mini_open.bin');
  await writeImage(file);
  const { server, address } = await startDemo(root);
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox', '--disable-gpu'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/site/alder-mill/camera/boot-room/prepare/reflash`);
    await page.getByRole('button', { name: 'Decide: install community firmware' }).click();
    const session = await browser.newBrowserCDPSession();
    const { processInfo } = await session.send('SystemInfo.getProcessInfo');
    const renderers = processInfo.filter(({ type }) => type === 'renderer').map(({ id }) => id);
    const held = (): number => renderers.reduce((sum, pid) => sum + ownBytes(pid), 0);
    const hashIt = async (digest: string): Promise<number> => {
      const startedMs = performance.now();
      await page.getByLabel('Firmware file', { exact: true }).setInputFiles(file);
      await page.getByRole('progressbar').waitFor();
      await page.getByText(digest).waitFor({ timeout: 60_000 });
      const ms = performance.now() - startedMs;
      await page.getByRole('button', { name: 'Let mini_open.bin go' }).click();
      await page.getByText(digest).waitFor({ state: 'detached' });
      return ms;
    };
    const inPage: number[] = [];
    const beside: number[] = [];
    let digest = '';
    for (let round = 0; round < ROUNDS; round++) {
      const sum = await sumMs(file);
      digest = sum.digest;
      beside.push(sum.ms);
      inPage.push(await hashIt(digest));
    }
    // Looking at a process costs it time: what it holds is looked at in a round of its own.
    const before = held();
    let most = 0;
    const timer = setInterval(() => {
      most = Math.max(most, held() - before);
    }, 40);
    await hashIt(digest);
    clearInterval(timer);
    return [
      {
        what: 'an image of 512 MiB hashed in the page',
        value: median(inPage),
        unit: 'ms',
        against: median(beside),
        peer: 'sha256sum',
        limit: 2,
      },
      { what: 'what the page holds meanwhile', value: most / MIB, unit: 'MiB', against: 64, peer: 'budget', limit: 1 },
    ];
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    rmSync(folder, { recursive: true });
  }
}
