import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { bytesOf } from '../base/bytes.ts';
import { liesWithin, parseScanRange, type ScanRange } from '../net/scan-range.ts';
import { probeMessage } from '../onvif/discovery.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';
import { ScanMachine, type ScanOptions } from './scan-machine.ts';
import { atOnceOf, impliedSeconds, readPorts } from './scan-plan.ts';
import type { ScanEffect, ScanSummary } from './scan-types.ts';
import { type SeenHost, unknownHost } from './seen.ts';
import { checkSeenHost } from './seen-check.ts';

const range = (text: string): ScanRange => {
  const read = parseScanRange(text);
  if (!read.ok) throw new Error(read.error.message);
  return read.value;
};

/** What answers at a door: what it says to whatever is told, how long it takes, or why it is shut. */
type Door =
  | { readonly says: (told: string) => string; readonly afterMs?: number; readonly hangsUp?: boolean }
  | ProbeCause;
const HTTP =
  'HTTP/1.1 200 OK\r\nServer: web 1\r\nContent-Length: 45\r\n\r\n<html><title>Printer &amp; more</title></html>!!';
const RTSP = 'RTSP/1.0 200 OK\r\nCSeq: 1\r\nServer: cam 2\r\nPublic: OPTIONS\r\n\r\n';
const TIME =
  'HTTP/1.1 200 OK\r\n\r\n<s:Envelope xmlns:s="x"><s:Body><t:GetSystemDateAndTimeResponse xmlns:t="y"/></s:Body></s:Envelope>';
const web: Door = { says: (told) => (told.startsWith('POST') ? 'HTTP/1.1 404 No\r\nContent-Length: 0\r\n\r\n' : HTTP) };
const onvif: Door = { says: (told) => (told.startsWith('POST') ? TIME : HTTP), hangsUp: true };
const rtsp: Door = { says: () => RTSP };

interface World {
  readonly doors: Readonly<Record<string, Door>>;
  readonly neighbours?: ReadonlyMap<string, string>;
  readonly answers?: readonly { readonly from: string; readonly text: string }[];
  /** Pieces that each answer comes in. */
  readonly pieceBytes?: number;
  readonly cancelAtMs?: number;
}

/** In more pieces no answer comes: that bytes are looked at once is seen elsewhere, and each costs a place in the queue. */
const MOST_PIECES = 2000;

