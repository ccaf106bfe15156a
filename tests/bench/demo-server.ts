import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';

/** The demo as it is delivered, on a port of its own, and where it answers. */
export async function startDemo(root: string): Promise<{ readonly server: ChildProcess; readonly address: string }> {
  const server = spawn(process.execPath, [join(root, 'dist/node/server.mjs'), '--demo', '--port', '0']);
  for await (const line of createInterface(server.stdout)) {
    const address = /http:\/\/[^\s/]+/.exec(line)?.[0];
    if (address) return { server, address };
  }
  throw new Error('the demo ended before it said where it answers');
}
