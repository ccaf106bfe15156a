import ipaddr from 'ipaddr.js';
import { merged } from '../../base/merged.ts';
import { pushTo } from '../../base/push-to.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../../document/chapters/cameras/devices.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import { INTERNET } from '../../document/chapters/reach/reach.ts';
import { hasAddress } from '../../document/stream-address.ts';
import { networkSubject } from '../../document/subject.ts';
import { lastSweepOf, type Sweep, wasAsked } from '../../evidence/scans.ts';
import { isPerhapsOther, type MatchedCamera, matchCameras } from '../../evidence/seen-cameras.ts';
import type { Facts } from '../../findings/rule.ts';
import { isInPool, misplaced } from '../../net/address-plan.ts';
import { classify, parseIpv4 } from '../../net/ipv4.ts';
import { type Mac, parseMac } from '../../net/mac.ts';
import type { SeenHost } from '../../scan/seen.ts';
import { isPoolSaid, networkHolding, networkOfDestination, type ReadNetwork } from '../../site/networks.ts';
import { passageBetween } from '../../site/reach.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { AddressFacts, IdentityFacts, PlaceFacts, ReachFacts, SeenFacts, Way } from './address-facts.ts';

const plainMac = (camera: Camera): string | null => {
  const { mac } = camera.identity;
  return mac === '' ? null : (parseMac(mac)?.mac ?? null);
};

/** What is asked of all addresses at once, found once for a document. */
interface AddressesOfSite {
  readonly byHost: ReadonlyMap<string, readonly { readonly name: string; readonly camera: Camera | null }[]>;
  readonly byMac: ReadonlyMap<string, readonly Camera[]>;
  /** By address, port and path. */
  readonly byStream: ReadonlyMap<string, readonly Camera[]>;
  readonly destinations: ReadonlyMap<string, ReadNetwork | null>;
  readonly sweeps: ReadonlyMap<string, Sweep>;
  readonly matched: ReadonlyMap<string, MatchedCamera>;
  readonly linkLocal: readonly string[];
}

export const addressesOf = (view: SiteView): AddressesOfSite => view.once(readAddresses);

function readAddresses({ site, index }: SiteView): AddressesOfSite {
  const byHost = new Map<string, { name: string; camera: Camera | null }[]>();
  const byMac = new Map<string, Camera[]>();
  const byStream = new Map<string, Camera[]>();
  for (const camera of site.cameras) {
    const host = camera.host.trim();
    if (host !== '') pushTo(byHost, host, { name: camera.name, camera });
    const stream = streamKey(camera);
    if (stream !== null) pushTo(byStream, stream, camera);
    const mac = plainMac(camera);
    if (mac !== null) pushTo(byMac, mac, camera);
  }
  for (const { host, name } of site.destinations) if (host !== '') pushTo(byHost, host, { name, camera: null });
  const sweeps = new Map<string, Sweep>();
  for (const { id } of site.networks) {
    const sweep = lastSweepOf(index, id);
    if (sweep) sweeps.set(id, sweep);
  }
  const hosts: SeenHost[] = [...sweeps.values()].flatMap((sweep) => sweep.hosts);
  const matched = hosts.length === 0 && sweeps.size === 0 ? [] : matchCameras(site.cameras, hosts);
  for (const list of byHost.values()) putDifferingFirst(list, ({ camera }) => camera);
  for (const list of byMac.values()) putDifferingFirst(list, (camera) => camera);
  return {
    byHost,
    byMac,
    byStream,
    destinations: new Map(site.destinations.map((one) => [one.id, networkOfDestination(site, one)])),
    sweeps,
    matched: new Map(matched.map((one) => [one.camera.id, one])),
    linkLocal: hosts.flatMap(({ host }) => {
      const address = parseIpv4(host);
      return address !== null && classify(address) === 'link-local' ? host : [];
    }),
  };
}

/**
 * Of all at one address, or of one plug, those first that surely differ: what is no camera, and one of each MAC address;
 * then the rest, channels last. So a box of a hundred channels hides nobody who stands behind it.
 */