/** Plays a world against the machine, by its own clock. */
function play(options: Partial<ScanOptions>, world: World) {
  const machine = new ScanMachine({
    range: range('10.0.0.1-4'),
    ports: [554, 80],
    pace: { rate: 200, timeoutMs: 300 },
    isDiscovering: false,
    messageId: 'a1b2',
    ...options,
  });
  const queue: { at: number; run: () => readonly ScanEffect[] }[] = [];
  const seen = new Map<string, SeenHost>();
  const calls: { at: number; host: string; port: number }[] = [];
  const troubles: string[] = [];
  const open = new Set<number>();
  let summary: ScanSummary | null = null;
  let [atMs, isDone, most, asked] = [0, false, 0, 0];
  const later = (afterMs: number, run: () => readonly ScanEffect[]): void => {
    const at = atMs + afterMs;
    // in the order of time, and of what is due at once in the order of the telling
    let [low, high] = [0, queue.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((queue[middle]?.at ?? 0) <= at) low = middle + 1;
      else high = middle;
    }
    queue.splice(low, 0, { at, run });
  };
  const doors = new Map<number, Door>();
  const carryOut = (effect: ScanEffect): void => {
    switch (effect.kind) {
      case 'call': {
        const { door, host, port, timeoutMs } = effect;
        calls.push({ at: atMs, host, port });
        const found = world.doors[`${host}:${port}`] ?? 'timeout';
        doors.set(door, found);
        open.add(door);
        most = Math.max(most, open.size);
        if (typeof found === 'string') {
          const afterMs = found === 'timeout' ? timeoutMs : found === 'unreachable' ? 0 : 2;
          return later(afterMs, () => {
            open.delete(door);
            return machine.handle({ kind: 'shut', door, cause: found, atMs });
          });
        }
        return later(2, () => machine.handle({ kind: 'opened', door, atMs }));
      }
      case 'tell': {
        const found = doors.get(effect.door);
        if (found === undefined || typeof found === 'string') return;
        const bytes = bytesOf(found.says(new TextDecoder().decode(effect.bytes)));
        const size = Math.max(world.pieceBytes ?? bytes.length, Math.ceil(bytes.length / MOST_PIECES));
        for (let from = 0; from < bytes.length; from += size)
          later(found.afterMs ?? 3, () =>
            machine.handle({ kind: 'heard', door: effect.door, chunk: bytes.slice(from, from + size), atMs }),
          );
        if (found.hangsUp)
          later((found.afterMs ?? 3) + 1, () => machine.handle({ kind: 'hungUp', door: effect.door, atMs }));
        return;
      }
      case 'hangUp':
        return void open.delete(effect.door);
      case 'askAll':
        asked += 1;
        for (const { from, text } of world.answers ?? [])
          later(5, () => machine.handle({ kind: 'answered', from, chunk: bytesOf(text), atMs }));
        return;
      case 'askNeighbours':
        return later(1, () => machine.handle({ kind: 'neighbours', table: world.neighbours ?? new Map(), atMs }));
      case 'arm':
        return later(effect.afterMs, () => machine.handle({ kind: 'timer', timer: 'tick', atMs }));
      case 'seen':
        return void seen.set(effect.host.host, effect.host);
      case 'trouble':
        return void troubles.push(effect.note);
      case 'ended':
        summary = effect.summary;
        return;
      case 'done':
        isDone = true;
        return;
    }
  };
  for (const effect of machine.begin(0)) carryOut(effect);
  if (world.cancelAtMs !== undefined) later(world.cancelAtMs, () => machine.handle({ kind: 'cancel', atMs }));
  while (!isDone && queue.length > 0) {
    const next = queue.shift();
    if (!next) break;
    atMs = next.at;
    for (const effect of next.run()) carryOut(effect);
  }
  return { seen, calls, troubles, summary: summary as ScanSummary | null, isDone, most, asked, atMs };
}

test('each answer is told for what it is, whatever its port', () => {
  const { seen, summary, isDone } = play(
    {},
    {
      doors: {
        '10.0.0.1:554': rtsp,
        '10.0.0.1:80': onvif,
        '10.0.0.2:80': web,
        '10.0.0.2:554': web,
        '10.0.0.3:554': { says: () => '\u0016\u0003 no protocol that anybody knows' },
        '10.0.0.3:80': 'refused',
        '10.0.0.4:80': 'refused',
      },
      neighbours: new Map([
        ['10.0.0.4', '00-00-5E-00-53-04'],
        ['192.168.1.1', '00:00:5e:00:53:aa'],
      ]),
    },
  );
  const doorsAt = (host: string) =>
    seen.get(host)?.doors.map(({ port, is, server, title }) => ({ port, is, server, title }));
  expect(doorsAt('10.0.0.1')).toEqual([
    { port: 80, is: 'onvif', server: 'web 1', title: 'Printer &amp; more' },
    { port: 554, is: 'rtsp', server: 'cam 2', title: '' },
  ]);
  expect(doorsAt('10.0.0.2')?.map(({ is }) => is)).toEqual(['http', 'http']);
  expect(doorsAt('10.0.0.3')).toEqual([{ port: 554, is: 'other', server: '', title: '' }]);
  // refused everywhere, and in the table of neighbours: there, without a door
  expect(seen.get('10.0.0.4')).toEqual({ ...unknownHost('10.0.0.4'), mac: '00:00:5e:00:53:04' });
  expect(seen.has('192.168.1.1')).toBe(false);
  expect(summary).toMatchObject({ asked: 8, of: 8, refused: 2, isCancelled: false, leftOut: 0 });
  expect(isDone).toBe(true);
});

