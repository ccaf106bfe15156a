import type { Socket } from 'node:net';
import WebSocket from 'ws';
import { LIVE_PROTOCOL } from '../../src/contract/app-header.ts';
import { NAMESPACES } from '../../src/core/onvif/namespaces.ts';
import {
  faultOf,
  pulledAnswer,
  pullPointAnswer,
  servicesAnswer,
  timeAnswer,
} from '../../src/standins/onvif/onvif-answers.ts';
import { echoesOf, leakIn } from '../support/echoes.ts';
import type { RunningServer } from '../support/running-server.ts';
import { http, type ScriptedDevice, scriptedDevice, soap } from '../support/scripted-device.ts';
import { mutated, type Random } from './random.ts';
import { Found, stands } from './server-attack.ts';

const MOST_UNACCEPTED = 2;
const HEADERS = { 'x-clear-tap': '1', 'content-type': 'application/json' };

interface Login {
  readonly user: string;
  readonly secret: string;
}
/** An account of its own for each attack: the server remembers refusals for ten minutes. */
const loginOf = (random: Random): Login => ({
  user: `op-${random.below(1e9)}`,
  secret: `Heron&Otter/${random.below(1e6)} weir`,
});

const proofsOf = ({ requests }: ScriptedDevice): number =>
  requests.filter(({ head, body }) => body.includes('<UsernameToken>') || /^authorization:/im.test(head)).length;

async function post(server: RunningServer, work: string, body: object): Promise<string> {
  const answer = await fetch(`http://127.0.0.1:${server.port}/api/${work}`, {
    method: 'POST',
    headers: HEADERS,
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(30_000),
  });
  return await answer.text();
}

/** Asks a head to move, and goes away. */
function steer(server: RunningServer, request: object, random: Random): Promise<string> {
  return new Promise((resolve) => {
    const socket = new WebSocket(`ws://127.0.0.1:${server.port}/api/steer`, [LIVE_PROTOCOL]);
    const said: string[] = [];
    const over = (): void => resolve(said.join('\n'));
    socket.on('message', (data) => said.push(String(data)));
    socket.on('error', over);
    socket.on('close', over);
    socket.on('open', () => {
      socket.send(JSON.stringify(request));
      for (let number = 1; number < 40; number++) {
        const order = random.pick([
          { kind: 'run', velocity: { pan: 1, tilt: 0, zoom: 0 } },
          { kind: 'rest' },
          { kind: 'runFor', velocity: { pan: -1, tilt: 0, zoom: 0 }, ms: 20_000 },
          { kind: 'goToPreset', token: 'x'.repeat(random.below(200) + 1) },
          { kind: 'keepPreset', name: 'x', token: null },
        ]);
        socket.send(JSON.stringify({ number, order }));
      }
      setTimeout(() => (random.once(2) ? socket.terminate() : socket.close()), random.below(1200));
    });
    setTimeout(over, 8000);
  });
}

type Answer = Parameters<typeof scriptedDevice>[0];

/** What a healthy device says, from which the hostile ones are made. */
const healthy =
  (echo: string): Answer =>
  ({ operation }, _, port) => {
    const base = `http://127.0.0.1:${port}`;
    switch (operation) {
      case 'GetSystemDateAndTime':
        return soap(timeAnswer(Date.now(), 'NTP'));
      case 'GetServices':
        return soap(
          servicesAnswer(
            (['device', 'media', 'ptz', 'events'] as const).map((name) => ({
              namespace: NAMESPACES[name],
              path: `/onvif/${name}`,
              version: [2, 0],
              capability: null,
            })),
            base,
          ),
        );
      case 'GetDeviceInformation':
        return soap(
          `<tds:GetDeviceInformationResponse><tds:Model>${echo}</tds:Model></tds:GetDeviceInformationResponse>`,
        );
      case 'CreatePullPointSubscription':
        return soap(pullPointAnswer(`${base}/pull`, null, 0, 60_000));
      case 'PullMessages':
        return soap(pulledAnswer([], 's', 0, 60_000));
      default:
        return http(faultOf('ter:ActionNotSupported', echo), '', '400 Bad Request');
    }
  };

const inPieces = (socket: Socket, text: string): 'silence' => {
  const bytes = Buffer.from(text);
  let at = 0;
  const next = (): void => {
    if (socket.destroyed || at >= bytes.length) return;
    socket.write(bytes.subarray(at, at + 1));
    at += 1;
    setImmediate(next);
  };
  next();
  return 'silence';
};

