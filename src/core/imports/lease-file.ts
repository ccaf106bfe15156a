import Papa from 'papaparse';
import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { type Fault, fault } from '../base/fault.ts';
import { isRecord } from '../base/is-record.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { isTooDeep, TOO_DEEP } from '../base/read-json.ts';
import { err, ok, type Result } from '../base/result.ts';
import { parseIpv4 } from '../net/ipv4.ts';
import { isNoMac, parseMac } from '../net/mac.ts';

/** What a router keeps: as it was decided, or as it happened. */
export type LeaseKind = 'reservation' | 'lease';

/** One device of such a file. */
export interface LeaseEntry {
  readonly kind: LeaseKind;
  /** Lower case, with colons. */
  readonly mac: string;
  readonly ip: string;
  readonly name: string;
  /** In the file, or its place in a list. */
  readonly line: number;
}

export interface LeaseFile {
  readonly format: 'dnsmasq' | 'dnsmasq leases' | 'Kea' | 'CSV';
  readonly entries: readonly LeaseEntry[];
  /** Lines that say something and could not be read, the first of them with why. */
  readonly problems: readonly { readonly line: number; readonly why: string }[];
  readonly problemCount: number;
  /** Entries beyond what is kept. */
  readonly leftOut: number;
}

export type LeaseFaultCode = 'lease.too-large' | 'lease.encoding' | 'lease.not-json' | 'lease.empty';

/** Leases of a house are a few kilobytes; what is larger was something else, or of a provider. */
export const MAX_LEASE_BYTES = 16 * 1024 * 1024;
/** As many devices as a site may have cameras. */
const MOST_ENTRIES = 5000;
const MOST_PROBLEMS = 20;
const LONGEST_LINE = 1000;
const TELL_EVERY_LINES = 2000;

/** How much of the file was read, 0 to 1. */
type OnShare = (share: number) => void;

/** Collects entries, and what could not be read, within its bounds. */
class Collected {
  readonly entries: LeaseEntry[] = [];
  readonly problems: { line: number; why: string }[] = [];
  problemCount = 0;
  leftOut = 0;

  take(
    kind: LeaseKind,
    given: { readonly mac: string; readonly ip: string; readonly name: string },
    line: number,
  ): void {
    const mac = parseMac(given.mac);
    if (!mac || isNoMac(mac.mac)) return this.refuse(line, `“${shown(given.mac)}” is not a MAC address`);
    if (parseIpv4(given.ip.trim()) === null) return this.refuse(line, `“${shown(given.ip)}” is not an IPv4 address`);
    if (this.entries.length >= MOST_ENTRIES) {
      this.leftOut += 1;
      return;
    }
    const name = given.name.trim() === '*' ? '' : clipText(oneLine(given.name.trim()), TEXT_LIMITS.name);
    this.entries.push({ kind, mac: mac.mac, ip: given.ip.trim(), name, line });
  }
  refuse(line: number, why: string): void {
    this.problemCount += 1;
    if (this.problems.length < MOST_PROBLEMS) this.problems.push({ line, why });
  }
  as(format: LeaseFile['format']): LeaseFile {
    const { entries, problems, problemCount, leftOut } = this;
    return { format, entries, problems, problemCount, leftOut };
  }
}

const shown = (text: string): string => clipText(oneLine(text), 40);

/** Text of a file, or why it is none: what is in UTF-16 says so by its first two bytes, or by every second one. */
function textOfFile(bytes: Uint8Array): Result<string, Fault<LeaseFaultCode>> {
  const [first, second] = bytes;
  const mark =
    first === 0xff && second === 0xfe ? 'utf-16le' : first === 0xfe && second === 0xff ? 'utf-16be' : 'utf-8';
  try {
    const text = new TextDecoder(mark, { fatal: true }).decode(bytes);
    if (!text.includes('\u0000')) return ok(text.replace(/^\ufeff/, ''));
  } catch {
    // said below
  }
  return err(
    fault(
      'lease.encoding',
      'This is not UTF-8 text: it may be in another encoding, or compressed. Save it as plain text, UTF-8.',
    ),
  );
}

