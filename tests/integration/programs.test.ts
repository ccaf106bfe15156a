import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import WebSocket from 'ws';
import { decodeLiveFrame } from '../../src/contract/live-frame.ts';
import type { Gear } from '../../src/core/document/chapters/gear/gear.ts';
import { writeSiteFile } from '../../src/core/document/site-file.ts';
import { alderMill } from '../../src/standins/alder-mill.ts';
import { ALDER_MILL_FLEET } from '../../src/standins/fleet.ts';
import { MEDIA_GALLERY } from '../../src/standins/media-gallery.ts';
import { ONVIF_GALLERY } from '../../src/standins/onvif/onvif-gallery.ts';
import { SLUICE_RAIL } from '../../src/standins/personality.ts';
import { startFaultyCamera } from '../support/faulty-camera.ts';
import { apOf, linkOf, switchOf } from '../support/planned-sites.ts';
import { healthy } from '../support/scripted-server.ts';
import { AT, apply, mill, probed, record, report, camera as siteCamera } from '../support/sites.ts';
import { ACCOUNT, startTestCamera, type TestCamera } from '../support/test-camera.ts';

// The programs as they are shipped, started as a person starts them.
const CLEARTAP = join(__dirname, '../../dist/node/cleartap.mjs');
const SERVER = join(__dirname, '../../dist/node/server.mjs');

interface Outcome {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

function cleartap(
  args: readonly string[],
  given: { env?: Record<string, string>; input?: string } = {},
): Promise<Outcome> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [CLEARTAP, ...args], { env: { ...process.env, ...given.env } });
    let out = '';
    let err = '';
    child.stdout.on('data', (chunk) => {
      out += chunk;
    });
    child.stderr.on('data', (chunk) => {
      err += chunk;
    });
    child.on('close', (code) => resolve({ code, out, err }));
    child.stdin.end(given.input ?? '');
  });
}

let camera: TestCamera;
beforeAll(async () => {
  camera = await startTestCamera();
});
afterAll(() => camera.close());

const quick = ['--seconds', '0.5', '--json'];

test.each([
  {
    why: 'the secret from a variable',
    args: ['--user', ACCOUNT.user, '--pass-env', 'CAM_PASS'],
    env: { CAM_PASS: ACCOUNT.password },
  },
  {
    why: 'the secret from standard input',
    args: ['--user', ACCOUNT.user, '--pass-stdin'],
    input: `${ACCOUNT.password}\n`,
  },
])('cleartap probe prints one JSON object and exits 0: $why', async ({ args, ...given }) => {
  const { code, out, err } = await cleartap(['probe', camera.url, ...args, ...quick], given);
  expect({ code, err }).toEqual({ code: 0, err: '' });
  expect(out.trim().split('\n')).toHaveLength(1);
  const printed = JSON.parse(out);
  expect(Object.keys(printed)).toEqual(
    expect.arrayContaining(['target', 'verdict', 'cause', 'steps', 'auth', 'server', 'media', 'findings']),
  );
  expect(printed).toMatchObject({
    verdict: 'ok',
    cause: null,
    target: { host: '127.0.0.1', port: camera.port, path: '/live' },
  });
  expect(out).not.toContain(ACCOUNT.password);
});

test('the account may stand in the URL, and is gone from the report', async () => {
  const url = camera.url.replace('rtsp://', 'rtsp://viewer:Weir%20%26%20Gate%2F7@');
  const { code, out } = await cleartap(['probe', url, '--no-media', '--json']);
  expect(code).toBe(0);
  expect(out).not.toContain('Weir');
  expect(JSON.parse(out).target.url).toBe(camera.url);
});