describe('a port tells only what is likely', () => {
  const answers = (page: string): Door => ({
    says: (told) => (told.startsWith('OPTIONS') ? RTSP : told.startsWith('POST') ? 'HTTP/1.1 404 No\r\n\r\n' : page),
    hangsUp: true,
  });
  test.each([
    { what: 'a stream server by its name', page: HTTP.replace('web 1', 'Stream server 3') },
    { what: 'an error for every page', page: 'HTTP/1.1 401 No\r\nServer: web 1\r\n\r\n<title>Sign in</title>' },
    { what: 'a page without a title', page: 'HTTP/1.0 200 OK\r\n\r\n<html>nothing</html>' },
    { what: 'a server that says nothing to a web page', page: '' },
    { what: 'one that answers no protocol', page: '\u0000\u0001\u0002 who are you, and what do you want here' },
  ])('$what is asked for a stream too, and has one', ({ page }) => {
    const { seen } = play({ ports: [18_848] }, { doors: { '10.0.0.1:18848': answers(page) } });
    expect(seen.get('10.0.0.1')?.doors).toMatchObject([{ port: 18_848, is: 'rtsp', server: 'cam 2', isSlow: false }]);
  });

  test('who is silent in another protocol, and quick in its own, is not told as slow', () => {
    const door: Door = {
      says: (told) => (told.startsWith('OPTIONS') ? RTSP : told.startsWith('GET') ? 'HTTP/1.0 404 No\r\n\r\n' : ''),
    };
    const { seen } = play({ ports: [8000] }, { doors: { '10.0.0.1:8000': door } });
    expect(seen.get('10.0.0.1')?.doors).toMatchObject([{ is: 'rtsp', isSlow: false }]);
  });

  test('a page that says what it is stays one, and is not asked for a stream', () => {
    const told: string[] = [];
    const door: Door = {
      says: (text) => {
        told.push(text.split(' ', 1)[0] ?? '');
        return text.startsWith('POST') ? 'HTTP/1.1 404 No\r\nContent-Length: 0\r\n\r\n' : HTTP;
      },
    };
    const { seen } = play({ ports: [80] }, { doors: { '10.0.0.1:80': door } });
    expect(seen.get('10.0.0.1')?.doors).toMatchObject([{ is: 'http', title: 'Printer &amp; more' }]);
    expect(told).toEqual(['GET', 'POST']);
  });

  test('a web server on a port of streams that hangs up on what it does not know is asked for its page', () => {
    const door: Door = { says: (told) => (told.startsWith('OPTIONS') ? '' : HTTP), hangsUp: true };
    const { seen } = play({ ports: [8554] }, { doors: { '10.0.0.1:8554': door } });
    expect(seen.get('10.0.0.1')?.doors).toMatchObject([{ is: 'http', title: 'Printer &amp; more' }]);
  });
});

test('however its bytes are cut, the same is learnt', () => {
  const doors = { '10.0.0.1:554': rtsp, '10.0.0.1:80': onvif, '10.0.0.2:80': web };
  const whole = play({}, { doors }).seen;
  for (const pieceBytes of [1, 2, 7, 50]) expect(play({}, { doors, pieceBytes }).seen).toEqual(whole);
});

test('calls go out at the stated rate, and no more at once than is said', () => {
  const pace = { rate: 100, timeoutMs: 400 };
  const { calls, most, atMs } = play({ range: range('10.0.0.1-250'), ports: [554], pace }, { doors: {} });
  expect(calls).toHaveLength(250);
  for (const from of calls)
    expect(calls.filter(({ at }) => at >= from.at && at < from.at + 1000).length).toBeLessThanOrEqual(106);
  expect(most).toBeLessThanOrEqual(atOnceOf(pace));
  expect(atMs / 1000).toBeLessThan(impliedSeconds(250, pace) * 1.3);
});

