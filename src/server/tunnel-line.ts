import { ByteQueue } from '../core/base/byte-queue.ts';
import { bytesOf } from '../core/base/bytes.ts';
import { readTunnelAnswer, tunnelGet, tunnelled, tunnelPost } from '../core/rtsp/http-tunnel.ts';
import { guardedBy } from './last-guard.ts';
import {
  type Connection,
  type ConnectionEvents,
  type Dialer,
  DialFailure,
  type Limits,
  type LineHow,
  type ResolvedAddress,
} from './ports.ts';

export interface TunnelAsk {
  readonly path: string;
  readonly host: string;
  readonly cookie: string;
  readonly userAgent: string;
}

/** A call that is answered once: what comes first is waited for, what comes after goes on. */
class TunnelReader {
  readonly #came = new ByteQueue();
  #settle: ((end: 'bytes' | 'ended') => void) | null = null;
  #onward: ConnectionEvents | null = null;
  #hasEnded = false;

  readonly events: ConnectionEvents = {
    onData: (chunk) => {
      if (this.#onward) return this.#onward.onData(chunk);
      this.#came.append(chunk);
      this.#came.own();
      this.#settle?.('bytes');
    },
    onEnd: () => {
      this.#hasEnded = true;
      this.#onward?.onEnd();
      this.#settle?.('ended');
    },
  };

  get came(): Uint8Array {
    return this.#came.peek(this.#came.length);
  }
  next(): Promise<'bytes' | 'ended'> {
    if (this.#hasEnded) return Promise.resolve('ended');
    return new Promise((resolve) => {
      this.#settle = resolve;
    });
  }
  goOn(events: ConnectionEvents, rest: Uint8Array): void {
    this.#onward = events;
    if (rest.length > 0) events.onData(rest);
    if (this.#hasEnded) events.onEnd();
  }
}

/** Rejects when the time is over, or whoever asked went away. */
function lateOr<T>(work: Promise<T>, { timeoutMs, signal }: Limits, note: string): Promise<T> {
  return new Promise((resolve, reject) => {
    const stop = (): void => reject(new DialFailure('timeout', note));
    const timer = setTimeout(stop, timeoutMs);
    signal.addEventListener('abort', stop, { once: true });
    work.then(resolve, reject).finally(() => {
      clearTimeout(timer);
      signal.removeEventListener('abort', stop);
    });
  });
}

/**
 * Opens RTSP inside HTTP: one connection on which the device is heard, one on which it is spoken to. When either ends, both do.
 * Rejects with `DialFailure`.
 */
export async function dialTunnel(
  dialer: Dialer,
  address: ResolvedAddress,
  events: ConnectionEvents,
  limits: Limits,
  { how, ask }: { readonly how: LineHow; readonly ask: TunnelAsk },
): Promise<Connection> {
  const hearing = new TunnelReader();
  const heard = await dialer.dial(address, hearing.events, limits, how);
  try {
    heard.send(bytesOf(tunnelGet(ask)));
    const rest = await lateOr(
      opened(hearing),
      limits,
      `Asked for RTSP over HTTP, it did not answer in ${limits.timeoutMs / 1000} s.`,
    );
    let isOver = false;
    const over = (): void => {
      if (isOver) return;
      isOver = true;
      heard.close();
      spoken.close();
      events.onEnd();
    };
    const spoken = await dialer.dial(address, { onData: () => {}, onEnd: over }, limits, how);
    spoken.send(bytesOf(tunnelPost(ask)));
    // what came with the answer is handed on once whoever dialled has the connection
    queueMicrotask(guardedBy(limits.signal)(() => hearing.goOn({ onData: events.onData, onEnd: over }, rest)));
    return {
      send: (bytes) => spoken.send(bytesOf(tunnelled(bytes))),
      close: () => {
        isOver = true;
        spoken.close();
        heard.close();
      },
      certificate: heard.certificate ?? null,
    };
  } catch (error) {
    heard.close();
    throw error;
  }
}

async function opened(hearing: TunnelReader): Promise<Uint8Array> {
  for (;;) {
    const end = await hearing.next();
    const answer = readTunnelAnswer(hearing.came);
    if (answer.kind === 'open') return answer.rest;
    if (answer.kind === 'refused') throw new DialFailure('not-rtsp', answer.note);
    if (end === 'ended') throw new DialFailure('closed', 'Asked for RTSP over HTTP, it closed the connection.');
  }
}
