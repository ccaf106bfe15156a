import { isNoMac, parseMac } from '../net/mac.ts';
import { isSameAddress } from '../net/same-address.ts';
import type { DiscoveredDevice } from '../onvif/discovery.ts';
import { said } from './http-answer.ts';
import { SEEN_LIMITS, type SeenDoor, type SeenHost, unknownHost } from './seen.ts';

/** More addresses than any house has: what answers beyond them is counted and not kept. */
export const MOST_HOSTS = 2048;

/** What a sweep has seen so far, by address. What is told of one again only adds to it. */
export class SeenHosts {
  readonly #hosts = new Map<string, SeenHost>();
  readonly #strangers = new Set<string>();
  #leftOut = 0;

  /** Addresses that answered beyond what is kept; each counts once as far as they are remembered. */
  get leftOut(): number {
    return this.#leftOut;
  }
  get all(): readonly SeenHost[] {
    return [...this.#hosts.values()];
  }

  /** Changes what is known of a host, and gives it when that is more than before. */
  #put(host: string, change: (before: SeenHost) => SeenHost): SeenHost | null {
    const before = this.#hosts.get(host);
    if (!before && this.#hosts.size >= MOST_HOSTS) {
      if (this.#strangers.size < MOST_HOSTS && !this.#strangers.has(host)) this.#strangers.add(host);
      else if (this.#strangers.has(host)) return null;
      this.#leftOut += 1;
      return null;
    }
    const after = change(before ?? unknownHost(host));
    if (before && after === before) return null;
    this.#hosts.set(host, after);
    return after;
  }

  /** Somebody is there: a call was taken or refused. */
  alive(host: string): SeenHost | null {
    return this.#put(host, (before) => before);
  }

  door(host: string, door: SeenDoor): SeenHost | null {
    return this.#put(host, (before) => {
      const others = before.doors.filter(({ port }) => port !== door.port);
      if (others.length >= SEEN_LIMITS.doors) return before;
      return { ...before, doors: [...others, door].sort((a, b) => a.port - b.port) };
    });
  }

  /** A device that answered by multicast, from this address. */
  device(host: string, { endpoint, scopes, addresses }: DiscoveredDevice): SeenHost | null {
    const own = addresses.find((one) => isSameAddress(one.host, host));
    const elsewhere = addresses.filter((one) => !isSameAddress(one.host, host)).map((one) => said(one.host));
    return this.#put(host, (before) => {
      const port = own?.port;
      const known = before.doors.find((door) => door.port === port);
      const after: SeenHost = {
        ...before,
        endpoints: [...new Set([...before.endpoints, endpoint])].slice(0, SEEN_LIMITS.endpoints),
        name: before.name || scopes.name,
        hardware: before.hardware || scopes.hardware,
        serial: before.serial || scopes.serial,
        mac: before.mac || scopes.mac,
        alsoAt: [...new Set([...before.alsoAt, ...elsewhere])].slice(0, SEEN_LIMITS.alsoAt),
        doors:
          port === undefined || known?.is === 'onvif'
            ? before.doors
            : [
                ...before.doors.filter((door) => door !== known),
                { port, is: 'onvif' as const, server: known?.server ?? '', title: known?.title ?? '', isSlow: false },
              ]
                .slice(-SEEN_LIMITS.doors)
                .sort((a, b) => a.port - b.port),
      };
      return JSON.stringify(after) === JSON.stringify(before) ? before : after;
    });
  }

  /** What the table of neighbours says counts before what a device says of itself. Silent hosts of the range count as there. */
  neighbour(host: string, mac: string): SeenHost | null {
    const read = parseMac(mac);
    if (!read || isNoMac(read.mac)) return null;
    return this.#put(host, (before) => (before.mac === read.mac ? before : { ...before, mac: read.mac }));
  }

  /** It took every call that was made. */
  answersAll(host: string): SeenHost | null {
    return this.#put(host, (before) => (before.answersAll ? before : { ...before, answersAll: true }));
  }
}