test.each([
  {
    why: 'a wrong secret',
    args: () => ['probe', camera.url, '--user', 'viewer', '--json'],
    code: 1,
    cause: 'auth-failed',
  },
  { why: 'not a URL', args: () => ['probe', 'camera-by-the-weir', '--json'], code: 1, cause: 'bad-url' },
  { why: 'a wrong scheme', args: () => ['probe', 'http://127.0.0.1/', '--json'], code: 1, cause: 'bad-url' },
  {
    why: 'a public address',
    args: () => ['probe', 'rtsp://198.51.100.7/', '--json'],
    code: 1,
    cause: 'blocked-by-policy',
  },
])('cleartap probe exits 1 with its cause: $why', async ({ args, code, cause }) => {
  const outcome = await cleartap(args());
  expect(outcome.code).toBe(code);
  expect(JSON.parse(outcome.out)).toMatchObject({ verdict: 'fail', cause });
  // what it spent of an account is told beside the report
  const spent = /^Refused logins of “viewer” at 127\.0\.0\.1 in this run: [12]\. Many devices lock/;
  expect(outcome.err).toMatch(cause === 'auth-failed' ? spent : /^$/);
});

test.each([
  { why: 'no command', args: [] },
  { why: 'an unknown command', args: ['prove'] },
  { why: 'not a URL', args: ['probe'] },
  { why: 'an unknown option', args: ['probe', 'rtsp://127.0.0.1/', '--quick'] },
  { why: 'a sample in words', args: ['probe', 'rtsp://127.0.0.1/', '--seconds', 'many'] },
  { why: 'a variable that is not set', args: ['probe', 'rtsp://127.0.0.1/', '--pass-env', 'NO_SUCH_VARIABLE'] },
  { why: 'a file that is not there', args: ['check', '/no/such/file'] },
])('wrong usage exits 2 and says how it is meant: $why', async ({ args }) => {
  const { code, out, err } = await cleartap(args);
  expect({ code, out }).toEqual({ code: 2, out: '' });
  expect(err).toContain('usage:');
});

test('without --json it is for eyes', async () => {
  const { out } = await cleartap(
    ['probe', camera.url, '--user', ACCOUNT.user, '--pass-env', 'CAM_PASS', '--seconds', '0.5'],
    { env: { CAM_PASS: ACCOUNT.password } },
  );
  expect(out).toMatch(/authenticate\s+200/);
  expect(out).toMatch(/160×96, 15\.0 frames a second/);
});

test('cleartap check tells what Choose and Power find, and the budgets behind it', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'cleartap-')), 'planned.cleartap.json');
  const planned = apply(alderMill(AT), { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4' });
  writeFileSync(file, writeSiteFile(planned));
  const { code, out } = await cleartap(['check', file, '--json']);
  expect(code).toBe(1);
  const told = JSON.parse(out);
  expect(told.findings).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ camera: 'Orchard track', rule: 'choose.text', severity: 'stop' }),
      expect.objectContaining({ camera: 'Landing stage', rule: 'power.switch-budget', severity: 'stop' }),
      expect.objectContaining({ camera: 'Bee stand', rule: 'power.winter', severity: 'stop' }),
      expect.objectContaining({ camera: 'Boot room', rule: 'air.signal', severity: 'fix' }),
    ]),
  );
  expect(told.switches).toContainEqual(
    expect.objectContaining({ switch: 'Wheel switch', totalW: 45.4, verdict: 'will-not-work' }),
  );
  expect(told.suns).toEqual([expect.objectContaining({ camera: 'Bee stand', shortMonths: [1, 11, 12] })]);
  expect(told.air.map(({ accessPoint }: { accessPoint: string }) => accessPoint)).toEqual([
    'Hall radio',
    'Bakehouse radio',
  ]);
  expect(told.links).toHaveLength(planned.links.length);
});

