import { type AddressInfo, connect, createServer } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import WebSocket from 'ws';
import { LIVE_PROTOCOL } from '../../src/contract/app-header.ts';
import type { Fleet } from '../../src/standins/fleet.ts';
import { listedDoor } from '../support/onvif-doors.ts';
import { startServer } from '../support/running-server.ts';
import { scriptedDevice, soap } from '../support/scripted-device.ts';
import type { Figure } from './measure.ts';

const STOPS = 20;

/** A line to a port that tells of each Stop when it comes by. */
async function listening(port: number, onStop: () => void) {
  const server = createServer((near) => {
    const far = connect(port, '127.0.0.1');
    for (const socket of [near, far])
      socket.on('error', () => socket.destroy()).on('close', () => (socket === near ? far : near).destroy());
    near.on('data', (chunk) => {
      if (/<(?:\w+:)?Stop[\s/>]/.test(chunk.toString('latin1'))) onStop();
      far.write(chunk);
    });
    far.on('data', (chunk) => near.write(chunk));
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { port: (server.address() as AddressInfo).port, close: () => server.close() }; // a TCP server's address is an object
}

/** How long a Stop takes from the page's word to the head's own line, while another device sends the worst that it can: the slowest of all. */
export async function stopFigure(fleet: Fleet): Promise<Figure> {
  const server = await startServer();
  const elements = soap('<a/>'.repeat(120_000));
  const hostile = await scriptedDevice(() => elements);
  let isOver = false;
  const read = async (port: number): Promise<void> => {
    while (!isOver) {
      const body = JSON.stringify({ host: '127.0.0.1', port, user: null, secret: null });
      const headers = { 'x-clear-tap': '1', 'content-type': 'application/json' };
      const answer = await fetch(`http://127.0.0.1:${server.port}/api/onvif`, { method: 'POST', headers, body });
      if (!answer.ok) throw new Error(`/api/onvif answered ${answer.status}`);
      await answer.text();
    }
  };
  const { port, user, password } = listedDoor(fleet, 'Sluice rail');
  let stopped: () => void = () => {};
  const line = await listening(port, () => stopped());
  const socket = new WebSocket(`ws://127.0.0.1:${server.port}/api/steer`, [LIVE_PROTOCOL]);
  try {
    const reading = read(hostile.port);
    await new Promise<void>((resolve, reject) => {
      socket.on('error', reject);
      socket.on('close', () => reject(new Error('the steering ended')));
      socket.on('message', (data) => String(data).includes('"ready"') && resolve());
      socket.on('open', () =>
        socket.send(JSON.stringify({ host: '127.0.0.1', port: line.port, user, secret: password })),
      );
    });
    const times: number[] = [];
    for (let number = 1; times.length < STOPS; number += 2) {
      socket.send(JSON.stringify({ number, order: { kind: 'run', velocity: { pan: 0.1, tilt: 0, zoom: 0 } } }));
      await wait(130 + 17 * (number % 7));
      const startedMs = performance.now();
      const came = new Promise<void>((resolve) => {
        stopped = resolve;
      });
      socket.send(JSON.stringify({ number: number + 1, order: { kind: 'rest' } }));
      await came;
      times.push(performance.now() - startedMs);
      await wait(200);
    }
    isOver = true;
    await reading;
    return {
      what: `a Stop, beside a device that sends 120,000 elements: the slowest of ${STOPS}`,
      value: Math.max(...times),
      unit: 'ms',
      against: 50,
      peer: 'budget',
      isFixedTime: true,
      limit: 1,
    };
  } finally {
    isOver = true;
    socket.removeAllListeners('close');
    socket.close();
    line.close();
    await hostile.close();
    server.process.kill('SIGTERM');
  }
}
