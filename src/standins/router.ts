import { parseIpv4, sayIpv4 } from '../core/net/ipv4.ts';
import type { Plug } from './personality.ts';

/** Somebody in the simulated network. */
export interface Member {
  readonly name: string;
  readonly plug: Plug;
  /** The address that it has when the demo begins. */
  readonly host: string;
}

export interface Reservation {
  readonly mac: string;
  readonly ip: string;
  readonly name: string;
}

export interface Lease extends Reservation {
  /** Unix time, s. */
  readonly expires: number;
}

interface Joined {
  readonly member: Member;
  mac: string;
  host: string;
}

interface RouterOptions {
  readonly pool: { readonly from: string; readonly to: string };
  readonly reservations: readonly Reservation[];
  readonly members: readonly Member[];
  readonly nowMs: () => number;
}

const LEASE_S = 12 * 3600;

/** Hands out addresses, and forgets all that are not reserved when the power fails. */
export class SimulatedRouter {
  readonly #joined: readonly Joined[];
  #reservations: readonly Reservation[];
  /** Where the next free address is looked for: after a power cut it goes on, so that nobody comes back where he was. */
  #next: number;
  #cuts = 0;

  constructor(private readonly options: RouterOptions) {
    this.#joined = options.members.map((member) => ({ member, mac: member.plug.mac, host: member.host }));
    this.#reservations = options.reservations;
    this.#next = (parseIpv4(options.pool.from) ?? 0) + 30;
  }

  get reservations(): readonly Reservation[] {
    return this.#reservations;
  }
  /** Who is where now. */
  get joined(): readonly { readonly name: string; readonly host: string; readonly mac: string }[] {
    return this.#joined.map(({ member, host, mac }) => ({ name: member.name, host, mac }));
  }
  hostOf(name: string): string | null {
    return this.#joined.find(({ member }) => member.name === name)?.host ?? null;
  }

  /** Addresses with a lease: of those set on the devices themselves, it knows nothing. */
  get leases(): readonly Lease[] {
    const expires = Math.floor(this.options.nowMs() / 1000) + LEASE_S;
    return this.#joined.flatMap(({ member, host, mac }) =>
      member.plug.address === 'asks'
        ? { mac, ip: host, name: member.name.toLowerCase().replaceAll(' ', '-'), expires }
        : [],
    );
  }

  /** The same as its lease file: when it ends, for whom, at which address, by which name. Source: dnsmasq(8), lease file. */
  leaseFile(): string {
    return this.leases.map(({ expires, mac, ip, name }) => `${expires} ${mac} ${ip} ${name} *\n`).join('');
  }

  /** Takes the place of all that were reserved; who is there keeps the address until it joins anew. */
  reserve(reservations: readonly Reservation[]): void {
    this.#reservations = reservations;
  }

  /** The power fails and comes back: whoever asks for an address gets the one reserved for it, or the next that is free. */
  cutPower(): void {
    this.#cuts += 1;
    const asking = this.#joined.filter(({ member }) => member.plug.address === 'asks');
    for (const one of asking)
      if (one.member.plug.isRandom)
        one.mac = `${one.member.plug.mac.slice(0, 12)}${this.#cuts.toString(16).padStart(2, '0')}:${one.member.plug.mac.slice(15)}`;
    const reservedFor = (mac: string): string | undefined => this.#reservations.find((one) => one.mac === mac)?.ip;
    const taken = new Set([
      ...this.#joined.filter((one) => !asking.includes(one)).map(({ host }) => host),
      ...this.#reservations.map(({ ip }) => ip),
      ...asking.map(({ host }) => host),
    ]);
    for (const one of asking) {
      const host = reservedFor(one.mac) ?? this.#nextFree(taken);
      taken.add(host);
      one.host = host;
    }
  }

  #nextFree(taken: ReadonlySet<string>): string {
    const { pool } = this.options;
    const [from, to] = [parseIpv4(pool.from) ?? 0, parseIpv4(pool.to) ?? 0];
    for (let tried = from; tried <= to; tried++) {
      this.#next = this.#next >= to ? from : this.#next + 1;
      if (!taken.has(sayIpv4(this.#next))) return sayIpv4(this.#next);
    }
    throw new RangeError(`pool: no address of ${pool.from} to ${pool.to} is free`);
  }
}
