import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../../document/chapters/cameras/devices.ts';
import type { Site } from '../../document/site.ts';
import { type MatchedHost, matchSeen } from '../../evidence/seen-cameras.ts';
import { isInPool, type Keeping } from '../../net/address-plan.ts';
import { broadcastOf, holds, isHostOf, lastOf, parseIpv4, sizeOfPrefix, usableOf } from '../../net/ipv4.ts';
import type { SeenHost } from '../../scan/seen.ts';
import { networkAt, type ReadNetwork } from '../../site/networks.ts';

/** Something that is planned at an address. */
export interface Pin {
  readonly address: number;
  readonly kind: Keeping | 'unsaid' | 'destination' | 'gateway';
  readonly name: string;
  /** All channels of a box; empty where it is no camera. */
  readonly cameras: readonly Camera[];
  /** In a word or two; empty where nothing is wrong with its place. */
  readonly wrong: string;
}

/** Something that answers at an address. */
export interface Drop {
  readonly address: number;
  readonly state: MatchedHost['state'];
  readonly name: string;
}

/** From where a camera is planned to where it answers. */
export interface Thread {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** A network as a ruler of its addresses. */
export interface Ruler {
  /** Addresses that it shows: all, or of a large network the stretch in which something is. */
  readonly first: number;
  readonly last: number;
  readonly isWhole: boolean;
  readonly pool: { readonly from: number; readonly to: number } | null;
  readonly broadcast: number | null;
  readonly network: number;
  readonly pins: readonly Pin[];
  readonly drops: readonly Drop[];
  readonly threads: readonly Thread[];
  /** Counted over the whole network. */
  readonly counts: RulerCounts;
}

export interface RulerCounts {
  readonly usable: number;
  readonly pool: number;
  readonly planned: number;
  /** Answers that are planned nowhere. */
  readonly unplanned: number;
  readonly free: number;
  readonly wrong: number;
}

/** A ruler of more ticks cannot be read: a /22 is the largest that is shown whole. */
const MOST_TICKS = 1024;
const STRETCH = 256;

function pinsOf(
  site: Pick<Site, 'cameras' | 'destinations' | 'networks'>,
  { network, plan }: ReadNetwork,
): readonly Pin[] {
  const pins: { address: number; kind: Pin['kind']; name: string; cameras: Camera[] }[] = [];
  const isHere = (host: string): boolean => networkAt(site.networks, host)?.network.id === network.id;
  for (const camera of site.cameras) {
    const address = parseIpv4(camera.host.trim());
    if (address === null || !isHere(camera.host)) continue;
    const box = pins.find(({ cameras: [first] }) => first !== undefined && isDeviceOf(first, camera));
    if (box?.address === address) {
      box.cameras.push(camera);
      box.name = `${box.name}, ${camera.name}`;
    } else pins.push({ address, kind: camera.keeping ?? 'unsaid', name: camera.name, cameras: [camera] });
  }
  for (const { host, name } of site.destinations) {
    const address = parseIpv4(host);
    if (address !== null && isHere(host)) pins.push({ address, kind: 'destination', name, cameras: [] });
  }
  if (plan && plan.gateway !== null && holds(plan.cidr, plan.gateway))
    pins.push({ address: plan.gateway, kind: 'gateway', name: 'gateway', cameras: [] });
  const times = new Map<number, number>();
  for (const { address } of pins) times.set(address, (times.get(address) ?? 0) + 1);
  return pins.map((pin) => ({ ...pin, wrong: wrongOf(pin, times.get(pin.address) ?? 1, plan) }));
}

function wrongOf({ kind, address }: Pick<Pin, 'kind' | 'address'>, times: number, plan: ReadNetwork['plan']): string {
  if (times > 1) return 'used twice';
  if (!plan) return '';
  if (!isHostOf(plan.cidr, address))
    return address === broadcastOf(plan.cidr) ? 'the broadcast address' : 'the network address';
  return kind === 'static' && isInPool(plan.pool, address) ? 'static inside the DHCP range' : '';
}

/** @param seen what was seen, in this network or another: what answers outside of it is on no ruler */
export function rulerOf(
  site: Pick<Site, 'cameras' | 'destinations' | 'networks'>,
  read: ReadNetwork,
  seen: readonly SeenHost[],
): Ruler | null {
  const { plan } = read;
  if (!plan) return null;
  const { cidr, pool } = plan;
  const pins = pinsOf(site, read);
  const matched = matchSeen(site, seen);
  const drops = matched.hosts.flatMap(({ host, state, cameras }): readonly Drop[] => {
    const address = parseIpv4(host.host);
    if (address === null || !holds(cidr, address)) return [];
    const name =
      cameras.map((camera) => camera.name).join(', ') ||
      host.name ||
      host.doors.find(({ title }) => title)?.title ||
      '';
    return [{ address, state, name }];
  });
  const threads = matched.cameras.flatMap(({ camera, state, hosts }): readonly Thread[] => {
    const [from, to] = [parseIpv4(camera.host.trim()), parseIpv4(hosts[0]?.host ?? '')];
    const isShown = state === 'moved' && from !== null && to !== null && holds(cidr, from) && holds(cidr, to);
    return isShown ? [{ name: camera.name, from, to }] : [];
  });
  const size = sizeOfPrefix(cidr.prefix);
  const isWhole = size <= MOST_TICKS;
  const somewhere =
    pins.find(({ kind }) => kind !== 'gateway')?.address ?? drops[0]?.address ?? plan.gateway ?? cidr.network;
  const first = isWhole
    ? cidr.network
    : Math.max(cidr.network, Math.min(somewhere - (somewhere % STRETCH), lastOf(cidr) + 1 - MOST_TICKS));
  const last = isWhole ? lastOf(cidr) : first + MOST_TICKS - 1;
  const taken = new Set([...pins.map(({ address }) => address), ...drops.map(({ address }) => address)]);
  const outsidePool = [...taken].filter((address) => isHostOf(cidr, address) && !isInPool(pool, address)).length;
  const poolSize = pool ? Math.max(0, pool.to - pool.from + 1) : 0;
  return {
    first,
    last,
    isWhole,
    pool,
    broadcast: broadcastOf(cidr),
    network: cidr.network,
    pins: pins.filter(({ address }) => address >= first && address <= last),
    drops: drops.filter(({ address }) => address >= first && address <= last),
    threads,
    counts: {
      usable: usableOf(cidr),
      pool: poolSize,
      planned: pins.length,
      unplanned: drops.filter(({ state }) => state === 'new' || state === 'other-at-address').length,
      free: Math.max(0, usableOf(cidr) - poolSize - outsidePool),
      wrong: pins.filter(({ wrong }) => wrong !== '').length,
    },
  };
}