test('a device that takes every call is told so, one that is slow too, and neither holds the others up', () => {
  const ports = [554, 80, 8080, 8000];
  const silent: Door = { says: () => '' };
  const slow: Door = { says: () => RTSP, afterMs: 5000 };
  const { seen, summary } = play(
    { ports },
    {
      doors: {
        ...Object.fromEntries(ports.map((port) => [`10.0.0.1:${port}`, silent])),
        '10.0.0.2:554': slow,
        '10.0.0.3:80': web,
      },
    },
  );
  expect(seen.get('10.0.0.1')).toMatchObject({ answersAll: true });
  expect(seen.get('10.0.0.1')?.doors.every(({ is, isSlow }) => is === 'other' && isSlow)).toBe(true);
  expect(seen.get('10.0.0.2')?.doors).toEqual([{ port: 554, is: 'rtsp', server: 'cam 2', title: '', isSlow: true }]);
  expect(seen.get('10.0.0.3')?.answersAll).toBe(false);
  expect(summary?.isCancelled).toBe(false);
});

test('calls that no longer leave this computer are said once, and the sweep goes on', () => {
  const doors = Object.fromEntries(
    Array.from({ length: 60 }, (_, at) => [`10.0.0.${at + 1}:554`, 'unreachable' as const]),
  );
  const { troubles, summary, seen } = play(
    { range: range('10.0.0.1-80'), ports: [554] },
    { doors: { ...doors, '10.0.0.70:554': rtsp } },
  );
  expect(troubles).toHaveLength(1);
  expect(troubles[0]).toMatch(/cable or Wi-Fi is down/);
  expect(summary).toMatchObject({ asked: 80, isCancelled: false });
  expect(seen.has('10.0.0.70')).toBe(true);
});

test('cancelled, it is over at once, and what was seen stays', () => {
  const { summary, seen, atMs } = play(
    { range: range('10.0.0.1-200'), ports: [554] },
    { doors: { '10.0.0.1:554': rtsp }, cancelAtMs: 200 },
  );
  expect(summary).toMatchObject({ isCancelled: true });
  expect(atMs).toBe(200);
  expect(seen.has('10.0.0.1')).toBe(true);
});

const matches = (endpoint: string, more = '') =>
  `<e:Envelope xmlns:e="x"><e:Header><a:RelatesTo>urn:uuid:a1b2</a:RelatesTo></e:Header><e:Body><d:ProbeMatches><d:ProbeMatch><a:EndpointReference><a:Address>${endpoint}</a:Address></a:EndpointReference>${more}</d:ProbeMatch></d:ProbeMatches></e:Body></e:Envelope>`;

describe('asked by WS-Discovery', () => {
  test('an answer joins what the sweep saw, and is asked for twice', () => {
    const more =
      '<d:Scopes>onvif://www.onvif.org/name/Weir%20gate onvif://www.onvif.org/hardware/PD-5 onvif://www.onvif.org/MAC/00:00:5E:00:53:21</d:Scopes><d:XAddrs>http://10.0.0.1/onvif/device_service http://192.168.0.90/onvif/device_service</d:XAddrs>';
    const { seen, asked } = play(
      { isDiscovering: true },
      { doors: { '10.0.0.1:554': rtsp }, answers: [{ from: '10.0.0.1', text: matches('urn:uuid:E1', more) }] },
    );
    expect(asked).toBe(2);
    expect(seen.get('10.0.0.1')).toMatchObject({
      endpoints: ['urn:uuid:E1'],
      name: 'Weir gate',
      hardware: 'PD-5',
      mac: '00:00:5e:00:53:21',
      alsoAt: ['192.168.0.90'],
    });
    expect(seen.get('10.0.0.1')?.doors.map(({ port, is }) => [port, is])).toEqual([
      [80, 'onvif'],
      [554, 'rtsp'],
    ]);
  });

  test('10,000 answers of thousands of addresses leave a bounded table, and the rest is counted', () => {
    const answers = Array.from({ length: 10_000 }, (_, at) => ({
      from: `10.${Math.floor(at / 65_536)}.${Math.floor(at / 256) % 256}.${at % 256}`,
      text: at < 6000 ? 'no answer' : matches(`urn:uuid:${at}`),
    }));
    const { seen, summary } = play({ range: null, ports: [], isDiscovering: true }, { doors: {}, answers });
    expect(seen.size).toBe(2048);
    expect(summary?.leftOut).toBe(10_000 - 6000 - 2048);
    expect(summary?.answers).toBe(20_000);
  });

  test('two answers with one identity are two addresses, and many identities at one are kept as odd', () => {
    const { seen } = play(
      { range: null, ports: [], isDiscovering: true },
      {
        doors: {},
        answers: [
          { from: '10.0.0.1', text: matches('urn:uuid:same') },
          { from: '10.0.0.2', text: matches('urn:uuid:same') },
          ...Array.from({ length: 50 }, (_, at) => ({ from: '10.0.0.3', text: matches(`urn:uuid:${at}`) })),
        ],
      },
    );
    expect(seen.get('10.0.0.1')?.endpoints).toEqual(seen.get('10.0.0.2')?.endpoints);
    expect(seen.get('10.0.0.3')?.endpoints).toHaveLength(4);
  });

  test('the question itself is an envelope that names itself', () =>
    expect(probeMessage('a1b2')).toContain('urn:uuid:a1b2'));
});

