import { pushTo } from '../base/push-to.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Site } from '../document/site.ts';
import { hasAddress } from '../document/stream-address.ts';
import { parseMac } from '../net/mac.ts';
import type { SeenHost } from '../scan/seen.ts';

/** By what a camera is known again; the first that says so counts. */
export type KnownBy = 'endpoint' | 'serial' | 'mac';

/** One address of a sweep, and which of the site's cameras it is. */
export interface MatchedHost {
  readonly host: SeenHost;
  /** Several are channels of one box. */
  readonly cameras: readonly Camera[];
  readonly by: KnownBy | null;
  /**
   * `unproven`: a camera is planned at this address, and nothing that stays says that it is this one. `double`: the same
   * device answers from another address too.
   */
  readonly state: 'in-place' | 'moved' | 'double' | 'unproven' | 'other-at-address' | 'destination' | 'gateway' | 'new';
}

/** What a sweep says of one camera. */
export interface MatchedCamera {
  readonly camera: Camera;
  readonly hosts: readonly SeenHost[];
  readonly state: 'in-place' | 'moved' | 'double' | 'unproven' | 'other-at-address' | 'missing' | 'no-address';
}

export interface Matched {
  readonly hosts: readonly MatchedHost[];
  readonly cameras: readonly MatchedCamera[];
}

const plainMac = (text: string): string | null => parseMac(text)?.mac ?? null;
const sameText = (a: string, b: string): boolean => a !== '' && a.toLowerCase() === b.toLowerCase();
/** A serial number without what labels and devices put between its characters. */
const plainSerial = (serial: string): string => serial.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
const sameSerial = (a: string, b: string): boolean => plainSerial(a) !== '' && plainSerial(a) === plainSerial(b);

/** By what a host is this camera; `null` where nothing that stays says so. An address never does. */
export function knownBy({ identity }: Camera, { endpoints, serial, mac }: SeenHost): KnownBy | null {
  if (endpoints.some((endpoint) => sameText(identity.endpoint, endpoint))) return 'endpoint';
  if (sameSerial(identity.serial, serial)) return 'serial';
  const own = plainMac(identity.mac);
  return own !== null && own === plainMac(mac) ? 'mac' : null;
}

/**
 * Something that stays says that it is another one. Two MAC addresses that makers gave say so too; of one that is made up
 * (locally administered) it is not known whose it is.
 */
export function isOther({ identity }: Camera, { endpoints, serial, mac }: SeenHost): boolean {
  if (identity.endpoint !== '' && endpoints.length > 0)
    return !endpoints.some((one) => sameText(identity.endpoint, one));
  if (plainSerial(identity.serial) !== '' && plainSerial(serial) !== '') return !sameSerial(identity.serial, serial);
  const own = parseMac(identity.mac);
  const seen = parseMac(mac);
  return own !== null && !own.isLocal && seen !== null && !seen.isLocal && own.mac !== seen.mac;
}

/** Another MAC address than the one on record, where one of the two is made up: a device may have one of each. */
export const isPerhapsOther = (camera: Camera, host: SeenHost): boolean => {
  const [own, seen] = [parseMac(camera.identity.mac), parseMac(host.mac)];
  return (
    own !== null && seen !== null && own.mac !== seen.mac && (own.isLocal || seen.isLocal) && !knownBy(camera, host)
  );
};

/** Hosts by what stays of them: looked up, not searched for. */
class HostsByKey {
  readonly #known = new Map<string, SeenHost[]>();
  readonly #at = new Map<string, SeenHost>();

  constructor(seen: readonly SeenHost[]) {
    for (const host of seen) {
      this.#at.set(host.host, host);
      for (const key of keysOfHost(host)) pushTo(this.#known, key, host);
    }
  }

  at(address: string): SeenHost | undefined {
    return this.#at.get(address.trim());
  }
  of({ identity: { endpoint, serial, mac } }: Camera): readonly SeenHost[] {
    let found = NOBODY;
    for (const key of keysOf(endpoint === '' ? NO_ENDPOINTS : [endpoint], serial, mac)) {
      const own = this.#known.get(key);
      // by all that it is known by, it is mostly one and the same
      if (own) found = found.length === 0 ? own : [...new Set([...found, ...own])];
    }
    return found;
  }
}

const NOBODY: readonly SeenHost[] = [];
const NO_ENDPOINTS: readonly string[] = [];
function keysOf(endpoints: readonly string[], serial: string, mac: string): readonly string[] {
  const keys: string[] = [];
  for (const endpoint of endpoints) if (endpoint !== '') keys.push(`endpoint ${endpoint.toLowerCase()}`);
  const bare = plainSerial(serial);
  if (bare !== '') keys.push(`serial ${bare}`);
  const plain = mac === '' ? null : plainMac(mac);
  if (plain !== null) keys.push(`mac ${plain}`);
  return keys;
}
const keysOfHost = ({ endpoints, serial, mac }: SeenHost): readonly string[] => keysOf(endpoints, serial, mac);

function matchCamera(camera: Camera, hosts: HostsByKey): MatchedCamera {
  const own = hosts.of(camera);
  if (own.length > 1) return { camera, hosts: own, state: 'double' };
  if (own.length === 1)
    return { camera, hosts: own, state: own[0]?.host === camera.host.trim() ? 'in-place' : 'moved' };
  if (!hasAddress(camera)) return { camera, hosts: [], state: 'no-address' };
  const there = hosts.at(camera.host);
  if (!there) return { camera, hosts: [], state: 'missing' };
  return { camera, hosts: [there], state: isOther(camera, there) ? 'other-at-address' : 'unproven' };
}

/** What a look says of each camera of the site. */
export function matchCameras(cameras: readonly Camera[], seen: readonly SeenHost[]): readonly MatchedCamera[] {
  const byKey = new HostsByKey(seen);
  return cameras.map((camera) => matchCamera(camera, byKey));
}

/** Which of the site's cameras answered where. */
export function matchSeen(
  site: Pick<Site, 'cameras' | 'destinations' | 'networks'>,
  seen: readonly SeenHost[],
): Matched {
  const cameras = matchCameras(site.cameras, seen);
  const ofHost = new Map<SeenHost, MatchedCamera[]>();
  for (const one of cameras) for (const host of one.hosts) pushTo(ofHost, host, one);
  const destinations = new Set(site.destinations.map(({ host }) => host));
  const gateways = new Set(site.networks.map(({ gateway }) => gateway));
  const hosts = seen.map((host): MatchedHost => {
    const all = ofHost.get(host) ?? [];
    const isProven = ({ state }: MatchedCamera): boolean => state !== 'unproven' && state !== 'other-at-address';
    const proven = all.filter(isProven);
    const [first] = proven;
    if (first) {
      const state = first.state === 'double' ? 'double' : first.state === 'moved' ? 'moved' : 'in-place';
      return { host, cameras: proven.map(({ camera }) => camera), by: knownBy(first.camera, host), state };
    }
    const [there] = all;
    if (there?.state === 'unproven')
      return { host, cameras: all.map(({ camera }) => camera), by: null, state: 'unproven' };
    const rest = { host, cameras: [], by: null };
    if (there) return { ...rest, state: 'other-at-address' };
    if (destinations.has(host.host)) return { ...rest, state: 'destination' };
    return { ...rest, state: gateways.has(host.host) ? 'gateway' : 'new' };
  });
  return { hosts, cameras };
}