function putDifferingFirst<T>(list: T[], cameraOf: (item: T) => Camera | null): void {
  if (list.length < 3) return;
  const macs = new Set<string | null>([null]);
  const ranks = new Map<T, number>();
  for (const item of list) {
    const camera = cameraOf(item);
    const mac = camera && plainMac(camera);
    if (camera === null || !macs.has(mac)) ranks.set(item, 0);
    else ranks.set(item, camera.kind === 'channel' ? 2 : 1);
    macs.add(mac);
  }
  list.sort((a, b) => (ranks.get(a) ?? 0) - (ranks.get(b) ?? 0));
}

/** Names enough to look for: of a list in which everybody is the same, nobody reads more. */
const MOST_NAMES = 3;
/** So far a list is searched for them: a thousand cameras at one address must not cost a million looks. */
const MOST_LOOKS = 40;

const NOBODY = { found: [], names: [] } as const;

/** The first of a list that are meant; what may follow is “others”. */
function firstOf<T extends { readonly name: string }>(
  list: readonly T[],
  isMeant: (item: T) => boolean,
): { readonly found: readonly T[]; readonly names: readonly string[] } {
  if (list.length < 2 && !list.some(isMeant)) return NOBODY; // mostly: it is the only one there
  const found: T[] = [];
  for (let at = 0; at < list.length && at < MOST_LOOKS && found.length <= MOST_NAMES; at++) {
    const item = list[at];
    if (item !== undefined && isMeant(item)) found.push(item);
  }
  const names = found.slice(0, MOST_NAMES).map(({ name }) => name);
  return { found, names: found.length > MOST_NAMES ? [...names, 'others'] : names };
}

const streamKey = ({ host, ports, streams }: Camera): string | null => {
  const path = streams[0]?.path ?? '';
  return host.trim() === '' || path === '' ? null : `${host.trim()} ${ports.rtsp} ${path}`;
};

/** Of what is no plain address. */
function notationOf(host: string): PlaceFacts['notation'] {
  if (host.includes(':')) return 'ipv6';
  return ipaddr.IPv4.isValid(host) ? 'odd' : 'name';
}

/** A camera with its address read once. */
interface Placed {
  readonly camera: Camera;
  readonly view: SiteView;
  /** `null` where it is no IPv4 address. */
  readonly address: number | null;
  readonly mac: Mac | null;
  readonly network: ReadNetwork | null;
}

/** Whether a server may give the address to somebody; `undefined` while nobody entered its DHCP range. */
function isHandedOut({ network, plan }: ReadNetwork, address: number | null): boolean | undefined {
  if (address === null || !plan || !isPoolSaid(network)) return undefined;
  return isInPool(plan.pool, address);
}

function placeFacts({ camera, view, address, mac: own, network }: Placed): Facts<PlaceFacts> {
  const { site } = view;
  const host = camera.host.trim();
  const hasNetworks = site.networks.length > 0;
  if (!hasAddress(camera)) return { hasNetworks };
  const plan = network?.plan ?? null;
  const { byHost, byStream } = addressesOf(view);
  const others = firstOf(byHost.get(host) ?? [], (other) =>
    // a channel of a recorder has the recorder's address
    other.camera === null ? camera.kind !== 'channel' : !isDeviceOf(camera, other.camera),
  );
  const same = firstOf(byStream.get(streamKey(camera) ?? '') ?? [], ({ id }) => id !== camera.id);
  return {
    hasNetworks,
    keeping: camera.keeping ?? undefined,
    port: camera.ports.rtsp,
    host,
    notation: address === null ? notationOf(host) : 'plain',
    kind: address === null ? undefined : classify(address),
    networks: network === null ? site.networks.map(({ name, cidr }) => `${name} ${cidr}`).join(', ') : '',
    network: network?.network.name,
    isInNetwork: network !== null,
    misplaced: address === null || !plan ? undefined : misplaced(address, plan.cidr),
    isGateway: address === null || !plan || plan.gateway === null ? undefined : plan.gateway === address,
    sharedWith: others.names,
    isSharedForSure: others.found.some(({ camera: other }) => {
      // of a destination nobody records a MAC address: a box may record, and be a source itself
      const mac = other && plainMac(other);
      return own !== null && mac !== null && mac !== own.mac;
    }),
    sameStreamAs: same.names,
    isInPool: network ? isHandedOut(network, address) : undefined,
    pool: network?.network.pool ? `${network.network.pool.from} to ${network.network.pool.to}` : undefined,
    dhcpServers: network?.network.dhcpServers ?? undefined,
    cardPort: view.modelOf(camera)?.rtspPort ?? undefined,
  };
}