/** Comments that Kea allows in its JSON: `#`, `//` and between `/*` and its end. Those inside texts stay. */
function withoutComments(text: string): string {
  const kept: string[] = [];
  let from = 0;
  for (let at = 0; at < text.length; at++) {
    const sign = text[at];
    if (sign === '"') {
      for (at += 1; at < text.length && text[at] !== '"'; at++) if (text[at] === '\\') at += 1;
      continue;
    }
    const isBlock = sign === '/' && text[at + 1] === '*';
    if (!(sign === '#' || isBlock || (sign === '/' && text[at + 1] === '/'))) continue;
    kept.push(text.slice(from, at));
    const end = text.indexOf(isBlock ? '*/' : '\n', at + 1);
    from = end === -1 ? text.length : isBlock ? end + 2 : end;
    at = Math.max(at, from - 1);
  }
  kept.push(text.slice(from));
  return kept.join('');
}

/** Commas before a closing bracket, which Kea allows too. Each looks only as far as the next that says something. */
function withoutLastCommas(text: string): string {
  const kept: string[] = [];
  let from = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '"') for (at += 1; at < text.length && text[at] !== '"'; at++) if (text[at] === '\\') at += 1;
    if (text[at] !== ',') continue;
    let next = at + 1;
    while (next < text.length && (text[next] ?? '') <= ' ') next += 1;
    if (text[next] === '}' || text[next] === ']') {
      kept.push(text.slice(from, at));
      from = at + 1;
    }
    at = next - 1;
  }
  kept.push(text.slice(from));
  return kept.join('');
}

const textAt = (record: Readonly<Record<string, unknown>>, name: string): string => {
  const value = record[name];
  return typeof value === 'string' ? value : '';
};

/** Source: Kea Administrator Reference Manual, “Host Reservations in DHCPv4”, and the answer to `lease4-get-all`. */
function readKea(text: string): Result<LeaseFile, Fault<LeaseFaultCode>> {
  if (isTooDeep(text)) return err(fault('lease.not-json', TOO_DEEP));
  let document: unknown;
  try {
    document = JSON.parse(withoutLastCommas(withoutComments(text)));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return err(fault('lease.not-json', 'It begins like JSON and is not whole: export it again.'));
  }
  const found = new Collected();
  let place = 0;
  const takeAll = (list: unknown, kind: LeaseKind): void => {
    for (const one of Array.isArray(list) ? list : []) {
      place += 1;
      if (isRecord(one))
        found.take(
          kind,
          { mac: textAt(one, 'hw-address'), ip: textAt(one, 'ip-address'), name: textAt(one, 'hostname') },
          place,
        );
      else found.refuse(place, 'not a record of a device');
    }
  };
  const roots = (Array.isArray(document) ? document : [document]).filter(isRecord).slice(0, 100);
  for (const root of roots) {
    const server = isRecord(root.Dhcp4) ? root.Dhcp4 : root;
    takeAll(server.reservations, 'reservation');
    const networks = Array.isArray(server['shared-networks']) ? server['shared-networks'].filter(isRecord) : [];
    for (const holder of [server, ...networks])
      for (const subnet of Array.isArray(holder.subnet4) ? holder.subnet4.filter(isRecord) : [])
        takeAll(subnet.reservations, 'reservation');
    if (isRecord(root.arguments)) takeAll(root.arguments.leases, 'lease');
  }
  return ok(found.as('Kea'));
}

const COLUMNS = {
  mac: [
    ...['mac', 'macaddress', 'macaddr', 'hwaddr', 'hwaddress', 'hardwareaddress', 'hardware', 'ethernet', 'lladdr'],
    ...['physicaladdress', 'clientmac', 'clientmacaddress', 'devicemac', 'macadresse', 'adressemac'],
  ],
  ip: [
    ...['ip', 'ipaddress', 'ipaddr', 'address', 'ipv4', 'ipv4address', 'internetaddress', 'clientip', 'ipadresse'],
    ...['staticip', 'fixedip', 'fixedaddress', 'assignedip', 'reservedip', 'reservedipaddress', 'adresseip'],
  ],
  name: [
    ...['name', 'hostname', 'host', 'device', 'devicename', 'clientname', 'computername', 'description', 'label'],
    ...['gerätename', 'gertename', 'nom'],
  ],
} as const;
const plain = (heading: string): string => heading.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Where the columns of a table are; `null` when its first line is no heading of such a one. */
function columnsOf(line: string, delimiter: string): Columns | null {
  const headings = (Papa.parse<string[]>(line.slice(0, LONGEST_LINE), { delimiter }).data[0] ?? []).map(plain);
  const at = (names: readonly string[]): number => headings.findIndex((heading) => names.includes(heading));
  const [mac, ip, name] = [at(COLUMNS.mac), at(COLUMNS.ip), at(COLUMNS.name)];
  if (mac === -1 || ip === -1) return null;
  // a table that says when each entry ends is one of leases
  const isLease = headings.some(
    (heading) => heading === 'expire' || heading === 'expires' || heading === 'validlifetime',
  );
  const [lifetime, state] = [headings.indexOf('validlifetime'), headings.indexOf('state')];
  return { mac, ip, name, lifetime, state, kind: isLease ? 'lease' : 'reservation' };
}

