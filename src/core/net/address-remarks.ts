import ipaddr from 'ipaddr.js';
import { hasControl } from '../base/control-signs.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { withLoginOut } from './address-login.ts';
import { asksForLogin, SECRET_PLACE, withoutPlaces } from './path-places.ts';
import { percentEncode } from './percent.ts';
import { encodeUserinfo, urlHost } from './stream-url.ts';
import { parseStreamUrl } from './stream-url-parser.ts';

/** The fields of a stream's address as they stand while somebody types. */
export interface AddressDraft {
  readonly host: string;
  readonly port: string;
  readonly path: string;
  readonly user: string;
  readonly secret: string;
}
export type AddressField = keyof AddressDraft;

/** What the remarks are measured against. */
export interface AddressSurroundings {
  readonly networks: readonly { readonly name: string; readonly cidr: string }[];
  /** Paths of this camera that gave a picture. */
  readonly workedPaths: readonly string[];
}

/** `stops`: it cannot be kept or dialled like this. Otherwise it may be right, and is likely not. */
export interface AddressRemark {
  readonly field: AddressField;
  readonly stops: boolean;
  readonly text: string;
}

type Remarks = (draft: AddressDraft, around: AddressSurroundings) => readonly Omit<AddressRemark, 'field'>[];

const stop = (text: string) => [{ stops: true, text }];
const hint = (text: string) => [{ stops: false, text }];
const NONE: readonly never[] = [];

const hasBlankEnd = (text: string): boolean => text !== text.trim();
/** RFC 3986 §3.3: pchar, "/" and "?"; "%" is looked at apart, and a blank is encoded for the person. */
const NOT_IN_PATH = /[^A-Za-z0-9\-._~!$&'()*+,;=:@/?% ]/u;
const LONE_PERCENT = /%(?![0-9A-Fa-f]{2})/;

function rangeOf(address: string): string | null {
  return ipaddr.IPv4.isValidFourPartDecimal(address) || ipaddr.IPv6.isValid(address)
    ? ipaddr.process(address).range()
    : null;
}

function liesIn(address: string, cidr: string): boolean {
  try {
    return ipaddr.process(address).match(ipaddr.parseCIDR(cidr));
  } catch {
    return false; // another address family, or a network that was noted wrong
  }
}

const tooLong = (most: number, text: string) => stop(`At most ${most} characters, not ${text.length}.`);
const STEERS = stop('A line break or another control character stands in it. Type it again.');

const host: Remarks = (draft, { networks }) => {
  const wanted = draft.host.trim();
  if (wanted.length > TEXT_LIMITS.host) return tooLong(TEXT_LIMITS.host, wanted);
  if (wanted === '') return stop('An address is needed.');
  if (wanted.includes('/')) return stop('Only the host goes here; paste a whole URL to split it into the fields.');
  const withPort = /^([^:]+):(\d+)$/.exec(wanted);
  if (withPort) return stop(`The port has its own field: ${withPort[2]}.`);
  if (/^[\d.]+$/.test(wanted) && rangeOf(wanted) === null)
    return stop('An IPv4 address has four numbers from 0 to 255.');
  const parsed = parseStreamUrl(`rtsp://${urlHost(wanted)}/`);
  if (!parsed.ok || parsed.value.url.host !== wanted.toLowerCase() || parsed.value.url.path !== '/')
    return stop('Expected an IPv4 or IPv6 address or a host name.');
  if (hasBlankEnd(draft.host)) return hint('A space at the end is removed.');
  const range = rangeOf(wanted);
  if (range === 'unicast') return hint('A public address: it is not dialled.');
  if (range !== null && networks.length > 0 && !networks.some(({ cidr }) => liesIn(wanted, cidr)))
    return hint(`Outside this site’s networks: ${networks.map(({ name, cidr }) => `${name} ${cidr}`).join(', ')}.`);
  return NONE;
};

const port: Remarks = (draft) => {
  const wanted = draft.port.trim();
  if (wanted === '') return stop('Missing; 554 is usual.');
  if (!/^\d{1,5}$/.test(wanted) || Number(wanted) < 1 || Number(wanted) > 65_535) return stop('From 1 to 65535.');
  return wanted === '80' || wanted === '443' ? hint('Usually the web page.') : NONE;
};

const path: Remarks = (draft, { workedPaths }) => {
  const wanted = draft.path.trim();
  if (wanted.length > TEXT_LIMITS.path) return tooLong(TEXT_LIMITS.path, wanted);
  if (hasControl(wanted)) return STEERS;
  if (wanted !== '' && !wanted.startsWith('/')) return stop('It starts with “/”.');
  const bare = withoutPlaces(wanted);
  const sign = NOT_IN_PATH.exec(bare)?.[0];
  if (sign !== undefined) return stop(`“${sign}” needs encoding: ${percentEncode(sign)}.`);
  if (LONE_PERCENT.test(wanted)) return stop('“%” needs encoding: %25.');
  const login = withLoginOut({ path: wanted, user: draft.user, secret: draft.secret });
  if (!login.ok) return stop(login.error);
  if (login.value.isTaken)
    return hint(`A login stands in it. The password goes into its own field, and ${SECRET_PLACE} takes its place.`);
  if (asksForLogin(wanted) && draft.user === '' && draft.secret === '')
    return hint('It needs the account, and none is entered.');
  if (wanted.includes(' ')) return hint('A space stands in it: it is sent as %20.');
  if (hasBlankEnd(draft.path)) return hint('A space at the end is removed.');
  const sameButCase = workedPaths.find((worked) => worked !== wanted && worked.toLowerCase() === wanted.toLowerCase());
  if (sameButCase !== undefined && !workedPaths.includes(wanted))
    return hint(`${sameButCase} worked before; upper and lower case differ here.`);
  return NONE;
};

const user: Remarks = (draft) => {
  if (draft.user.length > TEXT_LIMITS.user) return tooLong(TEXT_LIMITS.user, draft.user);
  if (hasControl(draft.user)) return STEERS;
  if (hasBlankEnd(draft.user)) return hint('A space at the end counts.');
  if (draft.user.includes(':')) return hint('A Basic login allows no “:” in it.');
  return encodeUserinfo(draft.user) === draft.user ? NONE : hint('Encoded in the URL for you.');
};

// Says that a sign needs encoding, not which: the screen tells nothing of a secret.
const secret: Remarks = (draft) => {
  if (draft.secret.length > TEXT_LIMITS.secret) return tooLong(TEXT_LIMITS.secret, draft.secret);
  if (hasControl(draft.secret)) return STEERS;
  if (hasBlankEnd(draft.secret)) return hint('A space at the end counts.');
  return encodeUserinfo(draft.secret) === draft.secret ? NONE : hint('Encoded in the URL for you.');
};

const FIELDS: Readonly<Record<AddressField, Remarks>> = { host, port, path, user, secret };

/** What is wrong, or likely wrong, with an address as it is typed: at most one remark a field, what stops it first. */
export function addressRemarks(
  draft: AddressDraft,
  around: AddressSurroundings,
): Readonly<Partial<Record<AddressField, AddressRemark>>> {
  const remarks: Partial<Record<AddressField, AddressRemark>> = {};
  for (const field of ['host', 'port', 'path', 'user', 'secret'] as const) {
    const [first] = FIELDS[field](draft, around);
    if (first) remarks[field] = { field, ...first };
  }
  return remarks;
}
