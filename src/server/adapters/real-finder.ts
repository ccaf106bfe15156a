import { readFile } from 'node:fs/promises';
import { networkInterfaces } from 'node:os';
import { DISCOVERY } from '../../core/onvif/discovery.ts';
import { DialFailure, type Finder } from '../ports.ts';
import { openDiscovery, type Question } from './discovery-socket.ts';

/** `127.0.0.1:3702`; nothing where nothing was said. */
export function discoveryTarget(text: string | undefined): Question | null {
  if (text === undefined) return null;
  const [host = '', port = ''] = text.split(':');
  return { host, port: Number(port) };
}

const LIST_MS = 2000;

/** Own IPv4 addresses that lead into a network: the question goes out by each. */
const ownAddresses = (): readonly string[] =>
  Object.values(networkInterfaces()).flatMap((addresses) =>
    (addresses ?? []).flatMap(({ address, family, internal }) => (family === 'IPv4' && !internal ? address : [])),
  );

/** A loopback address leads nowhere else: it is a link of its own. */
const ownNetworks = (): readonly string[] =>
  Object.values(networkInterfaces()).flatMap((addresses) =>
    (addresses ?? []).flatMap(({ cidr, family }) => (family === 'IPv4' && cidr !== null ? cidr : [])),
  );

/** The networks that this computer is in. `target` asks one address instead of the group: tests ask loopback. */
export function createRealFinder(target: Question | null = null): Finder {
  return {
    openDiscovery: async (onAnswer) => {
      const own = target ? ['127.0.0.1'] : ownAddresses();
      if (own.length === 0)
        throw new DialFailure('unreachable', 'This computer is in no network: WS-Discovery is not possible.');
      const options = own.map((from) => ({
        from,
        isMulticast: !target,
        onAnswer: (host: string, _: number, chunk: Uint8Array) => onAnswer(host, chunk),
      }));
      return openDiscovery(options, () => [target ?? { host: DISCOVERY.group, port: DISCOVERY.port }]);
    },
    ownNetworks,
    neighbours: async () => {
      if (process.platform === 'linux') return readFile('/proc/net/arp', 'utf8');
      // loaded where it is needed: most systems have the table as a file
      const [{ execFile }, { promisify }] = await Promise.all([import('node:child_process'), import('node:util')]);
      const { stdout } = await promisify(execFile)('arp', ['-a'], { timeout: LIST_MS, maxBuffer: 1024 * 1024 });
      return stdout;
    },
  };
}
