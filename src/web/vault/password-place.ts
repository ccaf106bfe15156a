/** Where a password may go: a host, a port, and the kind of connection to it. */
export interface PasswordPlace {
  readonly host: string;
  readonly port: number;
  readonly line: 'plain' | 'tls' | 'tunnel';
  /** Inside the path, unasked and readable. */
  readonly inPath: boolean;
}

/** What a password was typed for. */
export interface Bound {
  readonly siteName: string;
  readonly cameraId: string;
  readonly cameraName: string;
  readonly user: string;
  /** Shown where it was typed, or allowed since by a person. */
  readonly places: readonly PasswordPlace[];
  /** It may go readable (Basic without TLS) to this device: a person said so. */
  readonly mayGoReadable: boolean;
}

export const sameHost = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Whether a password that was typed for some places may go to one. In a path it may only where that was allowed. */
export const isAllowed = (places: readonly PasswordPlace[], wanted: PasswordPlace): boolean =>
  places.some(
    ({ host, port, line, inPath }) =>
      sameHost(host, wanted.host) && port === wanted.port && line === wanted.line && (inPath || !wanted.inPath),
  );

/** With one place more; the same place twice is once. */
export const withPlace = (places: readonly PasswordPlace[], place: PasswordPlace): readonly PasswordPlace[] =>
  isAllowed(places, place)
    ? places
    : [...places.filter((one) => !isAllowed([place], { ...one, inPath: false })), place].slice(-MOST_PLACES);

/** A camera has a few doors. */
const MOST_PLACES = 16;