function identityFacts({ camera, view, mac }: Placed): Facts<IdentityFacts> {
  const macText = camera.identity.mac.trim();
  const isOldPhone = camera.kind === 'handset';
  const hasFixedMac = camera.handset?.hasFixedMac ?? undefined;
  if (macText === '') return { isOldPhone, hasFixedMac };
  const others = firstOf(
    mac ? (addressesOf(view).byMac.get(mac.mac) ?? []) : [],
    (other) => other.id !== camera.id && !isDeviceOf(camera, other),
  );
  return {
    isOldPhone,
    hasFixedMac,
    macText,
    isMacGood: mac !== null,
    mac: mac?.mac,
    isLocalMac: mac?.isLocal,
    isGroupMac: mac?.isGroup,
    macSharedWith: others.names,
  };
}

/** Names of destinations that draw it, each once. */
const drawnBy = (camera: Camera, view: SiteView): readonly string[] => [
  ...new Set(view.tapsOf(camera.id).map(({ destinationId }) => view.destination(destinationId)?.name ?? destinationId)),
];

function seenFacts({ camera, view, network }: Placed): Facts<SeenFacts> {
  const { sweeps, matched, linkLocal } = addressesOf(view);
  const found = matched.get(camera.id);
  if (!found || found.state === 'no-address') return {};
  const sweep = network && sweeps.get(network.network.id);
  const isProven = found.state === 'in-place' || found.state === 'moved' || found.state === 'double';
  // Who was not asked for is not missing.
  if (!isProven && !(sweep && (wasAsked(sweep, camera.host) || found.hosts.length > 0))) return {};
  return {
    seen: found.state,
    seenAt: found.hosts.map(({ host }) => host),
    seenMac: found.hosts[0]?.mac,
    seenPerhapsOther: found.hosts.some((host) => isPerhapsOther(camera, host)),
    isSweepWhole: sweep?.isWhole ?? false,
    seenAlsoAt: isProven ? found.hosts.flatMap(({ alsoAt }) => alsoAt) : [],
    linkLocalSeen: linkLocal,
    drawnBy: drawnBy(camera, view),
  };
}

/** Names that are looked up inside a house, and no public server knows. Source: RFC 6762 §3, RFC 8375 §4; a name without a dot. */
const isHouseName = (name: string): boolean => !name.includes('.') || /\.(local|home\.arpa)\.?$/i.test(name);

/** Where a time server is, and whether a network may connect to it. */
function timeServer(source: string, own: ReadNetwork, { site }: SiteView): Pick<ReachFacts, 'ntpReach' | 'ntpPlace'> {
  const from = networkSubject(own.network.id);
  const through = (to: string): ReachFacts['ntpReach'] => {
    const allowed = passageBetween(site.reach.rows, from, to);
    if (allowed === 'all') return 'reachable';
    // what the taps need has no time server in it; towards the internet that is nothing
    return allowed === 'none' || (allowed === 'listed' && to === INTERNET) ? 'blocked' : 'unknown';
  };
  const address = parseIpv4(source);
  const holding = address === null ? null : networkHolding(site.networks, address);
  if (holding) return { ntpPlace: `in ${holding.network.name}`, ntpReach: through(networkSubject(holding.network.id)) };
  if (address !== null && classify(address) !== 'public')
    return { ntpPlace: 'in no network of this site', ntpReach: 'unknown' };
  if (ipaddr.IPv6.isValid(source) && ipaddr.IPv6.parse(source).range() !== 'unicast')
    return { ntpPlace: 'a local IPv6 address', ntpReach: 'unknown' };
  if (address !== null || source.includes(':') || !isHouseName(source))
    return { ntpPlace: 'outside', ntpReach: through(INTERNET) };
  // with one network there is one house
  const isOnlyOne = site.networks.length === 1;
  return isOnlyOne
    ? { ntpPlace: `in ${own.network.name}`, ntpReach: 'reachable' }
    : { ntpPlace: 'a name inside the house, in a network that is not known', ntpReach: 'unknown' };
}

