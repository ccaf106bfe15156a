import { once } from 'node:events';
import { Agent, get, type Server } from 'node:http';
import { type AddressInfo, connect, type Socket } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createBoundedServer } from '../../src/server/listening.ts';

// A browser connects before it has a question, and asks over whichever connection it kept.

const PATIENCE = { headersMs: 250, requestMs: 500, checkMs: 50 };
/** Past every limit, and looked over several times since. */
const LONG_IDLE_MS = 900;

let server: Server;
let port: number;
beforeAll(async () => {
  server = createBoundedServer((_, response) => response.end('here'), PATIENCE);
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  port = (server.address() as AddressInfo).port;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

/** A connection, and all that comes over it. */
function open(): { readonly socket: Socket; readonly heard: () => string } {
  const socket = connect(port, '127.0.0.1');
  let heard = '';
  socket.on('error', () => {});
  socket.on('data', (chunk) => {
    heard += chunk;
  });
  return { socket, heard: () => heard };
}
const QUESTION = 'GET /api/info HTTP/1.1\r\nHost: 127.0.0.1\r\n';

test('a connection that waits past every limit hears nothing, whatever is asked over it then', async () => {
  const { socket, heard } = open();
  await pause(LONG_IDLE_MS);
  expect(heard()).toBe('');
  socket.write(`${QUESTION}\r\n`); // closed meanwhile: a browser asks again over another
  await pause(100);
  expect(heard()).toBe('');
  expect(socket.destroyed).toBe(true);
});

test('asked in time it answers, and between two questions it may rest as long as it is kept', async () => {
  const { socket, heard } = open();
  await pause(PATIENCE.headersMs / 2);
  socket.write(`${QUESTION}\r\n`);
  await pause(LONG_IDLE_MS);
  socket.write(`${QUESTION}\r\n`);
  await pause(100);
  expect(heard().match(/HTTP\/1\.1 \d+/g)).toEqual(['HTTP/1.1 200', 'HTTP/1.1 200']);
  socket.destroy();
});

test('no question of a client that keeps its connections fails, however long it rested', async () => {
  const agent = new Agent({ keepAlive: true, maxSockets: 6 });
  const idle = Array.from({ length: 8 }, open);
  const ask = (): Promise<number> =>
    new Promise((resolve, reject) =>
      get({ port, host: '127.0.0.1', agent }, (response) => {
        response.resume();
        response.on('end', () => resolve(response.statusCode ?? 0));
      }).on('error', reject),
    );
  for (const restMs of [0, PATIENCE.headersMs + 20, LONG_IDLE_MS]) {
    await pause(restMs);
    expect(await Promise.all(Array.from({ length: 6 }, ask))).toEqual([200, 200, 200, 200, 200, 200]);
  }
  expect(idle.map(({ heard }) => heard())).toEqual(idle.map(() => ''));
  agent.destroy();
});

test.each([
  { what: 'a question that does not come whole', sent: QUESTION, answer: '408 Request Timeout' },
  { what: 'no question at all', sent: '\u0000\u0001 what\r\n\r\n', answer: '400 Bad Request' },
  {
    what: 'a head without end',
    sent: `${QUESTION}X: ${'x'.repeat(20_000)}\r\n\r\n`,
    answer: '431 Request Header Fields Too Large',
  },
])('$what is answered $answer', async ({ sent, answer }) => {
  const { socket, heard } = open();
  socket.write(sent);
  for (let waited = 0; waited < 2000 && heard() === ''; waited += 20) await pause(20);
  expect(heard().split('\r\n', 1)).toEqual([`HTTP/1.1 ${answer}`]);
  socket.destroy();
});
