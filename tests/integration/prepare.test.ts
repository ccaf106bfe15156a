import { type ChildProcess, spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { writeSiteFile } from '../../src/core/document/site-file.ts';
import type { RehearsedInput } from '../../src/core/firmware/rehearsal.ts';
import { alderMill } from '../../src/standins/alder-mill.ts';
import { type Fleet, fleetListing, startFleet } from '../../src/standins/fleet.ts';
import { BOOT_ROOM, BREAD_OVEN, type Personality } from '../../src/standins/personality.ts';
import { AT } from '../support/sites.ts';
import { probe, SMALL } from '../support/test-camera.ts';

// What stands behind Prepare outside of the page: cards and rehearsals by command, simulated devices that really change.

const CLEARTAP = join(__dirname, '../../dist/node/cleartap.mjs');
const SERVER = join(__dirname, '../../dist/node/server.mjs');
const SCRIPT_FILE = join(__dirname, '../fixtures/scripts/boot-room.json');
const SCRIPT: { readonly inputs: readonly RehearsedInput[] } = JSON.parse(readFileSync(SCRIPT_FILE, 'utf8'));

function cleartap(args: readonly string[], input = ''): Promise<{ code: number | null; out: string; err: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [CLEARTAP, ...args]);
    let [out, err] = ['', ''];
    child.stdout.on('data', (chunk) => {
      out += chunk;
    });
    child.stderr.on('data', (chunk) => {
      err += chunk;
    });
    child.on('close', (code) => resolve({ code, out, err }));
    child.stdin.end(input);
  });
}

const folder = mkdtempSync(join(tmpdir(), 'clear-tap-'));
const IMAGE = randomBytes(300_001);
const image = join(folder, 'mini_open.bin');
writeFileSync(image, IMAGE);
writeFileSync(join(folder, 'empty.bin'), '');
const DIGEST = createHash('sha256').update(IMAGE).digest('hex');

test('cleartap card divides a card, hashes an image and compares its name', async () => {
  const args = ['card', '--size', '128000000000', '--limit', '32', '--firmware', image, '--json'];
  const { code, out } = await cleartap([...args, '--sha256', DIGEST.toUpperCase(), '--name', 'mini_open.bin']);
  expect(code).toBe(0);
  expect(JSON.parse(out)).toEqual({
    partition: {
      startSector: 2048,
      sectors: 67_108_864,
      endSector: 67_110_911,
      sizeMiB: 32_768,
      unusedMiB: 89_301.3125,
      fits: true,
    },
    fileSystem: 'FAT32',
    imageBytes: 300_001,
    imageFits: true,
    sha256: DIGEST,
    matches: true,
    nameVerdict: 'ok',
  });
});

test.each([
  { why: 'another file', args: ['--firmware', image, '--sha256', 'a'.repeat(64)], code: 1, says: /"matches":false/ },
  {
    why: 'a different name',
    args: ['--firmware', image, '--name', 'Mini_open.bin'],
    code: 1,
    says: /"nameVerdict":"case"/,
  },
  {
    why: 'a digest with a letter too few',
    args: ['--firmware', image, '--sha256', DIGEST.slice(1)],
    code: 2,
    says: /has 64 digits, this has 63/,
  },
  { why: 'an image of zero bytes', args: ['--firmware', join(folder, 'empty.bin')], code: 2, says: /empty/ },
  {
    why: 'an image that is not there',
    args: ['--firmware', join(folder, 'none.bin')],
    code: 2,
    says: /could not be read/,
  },
  { why: 'a folder', args: ['--firmware', folder], code: 2, says: /could not be read/ },
  { why: 'a digest without an image', args: ['--sha256', DIGEST], code: 2, says: /belong to --firmware/ },
])('cleartap card: $why', async ({ args, code, says }) => {
  const outcome = await cleartap(['card', '--size', '32000000000', '--json', ...args]);
  expect(outcome.code).toBe(code);
  expect(`${outcome.out}${outcome.err}`).toMatch(says);
});
test.each(['0', '1e15', '-5', 'large', '32.5', ''])('cleartap card refuses a card of “%s” bytes', async (size) => {
  const { code, err } = await cleartap(['card', `--size=${size}`]);
  expect([code, /--size: expected a whole number, 1000000 to/.test(err)]).toEqual([2, true]);
});

test('cleartap rehearse plays a script and prints every state', async () => {
  const { code, out } = await cleartap(['rehearse', SCRIPT_FILE, '--json']);
  const { states, end } = JSON.parse(out);
  expect(code).toBe(0);
  expect(end).toEqual({ phase: 'running', firmware: 'new', listens: true });
  expect(states.map(({ phase }: { phase: string }) => phase)).toEqual([
    'running',
    'off',
    'off',
    'off',
    'loader',
    'writing',
    'running',
  ]);
});

