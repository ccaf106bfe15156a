import type { CertificateSeen } from '../core/net/certificate.ts';
import type { ClientEffect, ClientInput } from '../core/rtsp/client-types.ts';
import {
  type Connection,
  type Dialer,
  DialFailure,
  type Limits,
  type LineHow,
  type ResolvedAddress,
  type UdpPair,
} from './ports.ts';
import type { Safely } from './safely.ts';
import { dialTunnel, type TunnelAsk } from './tunnel-line.ts';

export type LineEffect = Extract<ClientEffect, { kind: 'send' | 'openUdp' | 'sendDatagram' | 'close' }>;
export type LineInput = Extract<ClientInput, { kind: 'bytes' | 'closed' | 'udpOpened' | 'udpFailed' | 'datagram' }>;

interface LineOptions {
  readonly dialer: Dialer;
  readonly limits: Limits;
  readonly now: () => number;
  readonly put: (input: LineInput) => void;
  /** Every callback of a socket runs in it. */
  readonly safely: Safely;
  readonly how: LineHow;
  /** With what RTSP inside HTTP is asked for; `null` speaks it as it is. */
  readonly tunnel: TunnelAsk | null;
}

/** The way to one camera: its connection and the UDP ports opened for it. Closing it closes all of them at once. */
export class CameraLine {
  #connection: Connection | null = null;
  #address: ResolvedAddress | null = null;
  readonly #pairs = new Map<number, UdpPair>();
  #isClosed = false;
  /** Counts connections: what an old one still says is nobody's. */
  #dials = 0;
  #certificate: CertificateSeen | null = null;

  constructor(private readonly options: LineOptions) {}

  /** What the camera showed, where the line is encrypted. */
  get certificate(): CertificateSeen | null {
    return this.#certificate;
  }

  /** @throws DialFailure */
  resolve(host: string, port: number): Promise<ResolvedAddress> {
    return this.options.dialer.resolve(host, port, this.options.limits);
  }

  /** Connects to a resolved address, and to no other from then on; `false` when the line was closed meanwhile. */
  async dial(address: ResolvedAddress): Promise<boolean> {
    const { dialer, limits, now, put, safely, how, tunnel } = this.options;
    this.#address = address;
    this.#dials += 1;
    const own = this.#dials;
    const say = (input: () => LineInput): void =>
      safely(() => {
        if (own === this.#dials) put(input());
      });
    const events = {
      onData: (chunk: Uint8Array) => say(() => ({ kind: 'bytes', chunk, atMs: now() })),
      onEnd: () => say(() => ({ kind: 'closed', atMs: now() })),
    };
    const connection = await (tunnel
      ? dialTunnel(dialer, address, events, limits, { how, ask: { ...tunnel, cookie: `${tunnel.cookie}${own}` } })
      : dialer.dial(address, events, limits, how));
    this.#certificate = connection.certificate ?? null;
    if (this.#isClosed) connection.close();
    else this.#connection = connection;
    return !this.#isClosed;
  }

  /** Lets the connection go and opens another to the same address. @throws DialFailure */
  redial(): Promise<boolean> {
    const address = this.#address;
    this.#connection?.close();
    this.#connection = null;
    return address ? this.dial(address) : Promise.resolve(false);
  }

  carryOut(effect: LineEffect): void {
    switch (effect.kind) {
      case 'send':
        return this.#connection?.send(effect.bytes);
      case 'sendDatagram':
        return this.#pairs.get(effect.place)?.send(effect.isRtcp, effect.port, effect.bytes);
      case 'openUdp':
        return void this.#openUdp(effect.place);
      case 'close':
        return this.close();
    }
  }

  async #openUdp(place: number): Promise<void> {
    const { dialer, limits, now, put, safely } = this.options;
    if (!this.#address) return;
    let pair: UdpPair;
    try {
      const onDatagram = (isRtcp: boolean, chunk: Uint8Array): void =>
        safely(() => put({ kind: 'datagram', place, isRtcp, chunk, atMs: now() }));
      pair = await dialer.openUdp(this.#address, onDatagram, limits.signal);
    } catch (error) {
      const note = error instanceof DialFailure ? error.message : 'No UDP port could be opened on this computer.';
      return safely(() => put({ kind: 'udpFailed', note, atMs: now() }));
    }
    if (this.#isClosed) return pair.close();
    this.#pairs.get(place)?.close(); // of a track that was refused
    this.#pairs.set(place, pair);
    safely(() => put({ kind: 'udpOpened', ports: pair.ports, atMs: now() }));
  }

  close(): void {
    this.#isClosed = true;
    this.#connection?.close();
    for (const pair of this.#pairs.values()) pair.close();
    this.#pairs.clear();
  }
}
