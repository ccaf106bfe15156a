/** Where a service is asked: host and port as they are dialled, path as it stands. */
export interface ServicePlace {
  readonly host: string;
  readonly port: number;
  readonly path: string;
  /** Over TLS. */
  readonly isTls: boolean;
}

/** Another port of the same host, or another kind of connection to it. */
export interface OtherDoor {
  readonly port: number;
  readonly isTls: boolean;
}
export const sameDoor = (a: OtherDoor, b: OtherDoor): boolean => a.port === b.port && a.isTls === b.isTls;
/** “port 8000”, “port 443, with TLS” */
export const sayDoor = ({ port, isTls }: OtherDoor): string => `port ${port}${isTls ? ', with TLS' : ''}`;

export interface PlaceFromDevice extends ServicePlace {
  /** It gave another host than the one that it answers at. */
  readonly isElsewhere: boolean;
  /** The host that it gave. */
  readonly saidHost: string;
}

const DEFAULT_PORTS: Readonly<Record<string, number>> = { 'http:': 80, 'https:': 443, 'rtsp:': 554, 'rtsps:': 322 };
const MOST_URL = 1024;

/**
 * Where an address of a device leads, as seen from here: at the host that was called, whatever inner or earlier address it
 * gives as its own. `null` when it is no address.
 */
export function placeFrom(url: string, called: Pick<ServicePlace, 'host' | 'port' | 'isTls'>): PlaceFromDevice | null {
  let parsed: URL;
  try {
    parsed = new URL(url.slice(0, MOST_URL));
  } catch {
    return null;
  }
  const { protocol, hostname, pathname, search } = parsed;
  const usual = Object.hasOwn(DEFAULT_PORTS, protocol) ? DEFAULT_PORTS[protocol] : undefined;
  // nothing listens on port 0
  if (usual === undefined || hostname === '' || parsed.port === '0') return null;
  const saidHost = hostname.replace(/^\[|\]$/g, '');
  const isElsewhere = saidHost.toLowerCase() !== called.host.toLowerCase();
  const saidPort = parsed.port === '' ? usual : Number(parsed.port);
  const isTls = protocol === 'https:' || protocol === 'rtsps:';
  return {
    host: called.host,
    // behind a router another port leads in than the one that the device knows
    port: isElsewhere && isTls === called.isTls && protocol.startsWith('http') ? called.port : saidPort,
    path: `${pathname}${search}`,
    isElsewhere,
    saidHost,
    isTls,
  };
}

/** The same as it is asked, without what the device said besides. */
export const asked = ({ host, port, path, isTls }: ServicePlace): ServicePlace => ({ host, port, path, isTls });
