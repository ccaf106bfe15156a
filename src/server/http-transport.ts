import { setTimeout as wait } from 'node:timers/promises';
import type { HttpEffect, HttpInput } from '../core/machine/machine.ts';
import { createHttpPort } from './adapters/http-port.ts';
import { readAside } from './adapters/xml-thread.ts';
import type { Transport, TransportContext } from './drive.ts';
import { HttpFailure, type HttpPort } from './ports.ts';

const KINDS: ReadonlySet<string> = new Set(['ask', 'dropLine'] satisfies readonly HttpEffect['kind'][]);

interface Line {
  readonly port: HttpPort;
  readonly stop: AbortController;
}

/** The way to devices that are asked over HTTP, on lines that are kept open. */
export const toHttp = (context: TransportContext<HttpInput>): Transport<HttpEffect> => {
  const { world, now, put, safely } = context;
  const lines = new Map<string, Line>();
  let isClosed = false;
  const lineOf = (name: string): Line => {
    const known = lines.get(name);
    if (known) return known;
    const line = { port: createHttpPort(world.dialer), stop: new AbortController() };
    lines.set(name, line);
    return line;
  };
  const drop = (name: string): void => {
    const line = lines.get(name);
    lines.delete(name);
    line?.stop.abort();
    line?.port.close();
  };
  const ask = async ({
    exchange,
    line: name,
    request,
    timeoutMs,
    mostBytes,
    mayRepeat,
    afterMs,
  }: Extract<HttpEffect, { kind: 'ask' }>): Promise<void> => {
    const { port, stop } = lineOf(name);
    try {
      if (afterMs > 0) await wait(afterMs, undefined, { signal: stop.signal }).catch(() => {}); // cut off: the exchange says so
      const told = await port.exchange(request, { timeoutMs, mostBytes, mayRepeat, signal: stop.signal });
      const envelope = isClosed ? undefined : await readAside(told.answer);
      if (!isClosed)
        safely(() => put({ kind: 'responded', exchange, ...told, ...(envelope ? { envelope } : {}), atMs: now() }));
    } catch (error) {
      if (!(error instanceof HttpFailure)) return context.broken(error);
      const { httpCause: cause, message: note, certificate } = error;
      if (!isClosed) safely(() => put({ kind: 'failed', exchange, cause, note, certificate, atMs: now() }));
    }
  };
  return {
    kinds: KINDS,
    start: () => {},
    carryOut: (doing) => (doing.kind === 'ask' ? void ask(doing) : drop(doing.line)),
    close: () => {
      isClosed = true;
      for (const name of [...lines.keys()]) drop(name);
    },
  };
};