/** Destinations that pull it. */
export const recordersOf = (camera: Camera, view: SiteView): readonly Destination[] =>
  [...new Set(view.tapsOf(camera.id).map(({ destinationId }) => destinationId))].flatMap(
    (id) => view.destination(id) ?? [],
  );

/** A port that leads to one address of a range of the router. */
function reachFacts({ camera, view, network }: Placed): Facts<ReachFacts> {
  const { site } = view;
  const { reach } = site;
  if (!hasAddress(camera)) return {};
  const own = network && networkSubject(network.network.id);
  const ways = recordersOf(camera, view).map((destination): Way => {
    const from = addressesOf(view).destinations.get(destination.id) ?? null;
    const subject = from && networkSubject(from.network.id);
    return {
      destination: destination.name,
      from: from?.network.name ?? null,
      to: network?.network.name ?? null,
      isSame: subject !== null && subject === own,
      allowed: subject !== null && own !== null ? passageBetween(reach.rows, subject, own) : null,
      port: camera.ports.rtsp,
      looksByItself: destination.protocols.includes('onvif'),
    };
  });
  const drawers = new Set(ways.map(({ from }) => from));
  const internet = own === null ? null : passageBetween(reach.rows, own, INTERNET);
  const { ntp = null } = network?.network ?? {};
  const outside = parseIpv4(reach.outsideAddress.trim());
  const lost = view.modelOf(camera)?.lostWithoutAccount ?? [];
  const isAccountOnly = view.modelOf(camera)?.localStream === 'account-only';
  return {
    ways: site.networks.length === 0 ? [] : ways,
    openFrom:
      own === null
        ? undefined
        : site.networks.flatMap(({ id, name }) =>
            networkSubject(id) !== own &&
            !drawers.has(name) &&
            passageBetween(reach.rows, networkSubject(id), own) === 'all'
              ? name
              : [],
          ),
    internet: internet ?? undefined,
    losesWithoutInternet: [
      ...(isAccountOnly || camera.handset?.way === 'account' ? ['its stream, through its maker’s cloud'] : []),
      ...lost,
    ],
    ntp: ntp ?? undefined,
    ...(ntp === null || !network ? {} : timeServer(ntp.trim(), network, view)),
    forwards: reach.forwards.flatMap(({ host, outsidePort, port }) =>
      host.trim() === camera.host.trim() ? `${outsidePort} to ${port}` : [],
    ),
    recorderForwards: recordersOf(camera, view).flatMap(({ name, host }) =>
      host === ''
        ? []
        : reach.forwards.flatMap((forward) =>
            forward.host.trim() === host.trim() ? `${name}: ${forward.outsidePort} to ${forward.port}` : [],
          ),
    ),
    outside: outside === null ? undefined : classify(outside),
    lookIn: reach.lookIn ?? undefined,
    opensByItself: reach.opensByItself ?? undefined,
  };
}

/** Everything that is worked out about how one camera is addressed. */
export interface AddressJudgement {
  readonly network: ReadNetwork | null;
  readonly facts: Facts<AddressFacts>;
}

export function judgeAddress(camera: Camera, view: SiteView): AddressJudgement {
  const address = parseIpv4(camera.host.trim());
  const network = address === null ? null : networkHolding(view.site.networks, address);
  const { mac: text } = camera.identity;
  const placed: Placed = { camera, view, address, mac: text === '' ? null : parseMac(text), network };
  return {
    network,
    facts: merged(placeFacts(placed), identityFacts(placed), seenFacts(placed), reachFacts(placed)),
  };
}
