import type { Network } from '../document/chapters/networks/network.ts';
import type { Site } from '../document/site.ts';
import { misplaced } from '../net/address-plan.ts';
import { hostNameOf } from '../net/host-name.ts';
import { parseIpv4 } from '../net/ipv4.ts';
import { parseMac } from '../net/mac.ts';
import { networkOfCamera, readNetwork } from '../site/networks.ts';
import { writeCsv } from './csv.ts';

/** What a router is to keep for one device. */
export interface Reservation {
  readonly mac: string;
  readonly ip: string;
  /** A host name, each once. */
  readonly name: string;
  /** Of the camera, for people. */
  readonly camera: string;
}

export interface Reservations {
  readonly ready: readonly Reservation[];
  /** Cameras that are to be reserved and cannot be yet, with why. */
  readonly missing: readonly { readonly camera: string; readonly why: string }[];
}

/** What no router should be given; `null` where it may. */
function unfit(network: Network, ip: string, isRandomMac: boolean): string | null {
  const { plan } = readNetwork(network);
  const address = parseIpv4(ip);
  if (plan && address !== null && plan.gateway === address) return 'its address is the router’s own';
  if (plan && address !== null && misplaced(address, plan.cidr) !== null) return 'its address is no host address';
  return isRandomMac ? 'its MAC address is random: it may be another one tomorrow' : null;
}

/** Reservations of one network, in the order of the plan; channels of one box are one. */
export function reservationsOf(site: Pick<Site, 'cameras' | 'networks'>, network: Network): Reservations {
  const ready: Reservation[] = [];
  const missing: { camera: string; why: string }[] = [];
  const names = new Set<string>();
  for (const camera of site.cameras) {
    if (camera.keeping !== 'reservation' || networkOfCamera(site, camera)?.network.id !== network.id) continue;
    const mac = parseMac(camera.identity.mac);
    const ip = camera.host.trim();
    if (!mac || mac.isGroup) {
      const why = camera.identity.mac === '' ? 'its MAC address is not known' : 'its MAC address is not valid';
      missing.push({ camera: camera.name, why });
      continue;
    }
    const why = unfit(network, ip, mac.isLocal && camera.handset?.hasFixedMac !== true);
    if (why !== null) {
      missing.push({ camera: camera.name, why });
      continue;
    }
    const known = ready.find((one) => one.mac === mac.mac || one.ip === ip);
    if (known) {
      if (known.mac !== mac.mac || known.ip !== ip)
        missing.push({
          camera: camera.name,
          why: `${known.camera} has the same ${known.ip === ip ? 'address' : 'MAC address'}`,
        });
      continue;
    }
    let name = hostNameOf(camera.name);
    for (let number = 2; names.has(name); number++) name = `${hostNameOf(camera.name).slice(0, 58)}-${number}`;
    names.add(name);
    ready.push({ mac: mac.mac, ip, name, camera: camera.name });
  }
  return { ready: ready.sort((a, b) => (parseIpv4(a.ip) ?? 0) - (parseIpv4(b.ip) ?? 0)), missing };
}

/** Lines for a file of dnsmasq. Source: dnsmasq(8), --dhcp-host. */
export const asDnsmasq = (reservations: readonly Reservation[]): string =>
  reservations.map(({ mac, ip, name }) => `dhcp-host=${mac},${ip},${name}\n`).join('');

/** Configuration of Kea, to be merged into that of its server. Source: Kea Administrator Reference Manual, “Host Reservations in DHCPv4”. */
export const asKea = (reservations: readonly Reservation[], { cidr }: Pick<Network, 'cidr'>): string =>
  `${JSON.stringify(
    {
      Dhcp4: {
        subnet4: [
          {
            subnet: cidr,
            reservations: reservations.map(({ mac, ip, name }) => ({
              'hw-address': mac,
              'ip-address': ip,
              hostname: name,
            })),
          },
        ],
      },
    },
    null,
    2,
  )}\n`;

/** A table (RFC 4180). Text that a spreadsheet would run as a formula is quoted with an apostrophe. */
export const asLeaseCsv = (reservations: readonly Reservation[]): string =>
  writeCsv(
    reservations.map(({ mac, ip, name, camera }) => ({ mac, ip, hostname: name, camera })),
    ['mac', 'ip', 'hostname', 'camera'],
  );

/** A sheet to type from, for a router that has only a web form. */
export function asRouterSheet(
  { ready, missing }: Reservations,
  { name, cidr, gateway }: Network,
  site: string,
): string {
  const width = Math.max(8, ...ready.map(({ camera }) => camera.length));
  return [
    `${site}: reservations of ${name}, ${cidr}`,
    gateway === null ? 'Router: not known' : `Router: http://${gateway}/`,
    '',
    'Look for “address reservation”, “static lease” or “DHCP binding”. Enter each line; then restart the camera.',
    '',
    ...ready.map(
      ({ mac, ip, camera }, at) => `[ ] ${String(at + 1).padStart(3)}  ${camera.padEnd(width)}  ${mac}  ${ip}`,
    ),
    ...(missing.length > 0
      ? ['', 'Not ready yet:', ...missing.map(({ camera, why }) => `      ${camera}: ${why}`)]
      : []),
    '',
  ].join('\n');
}
