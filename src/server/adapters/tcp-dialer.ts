import { lookup } from 'node:dns/promises';
import { connect, isIP, type Socket } from 'node:net';
import type { CertificateSeen } from '../../core/net/certificate.ts';
import type { ProbeCause } from '../../core/rtsp/exchange-types.ts';
import { guardedBy } from '../last-guard.ts';
import {
  type Connection,
  type ConnectionEvents,
  type Dialer,
  DialFailure,
  type Limits,
  type LineHow,
  type ResolvedAddress,
} from '../ports.ts';
import { mayDial } from './address-policy.ts';
import { secure } from './tls-line.ts';
import { openUdpPair } from './udp-pair.ts';

/** What the operating system's error codes mean to the person. */
const ERRNO_CAUSES: Readonly<Record<string, { cause: ProbeCause; note: string }>> = {
  ECONNREFUSED: { cause: 'refused', note: 'refused the connection: nothing listens there' },
  ECONNRESET: { cause: 'closed', note: 'closed the connection' },
  EPIPE: { cause: 'closed', note: 'closed the connection' },
  EHOSTUNREACH: { cause: 'unreachable', note: 'cannot be reached from this network' },
  ENETUNREACH: { cause: 'unreachable', note: 'is in a network that this computer has no route to' },
  EHOSTDOWN: { cause: 'unreachable', note: 'is down' },
  EADDRNOTAVAIL: { cause: 'unreachable', note: 'is not an address that can be dialled' },
  EACCES: { cause: 'unreachable', note: 'is blocked by this computer' },
  ETIMEDOUT: { cause: 'timeout', note: 'did not respond in time' },
};

/** Asked by shape, not by class: an error from another realm is still one. */
const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error && typeof error.code === 'string' ? error.code : '';

/** Runs work that cannot be aborted itself, but stops waiting for it at the limit or when the caller cancels. */
async function within<T>(work: Promise<T>, { timeoutMs, signal }: Limits, late: () => DialFailure): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  let onAbort: (() => void) | undefined;
  const stopped = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(late()), timeoutMs);
    onAbort = () => reject(late());
    signal.addEventListener('abort', onAbort, { once: true });
  });
  try {
    return await Promise.race([work, stopped]);
  } finally {
    clearTimeout(timer);
    if (onAbort) signal.removeEventListener('abort', onAbort);
  }
}

/** How long a closing connection may take to send what was said last. */
const LAST_WORD_MS = 500;

/** What the system hands over at most in one read. */
const READ_BUFFER_BYTES = 64 * 1024;

export interface TcpDialerOptions {
  readonly allowPublic: boolean;
  /** Asks for the address of a name; the system's own way unless another is given. */
  readonly lookUpName?: (host: string) => Promise<string>;
}

/** Dials real sockets. The policy is asked about the resolved address, and that very address is connected to. */
export function createTcpDialer({ allowPublic, lookUpName = systemLookUp }: TcpDialerOptions): Dialer {
  return {
    async resolve(host, port, limits): Promise<ResolvedAddress> {
      const isLiteral = isIP(host) !== 0;
      const address = isLiteral ? host : await lookUp(lookUpName(host), host, limits);
      if (!mayDial(address, allowPublic))
        throw new DialFailure(
          'blocked-by-policy',
          `${isLiteral ? host : `${host} (${address})`} is a public or special address; it was not dialled.`,
        );
      return { address, port, note: isLiteral ? null : address };
    },
    dial: ({ address, port }, events, limits, how) => dialTcp(address, port, events, limits, how),
    openUdp: ({ address }, onDatagram, signal) => openUdpPair(address, onDatagram, signal),
  };
}

const systemLookUp = async (host: string): Promise<string> => (await lookup(host)).address;

async function lookUp(answer: Promise<string>, host: string, limits: Limits): Promise<string> {
  try {
    const late = () => new DialFailure('unresolved-host', `No DNS server answered for ${host} in time.`);
    return await within(answer, limits, late);
  } catch (error) {
    if (error instanceof DialFailure) throw error;
    throw new DialFailure('unresolved-host', `The host name ${host} does not resolve.`);
  }
}

const PLAIN: LineHow = { tlsHost: null };

/** What the codes of TLS mean to the person. */
const TLS_NOTES: Readonly<Record<string, string>> = {
  ERR_SSL_WRONG_VERSION_NUMBER: 'does not speak TLS',
  ERR_SSL_PACKET_LENGTH_TOO_LONG: 'does not speak TLS',
  ERR_SSL_HTTP_REQUEST: 'does not speak TLS',
  ERR_SSL_EXCESSIVE_MESSAGE_SIZE: 'sent certificates larger than any device’s',
  ERR_SSL_UNSUPPORTED_PROTOCOL: 'speaks a TLS version older than any in use',
  ECONNRESET: 'closed the connection during the TLS handshake',
};

