import { type ChildProcess, spawn } from 'node:child_process';
import { connect, type Socket } from 'node:net';
import { fileURLToPath } from 'node:url';

const SERVER = fileURLToPath(new URL('../../dist/node/server.mjs', import.meta.url));

export interface RunningServer {
  readonly process: ChildProcess;
  readonly port: number;
  /** Everything it said on both outputs. */
  readonly said: () => string;
  /** Resolves with its exit code. */
  readonly ended: Promise<number | null>;
}

/** The server as it is shipped, on a free port unless the arguments name one. */
export async function startServer(...args: readonly string[]): Promise<RunningServer> {
  const child = spawn(process.execPath, [SERVER, ...(args.includes('--port') ? [] : ['--port', '0']), ...args]);
  let said = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const port = await new Promise<number>((resolve, reject) => {
    const take = (chunk: Buffer): void => {
      said += chunk.toString();
      const found = /Clear Tap: http:\/\/\S+?:(\d+)\//.exec(said);
      if (found) resolve(Number(found[1]));
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.once('exit', () => reject(new Error(said)));
  });
  return { process: child, port, said: () => said, ended };
}

/** Sends bytes as they are, and resolves with all that came back when the server closed, or with what came in time. */
export function sayRaw(
  port: number,
  text: string,
  { afterMs = 2000, once }: { readonly afterMs?: number; readonly once?: (socket: Socket) => void } = {},
): Promise<{ readonly answer: string; readonly isClosed: boolean }> {
  return new Promise((resolve) => {
    const socket = connect({ port, host: '127.0.0.1', allowHalfOpen: true });
    let answer = '';
    const timer = setTimeout(() => {
      resolve({ answer, isClosed: false });
      socket.destroy();
    }, afterMs);
    const end = (): void => {
      clearTimeout(timer);
      resolve({ answer, isClosed: true });
      socket.destroy();
    };
    for (const event of ['error', 'end', 'close']) socket.on(event, end);
    socket.on('data', (chunk) => {
      answer += chunk;
    });
    socket.on('connect', () => {
      socket.write(text);
      once?.(socket);
    });
  });
}

export const upgrade = (target: string, port: number, more: readonly string[] = []): string =>
  [
    `GET ${target} HTTP/1.1`,
    `Host: 127.0.0.1:${port}`,
    'Connection: Upgrade',
    'Upgrade: websocket',
    'Sec-WebSocket-Version: 13',
    'Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==',
    ...more,
    '',
    '',
  ].join('\r\n');