/** Places of columns; -1 of one that is not there. */
interface Columns {
  readonly mac: number;
  readonly ip: number;
  readonly name: number;
  readonly lifetime: number;
  readonly state: number;
  readonly kind: LeaseKind;
}

/** “sep=;” in the first line says what divides the columns of the rest, as spreadsheets write it. */
function tableOf(text: string): { readonly table: string; readonly delimiter: string } {
  const said = /^sep=(.)\r?\n/i.exec(text.slice(0, 10));
  return said ? { table: text.slice(said[0].length), delimiter: said[1] ?? '' } : { table: text, delimiter: '' };
}

/**
 * A table. A file of leases that is written on and on, as Kea does, says the same address again when something changed: its
 * last line counts, and one that was released (lifetime 0), declined or ended (state) is none.
 * Source: Kea Administrator Reference Manual, “Memfile – Basic Storage for Leases”.
 */
function readCsv(text: string, columns: Columns, delimiter: string, onShare: OnShare): LeaseFile {
  const found = new Collected();
  const isLog = columns.lifetime !== -1;
  const last = new Map<string, { readonly cells: readonly string[]; readonly line: number }>();
  let line = 1;
  const take = (cells: readonly string[], at: number): void => {
    const cell = (column: number): string => unquoted(cells[column] ?? '');
    if (isLog && (cell(columns.lifetime) === '0' || !['', '0'].includes(cell(columns.state)))) return;
    found.take(columns.kind, { mac: cell(columns.mac), ip: cell(columns.ip), name: cell(columns.name) }, at);
  };
  Papa.parse<string[]>(text, {
    delimiter,
    skipEmptyLines: false,
    step: ({ data: cells, meta: { cursor } }) => {
      line += 1;
      if (line % TELL_EVERY_LINES === 0) onShare(cursor / text.length);
      if (line === 2 || cells.every((cell) => cell.trim() === '')) return; // the heading itself
      if (isLog) last.set((cells[columns.ip] ?? '').trim(), { cells, line: line - 1 });
      else take(cells, line - 1);
    },
  });
  for (const { cells, line: at } of last.values()) take(cells, at);
  return found.as('CSV');
}
/** Without the apostrophe by which a table tells a spreadsheet that a cell is no formula. */
const unquoted = (cell: string): string => cell.trim().replace(/^'(?=[=+\-@])/, '');

/** `dhcp-host=00:00:5e:00:53:21,10.77.4.21,sluice-rail,12h`, its parts in any order. Source: dnsmasq(8). */
function takeHostLine(found: Collected, value: string, line: number): void {
  const parts = value.split(',', 20).map((part) => part.trim());
  const macs = parts.filter((part) => parseMac(part) !== null);
  const ip = parts.find((part) => parseIpv4(part.replace(/^\[|\]$/g, '')) !== null);
  if (macs.length === 0) return found.refuse(line, 'no MAC address in it');
  if (ip === undefined) return found.refuse(line, 'no IPv4 address in it');
  const isName = (part: string): boolean =>
    part !== ip &&
    !macs.includes(part) &&
    !part.includes(':') &&
    part !== 'infinite' &&
    part !== 'ignore' &&
    !/^\d+[smhdw]?$/.test(part);
  for (const mac of macs) found.take('reservation', { mac, ip, name: parts.find(isName) ?? '' }, line);
}

/** One line after the other, without a list of all of them: a file may have a million. */
function* linesOf(text: string, onShare: OnShare): Generator<readonly [number, string]> {
  let line = 0;
  for (let from = 0; from <= text.length; ) {
    const end = text.indexOf('\n', from);
    const to = end === -1 ? text.length : end;
    line += 1;
    if (line % TELL_EVERY_LINES === 0) onShare(from / text.length);
    yield [line, text.slice(from, Math.min(to, from + LONGEST_LINE)).trim()];
    from = to + 1;
  }
}

const HOST_SETTING = /^dhcp-host\s{0,20}=\s{0,20}/;
/** A list by commas in which one part is a MAC address and another an IPv4 address, and no sentence. */
function isHostLine(said: string): boolean {
  if (said.startsWith('#') || !said.includes(',')) return false;
  const parts =
    said
      .split(' #', 1)[0]
      ?.split(',', 20)
      .map((part) => part.trim()) ?? [];
  return parts.some((part) => parseMac(part) !== null) && parts.some((part) => parseIpv4(part) !== null);
}

const LEASE_LINE = /^\d{1,12} /;

/** Settings and leases of dnsmasq: lines of other settings are none of ours. */
function readDnsmasq(text: string, onShare: OnShare): LeaseFile {
  const found = new Collected();
  let leases = 0;
  for (const [line, said] of linesOf(text, onShare)) {
    const setting = HOST_SETTING.exec(said);
    // a file of hosts alone has the same, without the setting's name (--dhcp-hostsfile)
    if (setting || isHostLine(said))
      takeHostLine(found, said.slice(setting?.[0].length ?? 0).split(' #', 1)[0] ?? '', line);
    else if (LEASE_LINE.test(said)) {
      leases += 1;
      const [, mac = '', ip = '', name = ''] = said.split(' ', 5);
      // IPv6 leases stand below a line of their own
      if (!ip.includes(':')) found.take('lease', { mac: mac.replace(/^\d{2}-(?=..:)/, ''), ip, name }, line);
    }
  }
  return found.as(leases > 0 && leases >= found.entries.length ? 'dnsmasq leases' : 'dnsmasq');
}

/**
 * Reservations and leases of a router, in the open formats that they are exported in.
 * @param onShare how much of it was read, 0 to 1, now and then; JSON is read in one piece and tells none
 */
export function readLeaseFile(
  bytes: Uint8Array,
  onShare: OnShare = () => {},
): Result<LeaseFile, Fault<LeaseFaultCode>> {
  if (bytes.length > MAX_LEASE_BYTES) return err(tooLarge(bytes.length));
  const decoded = textOfFile(bytes);
  if (!decoded.ok) return decoded;
  const text = decoded.value;
  const start = text.trimStart().slice(0, LONGEST_LINE);
  const { table, delimiter } = tableOf(text.trimStart());
  const columns = columnsOf(table.slice(0, LONGEST_LINE).split('\n', 1)[0] ?? '', delimiter);
  const read = isJson(start)
    ? readKea(text)
    : ok(columns ? readCsv(table, columns, delimiter, onShare) : readDnsmasq(text, onShare));
  if (read.ok && read.value.entries.length === 0 && read.value.problemCount === 0)
    return err(
      fault(
        'lease.empty',
        'No reservation and no lease found in it. Expected dnsmasq lines or a host file, Kea JSON or leases, or a table with columns for IP and MAC address.',
      ),
    );
  return read;
}

/** Kea's JSON may begin with comments by the sign that begins those of other files too: what follows them decides. */
function isJson(start: string): boolean {
  if (start.startsWith('/*') || start.startsWith('//')) return true;
  const first =
    start
      .split('\n')
      .find((line) => line.trim() !== '' && !line.trimStart().startsWith('#'))
      ?.trimStart() ?? '';
  return first.startsWith('{') || first.startsWith('[') || first.startsWith('//') || first.startsWith('/*');
}

/** Said before such a file is read at all. */
export const tooLarge = (byteCount: number): Fault<LeaseFaultCode> =>
  fault(
    'lease.too-large',
    `This file has ${Math.round(byteCount / 1e6)} MB; the leases of a house have a few kilobytes. Import the file of leases alone, below ${Math.round(MAX_LEASE_BYTES / 1e6)} MB.`,
  );