/** Of these, what says that the other end speaks no TLS at all: an alert would be TLS. */
const NOT_TLS: ReadonlySet<string> = new Set([
  'ERR_SSL_WRONG_VERSION_NUMBER',
  'ERR_SSL_PACKET_LENGTH_TOO_LONG',
  'ERR_SSL_HTTP_REQUEST',
]);

export function dialTcp(
  address: string,
  port: number,
  events: ConnectionEvents,
  { timeoutMs, signal }: Limits,
  { tlsHost, isReadAtOnce = false }: LineHow = PLAIN,
): Promise<Connection> {
  return new Promise((resolve, reject) => {
    const guarded = guardedBy(signal);
    // One buffer for every read: a fresh one each would cost more than all that is done with its bytes.
    const take = guarded((byteCount: number, buffer: Uint8Array) => {
      if (hasEnded) return;
      const piece = buffer.subarray(0, byteCount);
      events.onData(isReadAtOnce ? piece : Buffer.from(piece)); // from the pool, unlike slice()
    });
    const callback = (byteCount: number, buffer: Uint8Array): boolean => {
      take(byteCount, buffer);
      return true; // and goes on reading
    };
    const onread = { buffer: new Uint8Array(READ_BUFFER_BYTES), callback };
    // what TLS takes apart comes from there
    const socket = connect({ host: address, port, noDelay: true, ...(tlsHost === null ? { onread } : {}) });
    const failed = (error: unknown): void => {
      const known = ERRNO_CAUSES[codeOf(error)];
      fail(
        known?.cause ?? 'unreachable',
        `${address}:${port} ${known?.note ?? `could not be dialled (${codeOf(error)})`}.`,
      );
    };
    socket.on('error', guarded(failed));
    let isOpen = false;
    let isShakingHands = false;
    /** What is written to: the line inside TLS, where there is one. */
    let outer: Socket = socket;
    let hasEnded = false;
    const end = (): void => {
      if (hasEnded) return;
      hasEnded = true;
      clearTimeout(timer);
      signal.removeEventListener('abort', abort);
      socket.destroy();
    };
    /** What was said last still goes out, unless the peer takes nothing any more. */
    const close = (): void => {
      if (hasEnded) return;
      hasEnded = true;
      outer.destroySoon();
      const cutOff = setTimeout(() => socket.destroy(), LAST_WORD_MS);
      socket.once('close', () => clearTimeout(cutOff));
    };
    const fail = (cause: ProbeCause, note: string): void => {
      if (isOpen) {
        if (!hasEnded) events.onEnd();
      } else reject(new DialFailure(cause, note));
      end();
    };
    const abort = guarded(() => fail('closed', 'Cancelled.'));
    const late = guarded(() => {
      if (isOpen) return;
      const what = isShakingHands
        ? 'accepted the connection, and the TLS handshake did not complete'
        : 'did not respond';
      fail('timeout', `${address}:${port} ${what} in ${timeoutMs / 1000} s.`);
    });
    const timer = setTimeout(late, timeoutMs);
    signal.addEventListener('abort', abort, { once: true });
    if (signal.aborted) abort();
    const opened = (line: Socket, certificate: CertificateSeen | null): void => {
      isOpen = true;
      outer = line;
      clearTimeout(timer);
      signal.removeEventListener('abort', abort); // from here on who asked for it says when it is over
      resolve({ send: (bytes) => void (line.writable && line.write(bytes)), close, certificate });
    };
    const connected = (): void => {
      if (tlsHost === null) return opened(socket, null);
      isShakingHands = true;
      const tlsFailed = (code: string): void => {
        if (!isOpen)
          fail(
            NOT_TLS.has(code) ? 'not-tls' : 'tls-failed',
            `${address}:${port} ${TLS_NOTES[code] ?? (code.includes('ALERT') ? `speaks TLS and refused it (${code})` : `ended the TLS handshake (${code || 'without a message'})`)}.`,
          );
        else fail('closed', '');
      };
      const ready = (line: Socket, certificate: CertificateSeen | null): void => {
        if (hasEnded) return;
        line.on(
          'data',
          guarded((chunk: Uint8Array) => {
            if (!hasEnded) events.onData(chunk);
          }),
        );
        opened(line, certificate);
      };
      secure(socket, tlsHost, guarded, ready, tlsFailed);
    };
    const hungUp = (): void =>
      isShakingHands && !isOpen
        ? fail('tls-failed', `${address}:${port} closed the connection during the TLS handshake.`)
        : fail('closed', `${address}:${port} closed the connection.`);
    socket.once('connect', guarded(connected));
    socket.on('close', guarded(hungUp));
  });
}