test('cleartap check tells each lane’s stations and each finding’s mend; --apply writes a mended file beside it', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'cleartap-')), 'mill.cleartap.json');
  const text = writeSiteFile(alderMill(AT));
  writeFileSync(file, text);
  const [plain, { code, out }] = await Promise.all([
    cleartap(['check', file, '--json']),
    cleartap(['check', file, '--apply', 'power.winter', '--json']),
  ]);
  const told = JSON.parse(plain.out);
  const bees = told.lanes.find(({ camera: name }: { camera: string }) => name === 'Bee stand');
  expect(bees.stations.map(({ station, verdict }: Record<string, string>) => `${station} ${verdict}`)).toEqual([
    'choose ok',
    'power will-not-work',
    'prepare unknown',
    'address unknown',
    'tap unknown',
    'hand-over unknown',
  ]);
  const winter = told.findings.find(({ rule }: { rule: string }) => rule === 'power.winter');
  expect(winter.mend).toMatchObject({
    text: 'Use a panel of 17 Wp',
    command: { kind: 'setFeed', cameraId: 'bee-stand' },
  });
  const mended = JSON.parse(out);
  expect(code).toBe(0);
  expect(mended.applied).toEqual([{ camera: 'Bee stand', rule: 'power.winter', text: 'Use a panel of 17 Wp' }]);
  expect(mended.findings.map(({ rule }: { rule: string }) => rule)).not.toContain('power.winter');
  expect(readFileSync(file, 'utf8')).toBe(text);
  // What was written once is not written over, and what has no mend writes nothing.
  const [again, twice, without] = await Promise.all([
    cleartap(['check', mended.written, '--json']),
    ...['power.winter', 'choose.ladder-work'].map((rule) => cleartap(['check', file, '--apply', rule])),
  ]);
  expect(JSON.parse(again.out).findings).toEqual(mended.findings);
  expect(twice).toMatchObject({ code: 2, out: '' });
  expect(without?.err).toMatch(/nothing was written/);
});

test('cleartap check: a switch that cannot feed an access point says stop, whoever is joined to it', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'cleartap-')), 'mill.cleartap.json');
  const point = { ...apOf('ap', '2.4', 3), poeClass: 4 } as Gear;
  const site = {
    ...mill(),
    gear: [switchOf('a', { pseType: 1 }), point],
    links: [linkOf('up', 'gear:a', 'gear:ap')],
  };
  writeFileSync(file, writeSiteFile(site));
  const { code, out } = await cleartap(['check', file, '--json']);
  expect(code).toBe(1);
  expect(JSON.parse(out)).toMatchObject({
    gearFindings: [{ gear: 'Switch a', rule: 'power.gear-unfed', severity: 'stop' }],
    switches: [{ verdict: 'will-not-work' }],
  });
  writeFileSync(file, writeSiteFile({ ...site, gear: [switchOf('a'), point] }));
  expect((await cleartap(['check', file])).code).toBe(0);
});

test('cleartap check tells findings and budgets, and exits 1 when one says stop', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'cleartap-'));
  const file = join(folder, 'mill.cleartap.json');
  writeFileSync(
    file,
    writeSiteFile(apply(mill(), probed('sluice', report({ kbps: 3100 })), record('tap-1', 'sluice'))),
  );
  const { code, out } = await cleartap(['check', file, '--json']);
  expect(code).toBe(1);
  const printed = JSON.parse(out);
  expect(printed.findings).toMatchObject([{ camera: 'sluice', rule: 'storage.retention' }]);
  expect(printed.budgets).toMatchObject([{ tap: 'tap-1', verdict: 'will-not-work', retention: { daysWanted: 14 } }]);
  writeFileSync(file, writeSiteFile(mill()));
  expect((await cleartap(['check', file, '--json'])).code).toBe(0);
  writeFileSync(file, '{"format":');
  expect((await cleartap(['check', file, '--json'])).code).toBe(2);
});

const STEERING = 'Weir\u001b[2J\u202e\u009b1m';
const UNSEEN = /[\p{Cc}\p{Cf}]/u;

test('what a camera or a site file says steers no terminal: it is made visible', async () => {
  const hostile = await startFaultyCamera({
    script: (request, count) => {
      const answer = healthy(request, count);
      const realm = { 'WWW-Authenticate': `Basic realm="${STEERING}"`, Server: STEERING };
      return request.method === 'DESCRIBE' && count < 3 ? { status: 401, headers: realm } : answer;
    },
  });
  const args = ['probe', hostile.url, '--user', 'op', '--timeout', '0.3'];
  const [plain, json] = await Promise.all([cleartap(args), cleartap([...args, '--json'])]);
  await hostile.close();
  for (const { out, err } of [plain, json]) expect(`${out}${err}`.replaceAll('\n', '')).not.toMatch(UNSEEN);
  expect(JSON.parse(json.out).server).toContain('Weir');

  const file = join(mkdtempSync(join(tmpdir(), 'cleartap-')), 'steering.cleartap.json');
  const site = mill();
  const named = (name: string): string =>
    writeSiteFile({ ...site, cameras: site.cameras.map((one) => ({ ...one, name })) });
  writeFileSync(file, named('Weir\u202e'));
  const [told, asJson] = await Promise.all([cleartap(['check', file]), cleartap(['check', file, '--json'])]);
  expect(told.out.replaceAll('\n', '')).not.toMatch(UNSEEN);
  expect(asJson.out.trim()).not.toMatch(UNSEEN);
  expect(JSON.parse(asJson.out).lanes[0].camera).toBe('Weir\u202e');
  writeFileSync(file, named(STEERING));
  expect((await cleartap(['check', file])).err.replaceAll('\n', '')).toMatch(/control characters/);
  writeFileSync(file, `{"format": ${STEERING}`);
  expect((await cleartap(['check', file])).err.replaceAll('\n', '')).not.toMatch(UNSEEN);
});