test('whatever a peer says, the sweep ends, and what it keeps can be read again', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.oneof(
          fc.string({ maxLength: 300 }),
          fc.constantFrom(
            'RTSP/1.0 ',
            'HTTP/1.1 200 OK\r\n\r\n<title>\u202e\u0000',
            `HTTP/1.0 200\r\n\r\n${'<'.repeat(20_000)}`,
          ),
        ),
        {
          minLength: 2,
          maxLength: 4,
        },
      ),
      fc.integer({ min: 1, max: 400 }),
      fc.boolean(),
      (texts, pieceBytes, hangsUp) => {
        const doors = Object.fromEntries(
          texts.map((text, at) => [`10.0.0.${at + 1}:80`, { says: () => text, hangsUp }]),
        );
        const { seen, isDone } = play({ ports: [80] }, { doors, pieceBytes });
        expect(isDone).toBe(true);
        for (const host of seen.values()) expect(checkSeenHost(host)).toBeNull();
      },
    ),
    runs(60),
  ));

test.each(['', null, [], { host: 1 }, { ...unknownHost('a'), doors: [{ port: 'x' }] }])(
  'what nobody of ours wrote about a host is refused: %j',
  (value) => expect(checkSeenHost(value)).toMatch(/./),
);

test.each([
  { text: '554, 8554', ports: [554, 8554] },
  { text: '80 80 443', ports: [80, 443] },
  { text: '', ports: null },
  { text: '0', ports: null },
  { text: '65536', ports: null },
  { text: 'rtsp', ports: null },
  { text: Array.from({ length: 17 }, (_, at) => at + 1).join(','), ports: null },
  { text: '1'.repeat(100_000), ports: null },
])('ports as people write them', ({ text, ports }) => expect(readPorts(text)).toEqual(ports));

test('a printer is called and told nothing: what is said to one stands on paper', () => {
  const told: string[] = [];
  const printer: Door = {
    says: (text) => {
      told.push(text);
      return 'paper';
    },
  };
  const { seen } = play(
    { ports: [9100, 515, 631] },
    { doors: { '10.0.0.2:9100': printer, '10.0.0.2:515': printer, '10.0.0.2:631': printer } },
  );
  expect(told).toEqual([]);
  expect(
    seen
      .get('10.0.0.2')
      ?.doors.map(({ port }) => port)
      .sort(),
  ).toEqual([515, 631, 9100]);
});

test.each([
  { text: '10.77.4.0/24', within: '10.77.4.0/24', is: true },
  { text: '10.77.4.10-99', within: '10.77.4.0/24', is: true },
  { text: '10.77.4.200-10.77.5.3', within: '10.77.4.0/24', is: false },
  { text: '10.77.9.4', within: '10.77.4.0/24', is: false },
  { text: '10.77.4.9', within: 'no network', is: false },
])('$text lies within $within: $is', ({ text, within, is }) => expect(liesWithin(range(text), within)).toBe(is));