const scriptWith = (change: object): string =>
  JSON.stringify({ ...JSON.parse(readFileSync(SCRIPT_FILE, 'utf8')), ...change });
test.each([
  {
    why: 'cut while it writes',
    text: scriptWith({
      inputs: [...SCRIPT.inputs.slice(0, 5), { kind: 'unplug', atMs: 30_000 }, { kind: 'plug', atMs: 31_000 }],
    }),
    code: 1,
    says: /"phase":"stuck"/,
  },
  { why: 'no JSON', text: '{', code: 2, says: /not whole JSON/ },
  {
    why: 'a hold that never ends',
    text: scriptWith({ guide: { imageName: 'a', holdS: 1e12 } }),
    code: 2,
    says: /holdS must be less than or equal to 120/,
  },
  { why: 'a guide without a name', text: scriptWith({ guide: {} }), code: 2, says: /imageName/ },
  {
    why: 'an act that there is not',
    text: scriptWith({ inputs: [{ kind: 'hammer', atMs: 0 }] }),
    code: 2,
    says: /does not fit/,
  },
  {
    why: 'more than a rehearsal',
    text: scriptWith({ inputs: Array.from({ length: 500 }, () => ({ kind: 'press', atMs: 0 })) }),
    code: 2,
    says: /at most|less than or equal/,
  },
])('cleartap rehearse: $why', async ({ text, code, says }) => {
  const outcome = await cleartap(['rehearse', '--json'], text);
  expect(outcome.code).toBe(code);
  expect(`${outcome.out}${outcome.err}`).toMatch(says);
});

const [SMALL_STREAM] = SMALL.streams;
const small = (personality: Personality): Personality => ({
  ...personality,
  dropEvery: null,
  streams: personality.streams.map((one) => ({ ...one, format: SMALL_STREAM?.format ?? one.format })),
});

let fleet: Fleet;
beforeAll(async () => {
  fleet = await startFleet([small(BOOT_ROOM), small(BREAD_OVEN)], { isAsDelivered: true });
}, 60_000);
afterAll(() => fleet.close());

const urlOf = (name: string): string => {
  const standIn = fleet.standIns.find(({ personality }) => personality.name === name);
  return `rtsp://127.0.0.1:${standIn?.port}${standIn?.personality.streams[0]?.path}`;
};
const credentialsOf = ({ account }: Personality) => account;

test('as it came its port refuses; rehearsed it opens; cut it stays shut; gone back it refuses again', async () => {
  const look = async () =>
    (await probe(urlOf('Boot room'), { credentials: credentialsOf(BOOT_ROOM), seconds: 0.5 })).report;
  expect(await look()).toMatchObject({ verdict: 'fail', cause: 'refused' });
  expect(await fleet.reflash(BOOT_ROOM.host, SCRIPT.inputs.slice(0, 4))).toMatchObject({ length: 5 });
  expect((await look()).cause).toBe('refused');
  const states = await fleet.reflash(BOOT_ROOM.host, SCRIPT.inputs);
  expect(states?.at(-1)).toMatchObject({ phase: 'running', firmware: 'new', listens: true });
  expect((await look()).cause).toBeNull();
  const back = SCRIPT.inputs.map((input) =>
    input.kind === 'card' && input.card
      ? { ...input, card: { ...input.card, files: [{ name: 'mini_stock.bin', content: 'stock' as const }] } }
      : input,
  );
  expect((await fleet.reflash(BOOT_ROOM.host, back))?.at(-1)).toMatchObject({ firmware: 'stock', listens: false });
  expect((await look()).cause).toBe('refused');
  expect(await fleet.reflash(BREAD_OVEN.host, SCRIPT.inputs)).toBeNull();
}, 30_000);

test('a warm handset announces its frames and gives fewer; its account can be set as at its page', async () => {
  const { report } = await probe(urlOf('Bread oven'), { credentials: credentialsOf(BREAD_OVEN), seconds: 2 });
  const [video] = report.media;
  expect(video?.declared.fps).toBe(15);
  // 36 °C, 1.52 W · 9 K/W: warmer than 45 °C, so less than nine tenths of them
  expect(video?.measured?.fps).toBeLessThan(15 * 0.95);
  expect(fleet.setAccount(BREAD_OVEN.host, { user: 'view', password: 'new1secret' })).toBe(true);
  const after = await probe(urlOf('Bread oven'), { credentials: credentialsOf(BREAD_OVEN), media: false });
  expect(after.report.cause).toBe('auth-failed');
  const again = await probe(urlOf('Bread oven'), {
    credentials: { user: 'view', password: 'new1secret' },
    media: false,
  });
  expect(again.report.verdict).not.toBe('fail');
  fleet.setAccount(BREAD_OVEN.host, BREAD_OVEN.account ?? { user: '', password: '' });
}, 30_000);

