import { type PasswordPlace, sameHost } from './password-place.ts';

const LINE_WORDS = { plain: '', tls: ' with TLS', tunnel: ' inside HTTP' } as const;

/** “10.77.4.21, port 554” */
export const sayPlace = ({ host, port, line, inPath }: PasswordPlace): string =>
  `${host}, port ${port}${LINE_WORDS[line]}${inPath ? ', inside the path' : ''}`;

/** Hosts and ports that a password goes to, as one reads them: “10.77.4.21, ports 554 and 80”. */
export function sayPlaces(places: readonly PasswordPlace[]): string {
  const [first, ...rest] = places;
  if (!first) return 'no address';
  if (rest.length === 0) return sayPlace(first);
  if (!rest.every(({ host }) => sameHost(host, first.host))) return places.map(sayPlace).join('; ');
  const ports = [...new Set(places.map(({ port, line }) => `${port}${LINE_WORDS[line]}`))];
  const inPath = places.some((place) => place.inPath) ? ', inside the path' : '';
  if (ports.length === 1) return `${first.host}, port ${ports[0]}${inPath}`;
  return `${first.host}, ports ${ports.slice(0, -1).join(', ')} and ${ports.at(-1)}${inPath}`;
}
