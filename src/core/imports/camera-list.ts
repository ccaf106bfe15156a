import Papa from 'papaparse';
import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { type Fault, fault } from '../base/fault.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { err, ok, type Result } from '../base/result.ts';
import { withLoginOut } from '../net/address-login.ts';
import { addressRemarks } from '../net/address-remarks.ts';
import { type CameraLine, lineOfScheme } from '../net/camera-line.ts';
import { parseMac } from '../net/mac.ts';
import { DEFAULT_PORTS, pathAndQuery } from '../net/stream-url.ts';
import { parseStreamUrl } from '../net/stream-url-parser.ts';

/** What a column of a list may hold. `none` is left out. */
export const LIST_FIELDS = [
  'none',
  'name',
  'place',
  'maker',
  'model',
  'url',
  'host',
  'port',
  'user',
  'password',
  'main path',
  'sub path',
  'mac',
  'serial',
] as const;
export type ListField = (typeof LIST_FIELDS)[number];

/** A table as it stands in a file: headings, and rows with their line in the file. */
export interface ListTable {
  readonly headings: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}

/** One camera of a list, sound enough to be added. */
export interface ListedCamera {
  readonly name: string;
  readonly place: string;
  readonly maker: string;
  readonly model: string;
  readonly host: string;
  readonly line: CameraLine;
  readonly port: number;
  readonly user: string;
  /** Goes to the vault, never into a document. */
  readonly secret: string;
  readonly paths: readonly { readonly label: string; readonly path: string }[];
  /** As it was written; empty where the list has none. */
  readonly mac: string;
  readonly serial: string;
  /** A login stood in a path and was taken out. */
  readonly isLoginTaken: boolean;
}

/** What the site has already: a list may not bring more than it can hold. */
export interface ListPlace {
  readonly cameras: readonly { readonly name: string }[];
  readonly models: readonly { readonly maker: string; readonly model: string }[];
}

export type ListRow =
  | { readonly line: number; readonly name: string; readonly camera: ListedCamera; readonly problem: null }
  | { readonly line: number; readonly name: string; readonly camera: null; readonly problem: string };

/** Lists of cameras are a few hundred lines. */
export const MOST_LIST_BYTES = 4_000_000;
const MAX_ROWS = 5000;
const MAX_COLUMNS = 100;
const TELL_EVERY_ROWS = 100;

/** Headings as people write them, without signs and in lower case. */
const HEADINGS: Readonly<Record<Exclude<ListField, 'none'>, readonly string[]>> = {
  name: ['name', 'camera', 'cameraname', 'title', 'label', 'channelname'],
  place: ['place', 'location', 'where', 'site', 'room', 'position'],
  maker: ['maker', 'make', 'manufacturer', 'brand', 'vendor'],
  model: ['model', 'type', 'modelname', 'product'],
  url: ['url', 'rtsp', 'rtspurl', 'streamurl', 'stream', 'uri', 'mainurl'],
  host: ['host', 'ip', 'address', 'ipaddress', 'hostname', 'ipv4', 'camip'],
  port: ['port', 'rtspport'],
  user: ['user', 'username', 'account', 'login', 'usr'],
  password: ['secret', 'password', 'pass', 'pwd', 'passwd'],
  'main path': ['path', 'mainpath', 'main', 'rtsppath', 'mainstream'],
  'sub path': ['subpath', 'sub', 'substream', 'secondpath'],
  mac: ['mac', 'macaddress', 'hwaddress', 'hardwareaddress', 'ethernet'],
  serial: ['serial', 'serialnumber', 'sn', 'serialno'],
};
const plain = (heading: string): string => heading.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Reads the text of a CSV file (RFC 4180; comma, semicolon or tab). Rows are not judged yet. */
export function readListTable(text: string): Result<ListTable, Fault> {
  if (text.length > MOST_LIST_BYTES) return err(LIST_TOO_LARGE);
  if (text.includes('\u0000') || text.includes('\ufffd'))
    return err(fault('site.list-no-text', 'This is not UTF-8 text. Save the list as CSV, UTF-8, and import that.'));
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: false });
  const lines = data.map((cells, index) => ({ line: index + 1, cells: cells.map((cell) => cell.trim()) }));
  const filled = lines.filter(({ cells }) => cells.some((cell) => cell !== ''));
  const [head, ...rows] = filled;
  if (!head || rows.length === 0)
    return err(fault('site.list-empty', 'Expected a line of headings and a line for each camera; there is less.'));
  if (head.cells.length > MAX_COLUMNS || rows.length > MAX_ROWS)
    return err(fault('site.list-too-large', `Expected up to ${MAX_ROWS} rows and ${MAX_COLUMNS} columns.`));
  return ok({ headings: head.cells, rows });
}

/** Said before such a file is read at all. */
export const LIST_TOO_LARGE: Fault = fault(
  'site.list-too-large',
  'This file is larger than the 4 MB that a camera list may have. Save the sheet with only the cameras as CSV, and import that.',
);

