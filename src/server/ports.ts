import type { HttpAnswer, HttpRequest } from '../core/http/http-message.ts';
import type { HttpCause } from '../core/machine/machine.ts';
import type { CertificateSeen } from '../core/net/certificate.ts';
import type { ProbeCause } from '../core/rtsp/exchange-types.ts';

// The outside world as the engine sees it. Adapters implement these; tests implement them too.

/** An open connection. `onData` and `onEnd` are called until `close`. */
export interface Connection {
  /** What the other end showed, where the line is encrypted. */
  readonly certificate?: CertificateSeen | null;
  send(bytes: Uint8Array): void;
  close(): void;
}

export interface ConnectionEvents {
  readonly onData: (chunk: Uint8Array) => void;
  /** The peer hung up or the connection broke; nothing follows. */
  readonly onEnd: () => void;
}

/** Why there is no connection. `note` says what happened, in plain words. */
export class DialFailure extends Error {
  override readonly name = 'DialFailure';
  constructor(
    readonly probeCause: ProbeCause,
    note: string,
  ) {
    super(note);
  }
}

export interface ResolvedAddress {
  readonly address: string;
  readonly port: number;
  /** What to say of it: the address a name led to. */
  readonly note: string | null;
}

/** Two local ports for one track: RTP on the even one, RTCP on the next. */
export interface UdpPair {
  readonly ports: readonly [number, number];
  send(isRtcp: boolean, port: number, bytes: Uint8Array): void;
  close(): void;
}

/** How a connection is to be made; plainly, unless said. */
export interface LineHow {
  /** With TLS; the name by which it was dialled goes with it. */
  readonly tlsHost: string | null;
  /**
   * What is handed on is taken before the next read: its bytes lie in one buffer that is filled again and again, and nothing is
   * copied. Else each piece is its taker's own.
   */
  readonly isReadAtOnce?: boolean;
}

/** Looks names up and opens connections. Everything that waits ends with its signal. */
export interface Dialer {
  resolve(host: string, port: number, limits: Limits): Promise<ResolvedAddress>;
  dial(address: ResolvedAddress, events: ConnectionEvents, limits: Limits, how?: LineHow): Promise<Connection>;
  /** Opens ports that hear one address and nobody else. Rejects with `DialFailure` when none are free. */
  openUdp(
    address: ResolvedAddress,
    onDatagram: (isRtcp: boolean, chunk: Uint8Array) => void,
    signal: AbortSignal,
  ): Promise<UdpPair>;
}

/** A socket that asks all who listen, and hears who answers. */
export interface Discovery {
  ask(bytes: Uint8Array): void;
  close(): void;
}

/** Finds who is there without knowing an address. */
export interface Finder {
  /** Where a question goes is its own affair: to a multicast group, or to the devices of a simulated network. */
  openDiscovery(onAnswer: (from: string, chunk: Uint8Array) => void): Promise<Discovery>;
  /** The system's table of neighbours, as it prints it. */
  neighbours(): Promise<string>;
  /** The IPv4 networks that this computer is in, as `address/prefix`. */
  ownNetworks(): readonly string[];
}

/** Why an exchange gave no whole answer. */
export class HttpFailure extends Error {
  override readonly name = 'HttpFailure';
  constructor(
    readonly httpCause: HttpCause,
    note: string,
    /** What the peer showed before that, where the line is encrypted. */
    readonly certificate: CertificateSeen | null = null,
  ) {
    super(note);
  }
}

export interface HttpTold {
  readonly answer: HttpAnswer;
  /** Answers that nobody had asked for, since the last exchange. */
  readonly extra: number;
  /** What the peer showed, where the line is encrypted. */
  readonly certificate: CertificateSeen | null;
}

/** One thing after the other over a connection that is kept open as long as the peer likes. */
export interface HttpPort {
  /** Rejects with `HttpFailure`. What is cut off by its signal, or by `close`, rejects too. */
  exchange(
    request: HttpRequest,
    limits: Limits & { readonly mostBytes: number; readonly mayRepeat: boolean },
  ): Promise<HttpTold>;
  close(): void;
}

export interface Limits {
  readonly timeoutMs: number;
  readonly signal: AbortSignal;
}

export interface Clock {
  /** For differences. */
  monotonicMs(): number;
  /** For display and for comparing with a camera's clock. */
  unixMs(): number;
}

export interface Entropy {
  hex(byteCount: number): string;
}
