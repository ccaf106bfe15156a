import { type ChildProcess, spawn } from 'node:child_process';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { writeEnvelope } from '../../src/core/onvif/operation.ts';
import { GET_TIME } from '../../src/core/onvif/services/device.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import { Logins } from '../../src/server/logins.ts';
import { runOnvif } from '../../src/server/works/run-onvif.ts';
import { type Figure, median, timed } from './measure.ts';

const AT_ONCE = 64;

interface Door {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
}

async function startDevice(bench: string): Promise<{ readonly door: Door; readonly child: ChildProcess }> {
  const child = spawn(process.execPath, [join(bench, 'onvif-source.mjs')], { stdio: ['ignore', 'pipe', 'inherit'] });
  const door = await new Promise<Door>((resolve, reject) => {
    let text = '';
    child.stdout.on('data', (chunk) => {
      text += chunk;
      if (text.includes('\n')) resolve(JSON.parse(text).onvif);
    });
    child.once('exit', () => reject(new Error('the device did not start')));
  });
  return { door, child };
}

/** One question and its answer over a kept connection, by the client that comes with Node: the time of a round trip. */
function roundTrip({ host, port }: Door, agent: Agent, body: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const asked = request({ host, port, agent, method: 'POST', path: '/onvif/device_service' }, (answer) => {
      answer.on('data', () => {});
      answer.on('end', resolve);
    });
    asked.on('error', reject);
    asked.end(body);
  });
}

/** Reading a device against the round trips that it takes, many at once against one, and what each holds. */
export async function onvifFigures(bench: string): Promise<readonly Figure[]> {
  const { door, child } = await startDevice(bench);
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  try {
    const world = {
      dialer: createTcpDialer({ allowPublic: false }),
      finder: {
        openDiscovery: () => Promise.reject(new Error('none')),
        neighbours: async () => '',
        ownNetworks: () => [],
      },
      clock: systemClock,
      entropy: systemEntropy,
      logins: new Logins(systemClock, systemEntropy),
    };
    const target = { ...door, credentials: { user: door.user, password: door.password }, timeoutMs: 5000 };
    const read = () => runOnvif(target, world, new AbortController().signal);
    const { answers, cause } = await read();
    if (cause !== null || answers < 12) throw new Error(`the device was not read: ${cause}, ${answers} answers`);
    const body = writeEnvelope({ operation: GET_TIME, inner: '', to: '', security: '' });
    const trips = async (): Promise<void> => {
      for (let trip = 0; trip < answers; trip++) await roundTrip(door, agent, body);
    };
    await trips(); // warm
    const peer = median(await timed(5, trips));
    const one = median(await timed(7, read));
    globalThis.gc?.();
    const held = (): number => process.memoryUsage().heapUsed + process.memoryUsage().external;
    const before = held();
    let most = before;
    const timer = setInterval(() => {
      most = Math.max(most, held());
    }, 10);
    const many = median(await timed(5, () => Promise.all(Array.from({ length: AT_ONCE }, read))));
    clearInterval(timer);
    return [
      {
        what: `reading a device by ONVIF, ${answers} answers`,
        value: one,
        unit: 'ms',
        against: peer,
        peer: 'as many round trips',
        limit: 1.2,
      },
      {
        what: `${AT_ONCE} devices read at once`,
        value: many,
        unit: 'ms',
        against: one,
        peer: 'one of them',
        limit: 1.5,
      },
      {
        what: 'memory of reading a device',
        value: (most - before) / AT_ONCE / 2 ** 20,
        unit: 'MiB',
        against: 8,
        peer: 'budget',
        limit: 1,
      },
    ];
  } finally {
    agent.destroy();
    child.kill();
  }
}