test('a handset gives pictures by HTTP behind its account, and a page on another port', async () => {
  const device = fleetListing(fleet).devices.find(({ name }) => name === 'Bread oven');
  const [shot = '', pictures = ''] = device && 'pictures' in device ? (device.pictures ?? []) : [];
  const page = device && 'page' in device ? String(device.page) : '';
  expect(new URL(page).port).not.toBe(new URL(shot).port);
  expect(await (await fetch(page)).text()).toMatch(/Battery \d\d\.\d °C, \d+ of 100 frames/);
  const refused = await fetch(shot);
  expect([refused.status, refused.headers.get('www-authenticate')]).toEqual([401, 'Basic realm="OldPhone"']);
  const { user = '', password = '' } = BREAD_OVEN.account ?? {};
  const headers = { Authorization: `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}` };
  const one = await fetch(shot, { headers });
  const jpeg = new Uint8Array(await one.arrayBuffer());
  expect([one.headers.get('content-type'), jpeg[0], jpeg[1]]).toEqual(['image/jpeg', 0xff, 0xd8]);
  const stop = new AbortController();
  const endless = await fetch(pictures, { headers, signal: stop.signal });
  const reader = endless.body?.getReader();
  let read = '';
  while (reader && read.split('image/jpeg').length < 3)
    read += Buffer.from((await reader.read()).value ?? []).toString('latin1');
  stop.abort();
  expect(endless.headers.get('content-type')).toMatch(/^multipart\/x-mixed-replace; boundary=/);
  expect((await fetch(new URL('/none', shot), { headers })).status).toBe(404);
  expect((await fetch(shot, { method: 'POST', headers })).status).toBe(405);
}, 30_000);

test('cleartap check judges secrets that it is given, and prints none of them', async () => {
  const file = join(folder, 'mill.cleartap.json');
  writeFileSync(file, writeSiteFile(alderMill(AT)));
  const secrets = { 'Sluice rail': 'Shared7Wheel', 'secret-boot-room': 'Shared7Wheel', 'Linen stair': 'admin' };
  writeFileSync(join(folder, 'secrets.json'), JSON.stringify(secrets));
  const { out } = await cleartap(['check', file, '--passwords', join(folder, 'secrets.json'), '--json']);
  const rules = (camera: string): string[] =>
    JSON.parse(out).findings.flatMap((one: { camera: string; rule: string }) =>
      one.camera === camera ? one.rule : [],
    );
  expect(rules('Sluice rail')).toContain('prepare.password-shared');
  expect(rules('Boot room')).toContain('prepare.password-shared');
  expect(rules('Linen stair')).toContain('prepare.password-known');
  expect(out).not.toContain('Shared7Wheel');
});

let server: ChildProcess;
let address = '';
beforeAll(async () => {
  server = spawn(process.execPath, [SERVER, '--demo', '--port', '0', '--exact-port']);
  address = await new Promise((resolve) => {
    let output = '';
    server.stdout?.on('data', (chunk) => {
      output += chunk;
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(output);
      if (found) resolve(found[0]);
    });
  });
}, 60_000);
afterAll(() => void server.kill());

const ask = (body: unknown): Promise<Response> =>
  fetch(`${address}/api/standin`, {
    method: 'POST',
    headers: { 'x-clear-tap': '1', 'Content-Type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

test('the demo does to a simulated camera what was rehearsed, and says what it then is', async () => {
  const answer = await ask({ host: BOOT_ROOM.host, inputs: SCRIPT.inputs, account: null });
  expect(answer.status).toBe(200);
  expect((await answer.json()).states.at(-1)).toMatchObject({ listens: true });
});
test.each([
  {
    why: 'an account for a camera that is not simulated',
    body: { host: '10.77.4.99', inputs: null, account: { user: 'u', secret: 's' } },
    status: 404,
  },
  { why: 'no JSON', body: '{', status: 400 },
  {
    why: 'a card of no size',
    body: {
      host: BOOT_ROOM.host,
      inputs: [{ kind: 'card', atMs: 0, card: { bytes: 0, fileSystem: 'FAT32', partitionMiB: null, files: [] } }],
      account: null,
    },
    status: 400,
  },
  {
    why: 'a field that nobody knows',
    body: { host: BOOT_ROOM.host, inputs: null, account: null, more: 1 },
    status: 400,
  },
  {
    why: 'a time that never comes',
    body: { host: BOOT_ROOM.host, inputs: [{ kind: 'wait', atMs: 1e300 }], account: null },
    status: 400,
  },
])('the demo refuses $why', async ({ body, status }) => expect((await ask(body)).status).toBe(status));