/** Devices that echo, mutate, refuse, flood and hang, under reading, listening, steering and snapshots at once. */
export async function attackByDevices(server: RunningServer, random: Random): Promise<void> {
  const login = loginOf(random);
  const echo = random.pick(echoesOf(login.user, login.secret));
  const good = healthy(echo.replace(/[<&]/g, ''));
  const kinds: Readonly<Record<string, Answer>> = {
    echoes: good,
    mutates: (asked, socket, port) => {
      const said = good(asked, socket, port);
      return random.once(3) && said !== null ? mutated(said, random).toString('latin1') : said;
    },
    refuses: (asked, socket, port) =>
      asked.operation.startsWith('GetS')
        ? good(asked, socket, port)
        : random.pick([
            http(faultOf('ter:NotAuthorized', echo), '', '400 Bad Request'),
            http('', '', random.pick(['401 No', '403 No', '423 No', '429 No', '500 No', '503 No'])),
            http(faultOf('wsse:FailedCheck', 'no'), '', '500 No'),
            http('', 'WWW-Authenticate: Digest realm="r", nonce="n", stale=true\r\n', '401 No'),
            http('', 'WWW-Authenticate: Basic realm="r"\r\n', '401 No'),
          ]),
    'many elements': (asked, socket, port) =>
      random.once(2) ? soap('<a/>'.repeat(120_000)) : good(asked, socket, port),
    'one byte at a time': (asked, socket, port) => inPieces(socket, String(good(asked, socket, port))),
    'deep elements': () => soap(`${'<a>'.repeat(20_000)}`),
    redirects: (_, __, port) => http('', `Location: http://127.0.0.1:${port + 1}/x\r\n`, '302 Found'),
    hangs: () => 'silence',
  };
  const name = random.pick(Object.keys(kinds));
  const device = await scriptedDevice(kinds[name] ?? good);
  const target = { host: '127.0.0.1', port: device.port, user: login.user, secret: login.secret };
  const startedMs = performance.now();
  const told = await Promise.all([
    post(server, 'onvif', target),
    post(server, 'hear', { ...target, seconds: 1 }),
    post(server, 'still', { ...target, path: `/still?x=${encodeURIComponent(echo).slice(0, 200)}` }),
    steer(server, target, random),
  ]);
  const tookS = (performance.now() - startedMs) / 1000;
  const pulls = device.requests.filter(({ operation }) => operation === 'PullMessages').length;
  const proofs = proofsOf(device);
  await device.close();
  const text = told
    .flatMap((answer) => answer.split('\n'))
    .filter((line) => !line.includes('"offeredLogin"'))
    .join('\n');
  const leak = leakIn(text, login.user, login.secret);
  if (leak !== null) throw new Found(`${name}: a password in what was told (${leak}): ${text.slice(0, 2000)}`);
  if (name === 'refuses' && proofs > MOST_UNACCEPTED)
    throw new Found(`${name}: ${proofs} logins that were not accepted`);
  if (pulls > 6 * tookS + 2) throw new Found(`${name}: ${pulls} pulls in ${tookS.toFixed(1)} s`);
  if (tookS > 28) throw new Found(`${name}: it went on for ${tookS.toFixed(0)} s`);
  await stands(server, `a device that ${name}`);
}

/** Ranges outside of the network that may be scanned, of others, and in other notations: nobody is called. */
export async function attackScans(server: RunningServer, random: Random): Promise<void> {
  const device = await scriptedDevice(() => null);
  const range = random.pick([
    '127.0.0.1',
    '127.0.1.1-127.0.2.1',
    '8.8.8.8',
    '10.0.0.1-10.200.0.1',
    '0x7f.1',
    '127.1',
    '::1',
    '192.168.0.0/16',
    ' ',
  ]);
  const within = random.pick(['127.0.1.0/24', '127.0.1.0/33', '127.0.1.0', 'x', '127.0.1.0/24 127.0.0.0/8']);
  const body = { range, within, ports: [device.port, 9100], rate: 100, timeoutMs: 200, discover: false };
  const answer = await post(server, 'scan', body);
  if (answer.includes('"kind":"began"') || device.requests.length > 0)
    throw new Found(`a scan of ${range} within ${within}: ${answer.slice(0, 300)}`);
  await device.close();
  await stands(server, 'scans');
}

/** Bodies that are nested deeper than a stack, have line ends where none belong, or are no JSON. */
export async function attackBodies(server: RunningServer, random: Random): Promise<void> {
  const depth = 100 + random.below(7000);
  const texts = [
    '['.repeat(depth),
    `${'['.repeat(depth)}${']'.repeat(depth)}`,
    `${'{"a":'.repeat(Math.floor(depth / 3))}1${'}'.repeat(Math.floor(depth / 3))}`,
    JSON.stringify({ host: '127.0.0.1', port: 1, path: '/x\r\nX: y', user: 'a\r\nb', secret: 's' }),
    JSON.stringify({ host: '127.0.0.1\r\n', port: 1, user: null, secret: null }),
  ];
  for (const work of ['probe', 'onvif', 'hear', 'still', 'sessions', 'scan']) {
    const answer = await fetch(`http://127.0.0.1:${server.port}/api/${work}`, {
      method: 'POST',
      headers: HEADERS,
      body: random.pick(texts),
    });
    if (answer.status !== 400) throw new Found(`/api/${work} answered ${answer.status} to a body that is none`);
    const text = await answer.text();
    if (/RangeError|at Object|node:internal/.test(text)) throw new Found(`a stack in an answer: ${text.slice(0, 500)}`);
  }
  await stands(server, 'deep bodies');
}
