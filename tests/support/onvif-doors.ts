import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import type { World } from '../../src/server/drive.ts';
import { Logins } from '../../src/server/logins.ts';
import type { OnvifTarget } from '../../src/server/works/run-onvif.ts';
import { type Fleet, fleetListing } from '../../src/standins/fleet.ts';

/** This computer, without a network to ask around in. */
export const plainWorld: World = {
  dialer: createTcpDialer({ allowPublic: false }),
  finder: {
    openDiscovery: () => Promise.reject(new Error('no discovery')),
    neighbours: async () => '',
    ownNetworks: () => [],
  },
  clock: systemClock,
  entropy: systemEntropy,
  logins: new Logins(systemClock, systemEntropy),
};

/** How the listing gives the ONVIF door of a stand-in. */
export function listedDoor(fleet: Fleet, name: string) {
  const found = fleetListing(fleet).devices.find((device) => device.name === name);
  if (!found || !('onvif' in found) || !found.onvif) throw new Error(`${name} speaks no ONVIF`);
  return found.onvif;
}

/** The same as one talks to it; with another secret, if one is given. */
export function doorOf(fleet: Fleet, name: string, secret?: string): OnvifTarget {
  const { host, port, user, password } = listedDoor(fleet, name);
  return { host, port, credentials: user === null ? null : { user, password: secret ?? password ?? '' } };
}

/** The same, with nothing remembered of any login. */
export const freshWorld = (): World => ({ ...plainWorld, logins: new Logins(systemClock, systemEntropy) });
