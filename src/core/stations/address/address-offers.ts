import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { INTERNET, type Reach } from '../../document/chapters/reach/reach.ts';
import { asOne, moveDevice } from '../../document/moves.ts';
import type { OneCommand, SiteCommand } from '../../document/site-commands.ts';
import { networkSubject } from '../../document/subject.ts';
import { identityOf } from '../../evidence/camera-of-host.ts';
import type { Mend } from '../../findings/finding.ts';
import { nextFree, takenAddresses } from '../../site/free-addresses.ts';
import {
  isPoolSaid,
  networkOfCamera,
  networkOfDestination,
  type ReadNetwork,
  readNetwork,
} from '../../site/networks.ts';
import { passageBetween, withPassage } from '../../site/reach.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { AddressOffers } from './address-facts.ts';
import { addressesOf, judgeAddress, recordersOf } from './address-judgement.ts';

type Mends = readonly Mend<SiteCommand>[];

/** As people name such a network: whatever is in it may be asked to leave. */
const isForGuests = (name: string): boolean => /\bguests?\b/i.test(name);

export function addressOffers(view: SiteView, camera: Camera): AddressOffers {
  const { site } = view;
  const cameraId = camera.id;
  const { network, facts } = judgeAddress(camera, view);
  /** Where no network holds it: the one that holds most other cameras, else the only one; never one for guests. */
  const home = (): ReadNetwork | null => {
    if (network) return network;
    const own = site.networks.filter(({ name }) => !isForGuests(name));
    const counts = new Map<string, number>();
    for (const other of site.cameras) {
      const id = networkOfCamera(site, other)?.network.id;
      if (id !== undefined) counts.set(id, (counts.get(id) ?? 0) + 1);
    }
    const [most] = own
      .filter(({ id }) => counts.has(id))
      .sort((a, b) => (counts.get(b.id) ?? 0) - (counts.get(a.id) ?? 0));
    const found = most ?? (own.length === 1 ? own[0] : undefined);
    return found ? readNetwork(found) : null;
  };
  const hosts = [...addressesOf(view).sweeps.values()].flatMap((sweep) => sweep.hosts);
  const seen = addressesOf(view).matched.get(cameraId);
  const ofReach = (text: string, reach: Reach): Mends => [{ text, command: { kind: 'setReach', reach, what: text } }];
  const own = network && networkSubject(network.network.id);
  return {
    freeAddress: () => {
      const into = home();
      const free = into && nextFree(into, takenAddresses(site, into, hosts));
      if (!free) return [];
      return [
        {
          text: `Assign ${free}`,
          command: asOne(`${camera.name}: now at ${free}`, moveDevice(site.cameras, camera, free)),
        },
      ];
    },
    reserve: () => {
      // a reservation is of a server, and of an address that it assigns
      if (!network || facts.dhcpServers === 0) return [];
      const keep: OneCommand = { kind: 'setKeeping', cameraId, keeping: 'reservation' };
      if (facts.mac !== undefined || facts.host === undefined)
        return [{ text: 'Plan a DHCP reservation', command: keep }];
      const [host] = seen?.hosts ?? [];
      if (!host?.mac || seen?.state === 'other-at-address') return [];
      const identity = identityOf(host, camera);
      return [
        {
          text: `Plan a DHCP reservation for ${host.mac}`,
          command: asOne(`${camera.name}: DHCP reservation planned`, [
            { kind: 'setIdentity', cameraId, identity },
            keep,
          ]),
        },
      ];
    },
    setOnDevice: () => {
      const into = home();
      // inside the DHCP range, or where nobody entered that, another device may get the address
      const mayStay = facts.isInPool === false || facts.dhcpServers === 0;
      const other = into && isPoolSaid(into.network) ? nextFree(into, takenAddresses(site, into, hosts)) : null;
      const free = mayStay ? (facts.host ?? null) : other;
      if (!free) return [];
      const keep: OneCommand = { kind: 'setKeeping', cameraId, keeping: 'static' };
      const text =
        free === facts.host ? 'Plan a static address on the device' : `Plan ${free} as a static address on the device`;
      const moves = free === facts.host ? [] : moveDevice(site.cameras, camera, free);
      return [{ text, command: asOne(`${camera.name}: static address on the device`, [...moves, keep]) }];
    },
    follow: () => {
      const [host] = seen?.state === 'moved' ? seen.hosts : [];
      if (!host) return [];
      const commands = moveDevice(site.cameras, camera, host.host);
      return [
        {
          text: `Use ${host.host} everywhere`,
          command: asOne(`${camera.name}: new address ${host.host} taken over`, commands),
        },
      ];
    },
    takeIdentity: () => {
      const [host] = seen?.hosts ?? [];
      if (!host || (host.mac === '' && host.serial === '' && host.endpoints.length === 0)) return [];
      const identity = identityOf(host);
      const said = host.mac || host.endpoints[0] || host.serial;
      return [{ text: `It is this camera: save ${said}`, command: { kind: 'setIdentity', cameraId, identity } }];
    },
    allowListed: () => {
      if (own === null) return [];
      const froms = new Set(
        view.tapsOf(cameraId).flatMap(({ destinationId }) => {
          const destination = view.destination(destinationId);
          const from = destination && networkOfDestination(site, destination);
          return from ? networkSubject(from.network.id) : [];
        }),
      );
      let { rows } = site.reach;
      for (const from of froms) {
        const now = passageBetween(rows, from, own);
        if (now === 'none' || now === null) rows = withPassage(rows, from, own, 'listed');
      }
      return ofReach('Allow only the ports that its taps need', { ...site.reach, rows });
    },
    closeOthers: () => {
      if (own === null) return [];
      let { rows } = site.reach;
      for (const { id, name } of site.networks)
        if (facts.openFrom?.includes(name)) rows = withPassage(rows, networkSubject(id), own, 'none');
      return ofReach(`Block it from ${facts.openFrom?.join(', ')}`, { ...site.reach, rows });
    },
    cutOff: () => {
      if (own === null || !network) return [];
      const text = `Block ${network.network.name} from the internet`;
      return ofReach(text, { ...site.reach, rows: withPassage(site.reach.rows, own, INTERNET, 'none') });
    },
    dropForwards: () =>
      ofReach(`Close port forward ${facts.forwards?.join(', ')} at the router`, {
        ...site.reach,
        forwards: site.reach.forwards.filter(({ host }) => host.trim() !== camera.host.trim()),
      }),
    dropRecorderForwards: () => {
      const hosts = new Set(recordersOf(camera, view).map(({ host }) => host.trim()));
      return ofReach(`Close port forward ${facts.recorderForwards?.join(', ')} at the router`, {
        ...site.reach,
        forwards: site.reach.forwards.filter(({ host }) => !hosts.has(host.trim())),
      });
    },
    gatewayTime: () => {
      const gateway = network?.network.gateway;
      if (!network || !gateway) return [];
      return [
        {
          text: `Use ${gateway} as time server`,
          command: { kind: 'putNetwork', network: { ...network.network, ntp: gateway } },
        },
      ];
    },
    cardPort: () =>
      facts.cardPort === undefined
        ? []
        : [
            {
              text: `Use port ${facts.cardPort}`,
              command: { kind: 'setAddress', cameraId, host: camera.host, port: facts.cardPort },
            },
          ],
  };
}
