import { parseIpv4 } from './ipv4.ts';
import { isNoMac, parseMac } from './mac.ts';

/** A table of neighbours of one house is a few kilobytes; what follows is not read. */
const MOST_CHARS = 1024 * 1024;
const MOST_LINES = 10_000;

/**
 * MAC addresses by IPv4 address, from whatever table of neighbours a system prints: of each line the first address and
 * the first MAC address count, so that `10.0.0.1 0x1 0x2 00:00:5e:00:53:01 * eth0` and
 * `? (10.0.0.1) at 0:0:5e:0:53:1 on en0` mean the same. Lines without both, and entries that say “none”, are left out.
 */
export function parseArpTable(text: string): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const line of text.slice(0, MOST_CHARS).split('\n').slice(0, MOST_LINES)) {
    const words = line.slice(0, 200).split(/[\s()]/);
    const ip = words.find((word) => parseIpv4(word) !== null);
    const mac = words.map((word) => parseMac(word)?.mac).find((one) => one !== undefined);
    if (ip !== undefined && mac !== undefined && !isNoMac(mac)) found.set(ip, mac);
  }
  return found;
}
