import { setMaxListeners } from 'node:events';
import { parseArpTable } from '../core/net/arp-table.ts';
import type { ScanDoing, ScanInput } from '../core/scan/scan-types.ts';
import type { Transport, TransportContext } from './drive.ts';
import { type Connection, DialFailure, type Discovery } from './ports.ts';

type DoorInput = Exclude<ScanInput, { kind: 'timer' | 'broken' | 'cancel' }>;

const KINDS: ReadonlySet<string> = new Set([
  'call',
  'tell',
  'hangUp',
  'askAll',
  'askNeighbours',
] satisfies readonly ScanDoing['kind'][]);

/** The way to many doors at once, each called for itself, and to whoever listens for a question to all. */
export const toDoors = (context: TransportContext<DoorInput>): Transport<ScanDoing> => {
  const { world, now, put, safely } = context;
  const open = new Map<number, Connection>();
  // dials that are under way end with it; each is cut off by itself when it is closed
  const stop = new AbortController();
  setMaxListeners(0, stop.signal); // each dial listens to it, and there are many at once
  let discovery: Promise<Discovery | null> | null = null;
  let isClosed = false;
  const say = (input: () => DoorInput): void => safely(() => !isClosed && put(input()));

  const call = async ({ door, host, port, timeoutMs }: Extract<ScanDoing, { kind: 'call' }>): Promise<void> => {
    const limits = { timeoutMs, signal: stop.signal };
    const events = {
      onData: (chunk: Uint8Array) => say(() => ({ kind: 'heard', door, chunk, atMs: now() })),
      onEnd: () => say(() => ({ kind: 'hungUp', door, atMs: now() })),
    };
    try {
      const address = await world.dialer.resolve(host, port, limits);
      const connection = await world.dialer.dial(address, events, limits);
      if (isClosed) return connection.close();
      open.set(door, connection);
      say(() => ({ kind: 'opened', door, atMs: now() }));
    } catch (error) {
      if (!(error instanceof DialFailure)) return context.broken(error);
      say(() => ({ kind: 'shut', door, cause: error.probeCause, atMs: now() }));
    }
  };
  const hangUp = (door: number): void => {
    open.get(door)?.close();
    open.delete(door);
  };
  const askAll = async (bytes: Uint8Array): Promise<void> => {
    discovery ??= world.finder
      .openDiscovery((from, chunk) => say(() => ({ kind: 'answered', from, chunk, atMs: now() })))
      .catch((error: unknown) => {
        const note = error instanceof DialFailure ? error.message : 'No socket could be opened for WS-Discovery.';
        say(() => ({ kind: 'cannotAsk', note, atMs: now() }));
        return null;
      });
    const asking = await discovery;
    if (isClosed) asking?.close();
    else asking?.ask(bytes);
  };
  const askNeighbours = async (): Promise<void> => {
    // a system without such a table has no MAC addresses to tell
    const text = await world.finder.neighbours().catch(() => '');
    say(() => ({ kind: 'neighbours', table: parseArpTable(text), atMs: now() }));
  };
  return {
    kinds: KINDS,
    start: () => {},
    carryOut: (doing) => {
      switch (doing.kind) {
        case 'call':
          return void call(doing);
        case 'tell':
          return open.get(doing.door)?.send(doing.bytes);
        case 'hangUp':
          return hangUp(doing.door);
        case 'askAll':
          return void askAll(doing.bytes);
        case 'askNeighbours':
          return void askNeighbours();
      }
    },
    close: () => {
      isClosed = true;
      stop.abort();
      for (const door of [...open.keys()]) hangUp(door);
      void discovery?.then((asking) => asking?.close());
    },
  };
};
