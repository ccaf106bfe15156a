import type { Camera } from '../document/chapters/cameras/camera.ts';
import { moveDevice } from '../document/moves.ts';
import type { Site } from '../document/site.ts';
import type { OneCommand } from '../document/site-commands.ts';
import type { LeaseEntry } from '../imports/lease-file.ts';
import { hostNameOf } from '../net/host-name.ts';
import { parseMac } from '../net/mac.ts';

/** What taking one entry of a router would change. */
export interface LeaseChange {
  readonly entry: LeaseEntry;
  /** `null` where it is none of this site's cameras. */
  readonly camera: Camera | null;
  /** How it was found. An address alone proves nothing: then a MAC address is only offered. */
  readonly by: 'mac' | 'name' | 'address' | null;
  /** In words, each change; empty where all is so already. */
  readonly said: readonly string[];
  readonly commands: readonly OneCommand[];
}

const macOf = ({ identity }: Camera): string | null => parseMac(identity.mac)?.mac ?? null;

function found(site: Pick<Site, 'cameras'>, { mac, ip, name }: LeaseEntry): Pick<LeaseChange, 'camera' | 'by'> {
  const byMac = site.cameras.find((camera) => macOf(camera) === mac);
  if (byMac) return { camera: byMac, by: 'mac' };
  const free = site.cameras.filter((camera) => macOf(camera) === null);
  const byName = name === '' ? undefined : free.find((camera) => hostNameOf(camera.name) === name.toLowerCase());
  if (byName) return { camera: byName, by: 'name' };
  const byAddress = free.find(({ host }) => host.trim() === ip);
  return byAddress ? { camera: byAddress, by: 'address' } : { camera: null, by: null };
}

/** What each entry would change, none of it done yet. */
export function leaseChanges(site: Pick<Site, 'cameras'>, entries: readonly LeaseEntry[]): readonly LeaseChange[] {
  return entries.map((entry): LeaseChange => {
    const { camera, by } = found(site, entry);
    if (!camera) return { entry, camera, by, said: [], commands: [] };
    const said: string[] = [];
    const commands: OneCommand[] = [];
    if (macOf(camera) !== entry.mac) {
      said.push(`MAC address ${entry.mac}`);
      commands.push({ kind: 'setIdentity', cameraId: camera.id, identity: { ...camera.identity, mac: entry.mac } });
    }
    if (camera.host.trim() !== entry.ip) {
      said.push(`address ${camera.host === '' ? 'none' : camera.host} → ${entry.ip}`);
      commands.push(...moveDevice(site.cameras, camera, entry.ip));
    }
    const keeping = entry.kind === 'reservation' ? 'reservation' : (camera.keeping ?? 'dynamic');
    if (camera.keeping !== keeping) {
      said.push(keeping === 'reservation' ? 'reserved' : 'DHCP without a reservation');
      commands.push({ kind: 'setKeeping', cameraId: camera.id, keeping });
    }
    return { entry, camera, by, said, commands };
  });
}
