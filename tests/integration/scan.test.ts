import { spawn } from 'node:child_process';
import { type AddressInfo, createServer, type Socket } from 'node:net';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parseScanRange } from '../../src/core/net/scan-range.ts';
import type { ScanEvent } from '../../src/core/scan/scan-types.ts';
import type { SeenHost } from '../../src/core/scan/seen.ts';
import { createRealFinder } from '../../src/server/adapters/real-finder.ts';
import { createSimulatedDialer, createSimulatedFinder } from '../../src/server/adapters/simulated-network.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import type { World } from '../../src/server/drive.ts';
import { Logins } from '../../src/server/logins.ts';
import { runScan, type ScanRun } from '../../src/server/works/run-scan.ts';
import { MILL_BYSTANDERS } from '../../src/standins/alder-mill-network.ts';
import { startDevicePages } from '../../src/standins/device-pages.ts';
import { startDiscoveryResponder } from '../../src/standins/discovery-responder.ts';
import { type Fleet, startFleet } from '../../src/standins/fleet.ts';
import { LINEN_STAIR, SLUICE_RAIL } from '../../src/standins/personality.ts';
import { startServer } from '../support/running-server.ts';

const PACE = { rate: 500, timeoutMs: 400 };
const range = (text: string) => {
  const read = parseScanRange(text);
  if (!read.ok) throw new Error(read.error.message);
  return read.value;
};

async function scan(world: World, run: Partial<ScanRun>, signal = new AbortController().signal) {
  const seen = new Map<string, SeenHost>();
  const events: ScanEvent[] = [];
  await runScan({ range: null, ports: [], pace: PACE, isDiscovering: false, ...run }, world, signal, (event) => {
    events.push(event);
    if (event.kind === 'seen') seen.set(event.host.host, event.host);
  });
  return { seen, summary: events.flatMap((event) => (event.kind === 'ended' ? [event.summary] : []))[0], events };
}

let fleet: Fleet;
beforeAll(async () => {
  // still pictures: nothing is encoded for a sweep
  const stills = [LINEN_STAIR, { ...SLUICE_RAIL, streams: LINEN_STAIR.streams }];
  fleet = await startFleet(stills, { bystanders: MILL_BYSTANDERS, reservations: [] });
});
afterAll(() => fleet.close());
const inMill = (): World => ({
  dialer: createSimulatedDialer(fleet),
  finder: createSimulatedFinder(fleet),
  clock: systemClock,
  entropy: systemEntropy,
  logins: new Logins(systemClock, systemEntropy),
});
const onLoopback = (port = 9): World => ({
  dialer: createTcpDialer({ allowPublic: false }),
  finder: createRealFinder({ host: '127.0.0.1', port }),
  clock: systemClock,
  entropy: systemEntropy,
  logins: new Logins(systemClock, systemEntropy),
});

test('the simulated house is found as it is: streams, ONVIF, pages, and who is there and mute', async () => {
  const { seen, summary } = await scan(inMill(), {
    range: range('10.77.4.0/26'),
    ports: [554, 80, 8080],
    isDiscovering: true,
  });
  expect(seen.get('10.77.4.21')).toMatchObject({
    mac: '00:00:5e:00:53:21',
    name: 'Sluice rail',
    hardware: 'PD-5',
    endpoints: ['urn:uuid:6d1b9a3e-21c4-4e0f-8a52-00005e005321'],
  });
  expect(seen.get('10.77.4.21')?.doors.map(({ port, is }) => [port, is])).toEqual([
    [80, 'onvif'],
    [554, 'rtsp'],
  ]);
  expect(seen.get('10.77.4.33')?.alsoAt).toEqual(['192.168.0.90']);
  expect(seen.get('10.77.4.10')?.doors).toEqual([
    { port: 8080, is: 'http', server: 'nas-web 7', title: 'Loft store', isSlow: false },
  ]);
  expect(seen.get('10.77.4.61')).toMatchObject({ doors: [], mac: '06:00:5e:00:53:61' });
  expect(summary).toMatchObject({ asked: 186, of: 186, isCancelled: false });
});