/** Which column holds what, by its heading; the first of two that mean the same. */
export function guessColumns(headings: readonly string[]): readonly ListField[] {
  const taken = new Set<ListField>();
  return headings.map((heading) => {
    const field = LIST_FIELDS.find(
      (candidate) => candidate !== 'none' && !taken.has(candidate) && HEADINGS[candidate].includes(plain(heading)),
    );
    if (field) taken.add(field);
    return field ?? 'none';
  });
}

/**
 * Turns rows into cameras. A row that does not fit is named with what is wrong, and the others are not held up.
 * @param columns what each column holds, in the table's order
 * @param onRows how many rows were read, now and then
 */
export function camerasOfList(
  { rows }: ListTable,
  columns: readonly ListField[],
  here: ListPlace,
  onRows: (done: number) => void = () => {},
): readonly ListRow[] {
  const names = new Set(here.cameras.map(({ name }) => name.toLowerCase()));
  const models = new Set(here.models.map(modelKey));
  let count = here.cameras.length;
  return rows.map(({ line, cells }, index) => {
    if (index % TELL_EVERY_ROWS === 0) onRows(index);
    const cell = (field: ListField): string => {
      const at = columns.indexOf(field);
      const text = at < 0 ? '' : (cells[at] ?? '');
      // a cell may go on over several lines, a name may not; what is wrong with a login or a path is said
      return field === 'password' || field === 'user' ? text : oneLine(text);
    };
    const name = cell('name');
    const refused = (problem: string): ListRow => ({ line, name, camera: null, problem });
    if (name === '' || name.length > TEXT_LIMITS.name)
      return refused(`A name of 1 to ${TEXT_LIMITS.name} characters is needed.`);
    if (names.has(name.toLowerCase())) return refused('A camera of this name is here already.');
    const read = cameraOf(cell);
    if (!read.ok) return refused(read.error);
    if (count >= LIST_LIMITS.cameras) return refused(`A site holds up to ${LIST_LIMITS.cameras} cameras.`);
    const model = modelKey(read.value);
    if (read.value.model !== '' && !models.has(model) && models.size >= LIST_LIMITS.models)
      return refused(`A site holds up to ${LIST_LIMITS.models} models; this would be one more.`);
    if (read.value.model !== '') models.add(model);
    count += 1;
    names.add(name.toLowerCase());
    return { line, name, camera: { name, ...read.value }, problem: null };
  });
}

/** By what two rows mean the same make and model. */
export const modelKey = ({ maker, model }: { readonly maker: string; readonly model: string }): string =>
  `${maker} ${model}`.toLowerCase();

function cameraOf(cell: (field: ListField) => string): Result<Omit<ListedCamera, 'name'>, string> {
  let host = cell('host');
  let port = cell('port') || String(DEFAULT_PORTS.rtsp);
  let user = cell('user');
  let secret = cell('password');
  let main = cell('main path');
  let line: CameraLine = 'plain';
  if (cell('url') !== '') {
    const parsed = parseStreamUrl(cell('url'));
    if (!parsed.ok) return err(`${parsed.error.message}.`);
    const { url } = parsed.value;
    const by = lineOfScheme(url.scheme);
    if (by === null || by === 'tunnel') return err(`Expected rtsp:// or rtsps://, got ${url.scheme}://.`);
    line = by;
    host = url.host;
    port = String(url.port);
    user ||= url.user ?? '';
    secret ||= url.password ?? '';
    main ||= pathAndQuery(url);
  }
  const listed = [
    { label: 'main', path: main },
    { label: 'sub', path: cell('sub path') },
  ].filter(({ label, path }) => label === 'main' || path !== '');
  const paths: { label: string; path: string }[] = [];
  for (const { label, path } of listed) {
    const login = withLoginOut({ path, user, secret });
    if (!login.ok) return err(`path: ${login.error}`);
    ({ user, secret } = login.value);
    paths.push({ label, path: login.value.path });
  }
  const isLoginTaken = paths.some(({ path }, at) => path !== listed[at]?.path);
  for (const { path } of paths) {
    const remarks = addressRemarks({ host, port, path, user, secret }, { networks: [], workedPaths: [] });
    const stops = Object.values(remarks).find((remark) => remark.stops);
    if (stops) return err(`${stops.field}: ${stops.text}`);
  }
  const [place, maker, model] = [
    clipText(cell('place'), TEXT_LIMITS.place),
    clipText(cell('maker'), TEXT_LIMITS.name),
    clipText(cell('model'), TEXT_LIMITS.name),
  ];
  if (cell('mac') !== '' && !parseMac(cell('mac'))) return err('mac: six pairs of hexadecimal digits are expected.');
  const mac = parseMac(cell('mac'))?.mac ?? '';
  const serial = oneLine(clipText(cell('serial'), TEXT_LIMITS.serial));
  return ok({ place, maker, model, host, line, port: Number(port), user, secret, paths, mac, serial, isLoginTaken });
}
