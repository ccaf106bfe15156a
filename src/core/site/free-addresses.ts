import type { Camera } from '../document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../document/chapters/cameras/devices.ts';
import { moveCommands } from '../document/moves.ts';
import type { Site } from '../document/site.ts';
import type { OneCommand } from '../document/site-commands.ts';
import { matchSeen } from '../evidence/seen-cameras.ts';
import { isInPool, type PlanOfNetwork } from '../net/address-plan.ts';
import { firstHostOf, isHostOf, lastHostOf, parseIpv4, sayIpv4 } from '../net/ipv4.ts';
import type { SeenHost } from '../scan/seen.ts';
import type { ReadNetwork } from './networks.ts';
import { networkOfCamera } from './networks.ts';

/** The gateway; while nobody entered it, both ends of the network, where routers usually are. */
const gatewaysOf = ({ cidr, gateway }: PlanOfNetwork): readonly number[] =>
  gateway === null ? [firstHostOf(cidr), lastHostOf(cidr)] : [gateway];

/** Addresses of a network that nothing has: no camera, no destination, not the gateway, and nobody seen. */
export function takenAddresses(
  site: Pick<Site, 'cameras' | 'destinations' | 'networks'>,
  { plan }: ReadNetwork,
  seen: readonly SeenHost[],
  without: ReadonlySet<string> = new Set(),
): ReadonlySet<number> {
  const hosts = [
    ...site.cameras.flatMap(({ id, host }) => (without.has(id) ? [] : host)),
    ...site.destinations.map(({ host }) => host),
    // who moves leaves its old place free
    ...matchSeen(site, seen).hosts.flatMap(({ host, cameras }) =>
      cameras.length > 0 && cameras.every(({ id }) => without.has(id)) ? [] : host.host,
    ),
  ];
  return new Set([...hosts.flatMap((host) => parseIpv4(host) ?? []), ...(plan ? gatewaysOf(plan) : [])]);
}

/** The first free address outside the pool, from behind the pool on, else before it; `null` when there is none. */
export function nextFree({ plan }: ReadNetwork, taken: ReadonlySet<number>): string | null {
  if (!plan) return null;
  const { cidr, pool } = plan;
  const from = pool ? pool.to + 1 : firstHostOf(cidr);
  const inOrder = [
    { first: from, last: lastHostOf(cidr) },
    { first: firstHostOf(cidr), last: pool ? pool.from - 1 : from - 1 },
  ];
  for (const { first, last } of inOrder)
    for (let address = first; address <= last; address++)
      if (isHostOf(cidr, address) && !isInPool(pool, address) && !taken.has(address)) return sayIpv4(address);
  return null;
}

/** Where one device goes: several cameras are channels of one box. */
export interface ProposedMove {
  readonly cameras: readonly Camera[];
  readonly from: string;
  readonly to: string;
}

/** Blocks begin at a round number where they can: people remember them. */
const ROUND = 10;

/**
 * A tidy block for all cameras of a network, outside the pool, in the order of the plan: those that have no address yet
 * among them. Who stands in it already keeps the place that the order gives.
 * @returns `null` where no room is left for all of them
 */
export function proposeAddresses(
  site: Pick<Site, 'cameras' | 'destinations' | 'networks'>,
  network: ReadNetwork,
  seen: readonly SeenHost[] = [],
): readonly ProposedMove[] | null {
  const { plan } = network;
  if (!plan) return null;
  const own = site.cameras.filter((camera) => {
    const of = networkOfCamera(site, camera);
    return of ? of.network.id === network.network.id : camera.host.trim() === '';
  });
  const devices: Camera[][] = [];
  for (const camera of own) {
    const device = devices.find(([first]) => first !== undefined && isDeviceOf(first, camera));
    if (device) device.push(camera);
    else devices.push([camera]);
  }
  const taken = takenAddresses(site, network, seen, new Set(own.map(({ id }) => id)));
  const isFree = (address: number): boolean =>
    isHostOf(plan.cidr, address) && !isInPool(plan.pool, address) && !taken.has(address);
  const block = freeBlock(
    devices.length,
    plan.cidr.network,
    plan.pool?.to ?? firstHostOf(plan.cidr),
    lastHostOf(plan.cidr),
    isFree,
  );
  const places = block ?? scattered(firstHostOf(plan.cidr), lastHostOf(plan.cidr), isFree, devices.length);
  if (!places) return null;
  return devices.map((cameras, at) => ({ cameras, from: cameras[0]?.host ?? '', to: sayIpv4(places[at] ?? 0) }));
}

/** A run of free addresses from a round number on, first behind the pool and then before it. */
function freeBlock(
  ...[count, network, behind, last, isFree]: [number, number, number, number, (address: number) => boolean]
): readonly number[] | null {
  const starts: number[] = [];
  for (let start = network + ROUND; start + count - 1 <= last; start += ROUND) starts.push(start);
  const inOrder = [...starts.filter((start) => start > behind), ...starts.filter((start) => start <= behind)];
  for (const start of inOrder) {
    const run = Array.from({ length: count }, (_, at) => start + at);
    if (run.every(isFree)) return run;
  }
  return null;
}

/** Whatever is free, where no run is long enough. */
function scattered(
  ...[first, last, isFree, count]: [number, number, (address: number) => boolean, number]
): readonly number[] | null {
  const places: number[] = [];
  for (let address = first; address <= last && places.length < count; address++)
    if (isFree(address)) places.push(address);
  return places.length < count ? null : places;
}

/** The edit that a proposal is. A reservation is the default: the device asks, and the router knows. */
export const movesAsCommands = (moves: readonly ProposedMove[]): readonly OneCommand[] =>
  moves.flatMap(({ cameras, to }) =>
    cameras.flatMap((camera): readonly OneCommand[] => [
      ...moveCommands([camera], to),
      ...(camera.keeping === null || camera.keeping === 'dynamic'
        ? [{ kind: 'setKeeping' as const, cameraId: camera.id, keeping: 'reservation' as const }]
        : []),
    ]),
  );