test('after a power cut who asks for an address is elsewhere, and is known again; what is reserved, and what is set, is not', async () => {
  fleet.router.reserve([{ mac: '00:00:5e:00:53:60', ip: '10.77.4.60', name: 'printer' }]);
  fleet.router.cutPower();
  const { seen } = await scan(inMill(), { range: range('10.77.4.0/25'), ports: [554, 80] });
  const at = (mac: string) => [...seen.values()].find((host) => host.mac === mac)?.host;
  expect(at('00:00:5e:00:53:33')).toBe('10.77.4.33');
  expect(at('00:00:5e:00:53:60')).toBe('10.77.4.60');
  const moved = at('00:00:5e:00:53:21') ?? '';
  expect(moved).not.toBe('10.77.4.21');
  expect(seen.get(moved)?.doors.map(({ is }) => is)).toEqual(['onvif', 'rtsp']);
  expect(fleet.router.leaseFile()).toContain(`00:00:5e:00:53:21 ${moved} sluice-rail`);
});

test('cancelled, every socket is closed within 200 ms, those that are being dialled too', async () => {
  const open = new Set<Socket>();
  const server = createServer((socket) => {
    open.add(socket);
    socket.on('error', () => {});
    socket.resume(); // who does not read is not told that it is over
    socket.on('close', () => open.delete(socket));
  });
  await new Promise<void>((resolve) => server.listen(0, '0.0.0.0', resolve));
  const { port } = server.address() as AddressInfo;
  const controller = new AbortController();
  const running = scan(
    onLoopback(),
    { range: range('127.0.1.1-200'), ports: [port], pace: { rate: 2000, timeoutMs: 1000 } },
    controller.signal,
  );
  while (open.size < 50) await new Promise((resolve) => setTimeout(resolve, 10));
  const startedMs = performance.now();
  controller.abort();
  const { summary, seen } = await running;
  while (open.size > 0 && performance.now() - startedMs < 2000) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(performance.now() - startedMs).toBeLessThan(200);
  expect(summary).toMatchObject({ isCancelled: true });
  expect(seen.size).toBeGreaterThanOrEqual(50); // what was seen stays
  server.close();
});

test('on real sockets of loopback: a page that is ONVIF, a port that is shut, an answer by WS-Discovery', async () => {
  const fleet = await startFleet([SLUICE_RAIL]);
  const [standIn] = fleet.standIns;
  const port = (standIn && fleet.onvifPortOf(standIn)) ?? 0;
  const responder = await startDiscoveryResponder(() => ({
    name: 'Sluice rail',
    endpoint: 'e-1',
    hardware: 'PD-5',
    location: 'x',
    address: `127.0.0.1:${port}`,
  }));
  const { seen, summary } = await scan(onLoopback(responder.port), {
    range: range('127.0.0.1'),
    ports: [port, 1],
    isDiscovering: true,
  });
  expect(seen.get('127.0.0.1')).toMatchObject({ endpoints: ['urn:uuid:e-1'], hardware: 'PD-5' });
  expect(seen.get('127.0.0.1')?.doors).toEqual([
    { port, is: 'onvif', server: 'Ostrel-web/2.4', title: 'Ostrel PD-5', isSlow: false },
  ]);
  expect(summary).toMatchObject({ open: 1, refused: 1 });
  responder.close();
  await fleet.close();
});

test('no address outside is called, whatever the machine is told', async () => {
  const { seen, summary } = await scan(onLoopback(), { range: { from: 0x08080808, to: 0x08080809 }, ports: [80] });
  expect(seen.size).toBe(0);
  expect(summary).toMatchObject({ asked: 2, open: 0 });
});

