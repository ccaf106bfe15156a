import type { World } from './drive.ts';
import type { ResolvedAddress } from './ports.ts';

/** More names than one piece of work asks for, but for a sweep, which goes by addresses. */
const MOST_NAMES = 64;

/**
 * The same world for one piece of work: a name that was looked up leads to that address until the work is done, so that what was
 * judged, what was logged in at and what is connected to is one host.
 */
export function pinned(world: World): World {
  const { dialer, logins } = world;
  const known = new Map<string, ResolvedAddress>();
  return {
    ...world,
    dialer: {
      resolve: async (host, port, limits) => {
        const before = known.get(host.toLowerCase());
        if (before) return { ...before, port };
        const address = await dialer.resolve(host, port, limits);
        logins.noteAddress(host.toLowerCase(), address.address);
        if (address.note !== null && known.size < MOST_NAMES) known.set(host.toLowerCase(), address);
        return address;
      },
      dial: (address, events, limits, how) => dialer.dial(address, events, limits, how),
      openUdp: (address, onDatagram, signal) => dialer.openUdp(address, onDatagram, signal),
    },
  };
}
