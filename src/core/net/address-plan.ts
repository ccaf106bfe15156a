import { broadcastOf, type Cidr, classify, holds, isHostOf, parseIpv4 } from './ipv4.ts';
import { parseMac } from './mac.ts';

/** How a device comes to its address. */
export type Keeping = 'reservation' | 'static' | 'dynamic';

export interface PlannedDevice {
  readonly name: string;
  readonly ip: string;
  readonly mac: string;
  readonly how: Keeping;
}

export interface PlanOfNetwork {
  readonly cidr: Cidr;
  readonly gateway: number | null;
  readonly pool: { readonly from: number; readonly to: number } | null;
}

export type PlanIssue =
  | 'gateway-outside-subnet'
  | 'gateway-not-host'
  | 'link-local'
  | 'outside-subnet'
  | 'is-network-address'
  | 'is-broadcast-address'
  | 'is-gateway'
  | 'duplicate-ip'
  | 'duplicate-mac'
  | 'static-in-pool'
  | 'reservation-on-random-mac';

/** Where an address cannot be, in its network; `null` where it can. */
export function misplaced(address: number, cidr: Cidr): PlanIssue | null {
  if (classify(address) === 'link-local' && !holds(cidr, address)) return 'link-local';
  if (!holds(cidr, address)) return 'outside-subnet';
  if (isHostOf(cidr, address)) return null;
  return address === broadcastOf(cidr) ? 'is-broadcast-address' : 'is-network-address';
}

/** What is wrong with the gateway of a network; `null` when nothing is. */
export function gatewayIssue(gateway: number, cidr: Cidr): 'gateway-outside-subnet' | 'gateway-not-host' | null {
  if (!holds(cidr, gateway)) return 'gateway-outside-subnet';
  return isHostOf(cidr, gateway) ? null : 'gateway-not-host';
}

export const isInPool = (pool: PlanOfNetwork['pool'], address: number): boolean =>
  pool !== null && address >= pool.from && address <= pool.to;

/** By a key of each item, those that share it with another one. */
function repeated<T>(items: readonly T[], keyOf: (item: T) => string | null): ReadonlySet<string> {
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const item of items) {
    const key = keyOf(item);
    if (key === null) continue;
    if (seen.has(key)) twice.add(key);
    seen.add(key);
  }
  return twice;
}

/**
 * What is wrong with an address plan, by device and then by code. A reservation inside the pool is fine: the server that
 * hands it out keeps it free.
 * Source: RFC 4632; each member of a duplicate is named.
 */
export function checkPlan(
  { cidr, gateway, pool }: PlanOfNetwork,
  devices: readonly PlannedDevice[],
): readonly { readonly device: string; readonly code: PlanIssue }[] {
  const issues: { device: string; code: PlanIssue }[] = [];
  const wrong = gateway === null ? null : gatewayIssue(gateway, cidr);
  if (wrong) issues.push({ device: 'gateway', code: wrong });
  const macOf = ({ mac }: PlannedDevice): string | null => parseMac(mac)?.mac ?? null;
  const ips = repeated(devices, ({ ip }) => ip);
  const macs = repeated(devices, macOf);
  for (const device of devices) {
    const address = parseIpv4(device.ip);
    const mac = macOf(device);
    const say = (code: PlanIssue, isSo: boolean): void => void (isSo && issues.push({ device: device.name, code }));
    const place = address === null ? null : misplaced(address, cidr);
    if (place) issues.push({ device: device.name, code: place });
    say('is-gateway', address !== null && address === gateway);
    say('duplicate-ip', ips.has(device.ip));
    say('duplicate-mac', mac !== null && macs.has(mac));
    say('static-in-pool', device.how === 'static' && address !== null && isInPool(pool, address));
    say('reservation-on-random-mac', device.how === 'reservation' && parseMac(device.mac)?.isLocal === true);
  }
  const key = ({ device, code }: (typeof issues)[number]): string => `${device}\u0000${code}`;
  return issues.sort((a, b) => (key(a) < key(b) ? -1 : 1));
}