const cleartap = (...args: readonly string[]): Promise<{ code: number | null; out: string; err: string }> =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, [join(__dirname, '../../dist/node/cleartap.mjs'), 'scan', ...args]);
    let [out, err] = ['', ''];
    child.stdout.on('data', (chunk) => (out += chunk));
    child.stderr.on('data', (chunk) => (err += chunk));
    child.on('close', (code) => resolve({ code, out, err }));
  });

test('as a command: one object, with what answered', async () => {
  const pages = await startDevicePages({
    page: { port: 80, title: 'Printer \u001b[2J', server: 'PrintBox' },
    onvif: null,
    still: async () => new Uint8Array(),
    answerDelayMs: 0,
  });
  const { code, out } = await cleartap('127.0.0.1', '--ports', String(pages.port), '--json');
  const said = JSON.parse(out);
  expect(said).toMatchObject({ range: '127.0.0.1', asked: 1, isCancelled: false });
  expect(said.found).toEqual([
    expect.objectContaining({
      host: '127.0.0.1',
      port: pages.port,
      is: 'http',
      server: 'PrintBox',
      title: 'Printer  [2J',
      identity: null,
      camera: null,
    }),
  ]);
  expect(code).toBe(0);
  const read = await cleartap('127.0.0.1', '--ports', String(pages.port));
  expect(read.out).toContain('Printer');
  expect(read.out).not.toContain('\u001b');
  await pages.close();
});

test.each([
  { why: 'a range that is too large', args: ['10.0.0.0/8'], says: 'more than a scan takes' },
  { why: 'octal', args: ['010.0.0.1'], says: 'octal' },
  { why: 'somebody else’s', args: ['8.8.8.0/24'], says: 'on the internet' },
  { why: 'IPv6', args: ['fd00::/64'], says: 'IPv6' },
  { why: 'ports that are none', args: ['127.0.0.1', '--ports', 'rtsp'], says: '--ports' },
  { why: 'a rate that is loud', args: ['127.0.0.1', '--rate', '99999'], says: '--rate' },
  { why: 'nothing at all', args: [], says: 'one range' },
])('as a command, refused with exit code 2: $why', async ({ args, says }) => {
  const { code, err } = await cleartap(...args);
  expect(err).toContain(says);
  expect(code).toBe(2);
});

const CALM = {
  range: '127.0.0.1',
  within: '127.0.0.0/8',
  ports: [1],
  rate: 100,
  timeoutMs: 300,
  discover: false,
};

test('over the API: lines as they come, a range that is refused in one of them, one sweep at a time', async () => {
  const server = await startServer('--discover-at', '127.0.0.1:9');
  const ask = (body: object) =>
    fetch(`http://127.0.0.1:${server.port}/api/scan`, {
      method: 'POST',
      headers: { 'x-clear-tap': '1', 'content-type': 'application/json' },
      body: JSON.stringify({ ...CALM, ...body }),
    });
  const lines = async (response: Response) =>
    (await response.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
  expect((await lines(await ask({}))).map(({ kind }: { kind: string }) => kind)).toEqual(
    expect.arrayContaining(['began', 'seen', 'ended']),
  );
  expect(await lines(await ask({ range: '10.0.0.0/8' }))).toEqual([expect.objectContaining({ kind: 'refused' })]);
  // a range outside of the network that may be looked through is refused, however near it lies
  expect(await lines(await ask({ within: '127.0.1.0/24' }))).toEqual([expect.objectContaining({ kind: 'refused' })]);
  expect((await ask({ rate: 1e9 })).status).toBe(400);
  const long = ask({ range: '127.0.0.0/24', rate: 20 });
  const [first, second] = [await long, await ask({})];
  expect(second.status).toBe(429);
  await first.body?.cancel();
  // whoever hangs up ends it, and the next may look
  let status = 0;
  for (let tries = 0; status !== 200 && tries < 40; tries++) {
    const again = await ask({});
    await again.text();
    ({ status } = again);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(status).toBe(200);
  server.process.kill();
});