test('a login inside the URL of a probe is in no output', async () => {
  const url = camera.url.replace('rtsp://', 'rtsp://viewer:Weir%20%26%20Gate%2F7@');
  const { out } = await cleartap(['probe', `${url}?pwd=Weir%20%26%20Gate%2F7`, '--no-media', '--json']);
  expect(out).not.toContain('Gate');
  expect(JSON.parse(out).target.path).toBe('/live?pwd={password}');
});

const firstLine = async (child: ChildProcess, matching: RegExp): Promise<string> => {
  if (!child.stdout) throw new Error('stdout');
  for await (const line of createInterface(child.stdout)) if (matching.test(line)) return line;
  throw new Error('ended without saying it');
};
const ended = (child: ChildProcess): Promise<number | null> => new Promise((resolve) => child.once('exit', resolve));

test('cleartap standins prints where its cameras listen, serves, and ends on SIGTERM', async () => {
  const child = spawn(process.execPath, [CLEARTAP, 'standins', '--json']);
  const { devices, faults } = JSON.parse(await firstLine(child, /^\{/));
  const names = [...ALDER_MILL_FLEET, ...ONVIF_GALLERY, ...MEDIA_GALLERY].map(({ name }) => name);
  expect(devices.map(({ name }: { name: string }) => name)).toEqual(names);
  const { url } = devices[1].rtsp[0];
  const { out } = await cleartap(['probe', url, '--seconds', '1', '--json']);
  expect(JSON.parse(out)).toMatchObject({
    cause: null,
    media: [{ codec: 'H264', measured: { width: 960, height: 540 } }, { codec: 'PCMU' }],
  });
  // a fault of the gallery has its cause by the command too, and the reason that experiments found
  const fault = faults.find(({ id }: { id: string }) => id === 'tls');
  const told = await cleartap(['probe', fault.url, '--user', fault.user, '--timeout', '2', '--json']);
  expect(told.code).toBe(1);
  expect(JSON.parse(told.out)).toMatchObject({
    cause: 'closed',
    diagnosis: { reason: 'encrypted', found: { line: 'tls' } },
  });
  child.kill('SIGTERM');
  expect(await ended(child)).toBe(0);
}, 40_000);

test('the demo server: next free port, live pictures over WebSocket, gone within a second of SIGTERM', async () => {
  const blocker = spawn(process.execPath, [SERVER, '--port', '0']);
  const taken = /:(\d+)\//.exec(await firstLine(blocker, /Clear Tap:/))?.[1] ?? '';
  const child = spawn(process.execPath, [SERVER, '--demo', '--port', taken]);
  const port = /:(\d+)\//.exec(await firstLine(child, /Clear Tap:/))?.[1] ?? '';
  expect(Number(port)).toBeGreaterThan(Number(taken));

  const open = (headers: Record<string, string>) =>
    new WebSocket(`ws://127.0.0.1:${port}/api/live`, ['clear-tap.live.1'], { headers });
  const refused = await new Promise((resolve) => open({ Origin: 'http://evil.example' }).on('error', resolve));
  expect(String(refused)).toContain('403');

  const socket = open({ Origin: `http://127.0.0.1:${port}` });
  socket.binaryType = 'arraybuffer';
  const { host, account } = SLUICE_RAIL;
  socket.on('open', () =>
    socket.send(JSON.stringify({ url: `rtsp://${host}/live/sub`, user: account?.user, secret: account?.password })),
  );
  const seen: (string | ArrayBuffer)[] = [];
  await new Promise<void>((resolve) => {
    socket.on('message', (data, isBinary) => {
      seen.push(isBinary ? (data as ArrayBuffer) : String(data));
      if (seen.length > 14) resolve();
    });
  });
  expect(JSON.parse(String(seen[0]))).toMatchObject({
    kind: 'format',
    codec: 'H264',
    codecString: expect.stringMatching(/^avc1\.4200/),
  });
  const frames = seen.flatMap((message) => (typeof message === 'string' ? [] : [decodeLiveFrame(message)]));
  expect(frames.some((frame) => frame?.isKeyFrame)).toBe(true);
  expect(frames.every((frame) => frame?.isSound || frame?.accessUnit[3] === 1)).toBe(true);

  const wrong = open({ Origin: `http://127.0.0.1:${port}` });
  wrong.on('open', () =>
    wrong.send(
      JSON.stringify({
        url: `rtsp://${SLUICE_RAIL.host}:${SLUICE_RAIL.port}/live/sub`,
        user: 'boot-viewer',
        secret: 'wrong',
      }),
    ),
  );
  const said = await new Promise<string>((resolve) => wrong.on('message', (data) => resolve(String(data))));
  expect(JSON.parse(said)).toMatchObject({ kind: 'ended', message: expect.stringContaining('refused account') });

  const startedMs = performance.now();
  child.kill('SIGTERM');
  blocker.kill('SIGTERM');
  expect(await Promise.all([ended(child), ended(blocker)])).toEqual([0, 0]);
  expect(performance.now() - startedMs).toBeLessThan(1000);
}, 40_000);

test('cleartap probe --site probes the cameras of a file, leaves out whose secret is not given, and dials nothing twice', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'cleartap-'));
  const [file, secrets] = [join(folder, 'site.cleartap.json'), join(folder, 'secrets.json')];
  const { hostname, port, pathname } = new URL(camera.url.replace('rtsp:', 'http:'));
  const one = (id: string, more: object = {}) => ({
    ...siteCamera(id, {
      host: hostname,
      ports: { rtsp: Number(port) },
      account: { user: ACCOUNT.user, secretRef: `secret-${id}` },
      ...more,
    }),
  });
  const withPath = (path: string, id: string) =>
    one(id, { streams: one(id).streams.map((stream) => ({ ...stream, path })) });
  const site = {
    ...mill(),
    cameras: [
      withPath(pathname, 'a'),
      withPath(`${pathname}-gone`, 'b'),
      withPath(pathname, 'c'),
      one('d', { host: '' }),
    ],
  };
  writeFileSync(file, writeSiteFile(site));
  // by name, and by name and host; a reference of the file opens nothing
  const ofThem = { [`a@${hostname}`]: ACCOUNT.password, b: ACCOUNT.password, 'secret-c': ACCOUNT.password };
  writeFileSync(secrets, JSON.stringify(ofThem));
  const { code, out } = await cleartap(['probe', '--site', file, '--passwords', secrets, ...quick]);
  const told = JSON.parse(out);
  const fared = told.probed.map((probe: { camera: string; verdict: string; cause: string | null }) => [
    probe.camera,
    probe.verdict,
    probe.cause,
  ]);
  expect([code, fared.sort()]).toEqual([
    1,
    [
      ['a', 'ok', null],
      ['b', 'fail', 'not-found'],
    ],
  ]);
  expect(told.leftOut).toEqual([{ camera: 'c', why: 'its password was not given' }]);
  expect(out).not.toContain(ACCOUNT.password);
});

test.each([
  { why: 'a URL beside a site', args: ['probe', 'rtsp://127.0.0.1/', '--site', 'x.json'] },
  { why: 'secrets without a site', args: ['probe', 'rtsp://127.0.0.1/', '--passwords', 'x.json'] },
  { why: 'a site that is not there', args: ['probe', '--site', '/nowhere/x.json'] },
])('cleartap probe exits 2: $why', async ({ args }) => {
  const { code, out } = await cleartap(args);
  expect([code, out]).toEqual([2, '']);
});
