import { parseArgs } from 'node:util';
import { oneLine } from '../core/base/control-signs.ts';
import { sayMany } from '../core/base/say.ts';
import type { Site } from '../core/document/site.ts';
import { matchSeen } from '../core/evidence/seen-cameras.ts';
import { parseScanRange } from '../core/net/scan-range.ts';
import { USUAL_PORTS } from '../core/scan/greetings.ts';
import { MOST_PORTS, readPorts, SCAN_RANGES, USUAL_PACE } from '../core/scan/scan-plan.ts';
import type { ScanEvent, ScanSummary } from '../core/scan/scan-types.ts';
import type { DoorKind, SeenHost } from '../core/scan/seen.ts';
import { createRealFinder, discoveryTarget } from '../server/adapters/real-finder.ts';
import { runScan } from '../server/works/run-scan.ts';
import { cancelOnSignal } from './cancel-on-signal.ts';
import { complain, print, printJson } from './print.ts';
import { createWorld } from './read-options.ts';
import { readSite } from './read-site.ts';
import { UsageError } from './usage-error.ts';

/** One host as far as it is known, whatever its doors. */
interface AtHost {
  readonly host: string;
  readonly identity: string | null;
  readonly mac: string | null;
  readonly name: string | null;
  readonly hardware: string | null;
  /** Of the site, by what does not change. */
  readonly camera: string | null;
  readonly note: string | null;
}
interface Found extends AtHost {
  readonly port: number;
  readonly is: DoorKind;
  readonly server: string | null;
  readonly title: string | null;
}

const orNull = (text: string): string | null => (text === '' ? null : text);

const hostOf = (seen: SeenHost, camera: string | null): AtHost => ({
  host: seen.host,
  identity: seen.endpoints[0] ?? null,
  mac: orNull(seen.mac),
  name: orNull(seen.name),
  hardware: orNull(seen.hardware),
  camera,
  note: orNull(
    [
      ...(seen.answersAll ? ['accepts every connection: its answers prove little'] : []),
      ...(seen.endpoints.length > 1 ? [`${seen.endpoints.length} ONVIF identities answer from this address`] : []),
      ...(seen.alsoAt.length > 0 ? [`reports ${seen.alsoAt.join(', ')} as its own address`] : []),
    ].join('; '),
  ),
});

const doorsOf = (seen: SeenHost, camera: string | null): readonly Found[] =>
  seen.doors.map(({ port, is, server, title, isSlow }) => {
    const { note, ...host } = hostOf(seen, camera);
    return {
      ...host,
      port,
      is,
      server: orNull(server),
      title: orNull(title),
      note: isSlow ? ['slow to answer', ...(note === null ? [] : [note])].join('; ') : note,
    };
  });

/** Looks through a range. Exit code 2 for a range that is refused, 1 when it was cut short. */
export async function scanCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      ports: { type: 'string', default: USUAL_PORTS.join(',') },
      rate: { type: 'string', default: String(USUAL_PACE.rate) },
      timeout: { type: 'string', default: String(USUAL_PACE.timeoutMs / 1000) },
      discover: { type: 'boolean', default: false },
      'discover-at': { type: 'string' },
      site: { type: 'string' },
      'allow-public': { type: 'boolean', default: false },
      json: { type: 'boolean', default: false },
    },
  });
  const [text, ...rest] = positionals;
  const isDiscovering = values.discover || values['discover-at'] !== undefined;
  if (rest.length > 0 || (text === undefined && !isDiscovering)) throw new UsageError('Expected one range.');
  const allowPublic = values['allow-public'];
  const range = text === undefined ? null : parseScanRange(text, allowPublic);
  if (range && !range.ok) throw new UsageError(range.error.message);
  const ports = readPorts(values.ports);
  if (!ports)
    throw new UsageError(`--ports: expected up to ${MOST_PORTS} numbers from 1 to 65535, got “${values.ports}”.`);
  const pace = {
    rate: numberOf('rate', values.rate, SCAN_RANGES.rate),
    timeoutMs:
      numberOf('timeout', values.timeout, {
        min: SCAN_RANGES.timeoutMs.min / 1000,
        max: SCAN_RANGES.timeoutMs.max / 1000,
      }) * 1000,
  };
  if (!Number.isInteger(pace.rate)) throw new UsageError(`--rate: expected a whole number, got “${values.rate}”.`);
  const site = values.site === undefined ? null : await readSite(values.site);
  const world = createWorld(allowPublic, createRealFinder(discoveryTarget(values['discover-at'])));
  const hosts = new Map<string, SeenHost>();
  const ended: { summary?: ScanSummary } = {};
  await runScan(
    { range: range?.value ?? null, ports, pace, isDiscovering },
    world,
    cancelOnSignal(),
    (event: ScanEvent) => {
      if (event.kind === 'seen') hosts.set(event.host.host, event.host);
      if (event.kind === 'trouble') complain(`${event.note}\n`);
      if (event.kind === 'ended') ended.summary = event.summary;
    },
  );
  const seen = [...hosts.values()];
  const cameras = site ? camerasAt(site, seen) : new Map<string, string>();
  const cameraAt = ({ host }: SeenHost): string | null => cameras.get(host) ?? null;
  const found = seen.flatMap((one) => doorsOf(one, cameraAt(one)));
  // refused everywhere, or known to the neighbours alone: somebody is there all the same
  const shut = seen.filter(({ doors }) => doors.length === 0).map((one) => hostOf(one, cameraAt(one)));
  const { summary } = ended;
  const asked = summary?.asked ?? 0;
  const seconds = Number((summary?.seconds ?? 0).toFixed(3));
  const said = text ?? 'by WS-Discovery';
  if (values.json)
    printJson({
      range: said,
      found,
      shut,
      asked,
      seconds,
      silent: summary?.silent ?? 0,
      refused: summary?.refused ?? 0,
      leftOut: summary?.leftOut ?? 0,
      isCancelled: summary?.isCancelled ?? true,
    });
  else {
    const line = (where: string, is: string, { mac, camera, note }: AtHost, more: readonly (string | null)[]): void => {
      const parts = [where.padEnd(22), is.padEnd(7), (mac ?? '-').padEnd(17), camera, ...more, note];
      print(
        `${parts
          .map((part) => oneLine(part ?? ''))
          .join('  ')
          .trimEnd()}\n`,
      );
    };
    for (const one of found) line(`${one.host}:${one.port}`, one.is, one, [one.title, one.server]);
    for (const one of shut) line(one.host, 'shut', one, []);
    print(
      `${said}: ${sayMany(asked, 'call')} in ${seconds.toFixed(1)} s, ${sayMany(hosts.size, 'address', 'addresses')} answered\n`,
    );
  }
  return summary?.isCancelled === false ? 0 : 1;
}

function numberOf(name: string, text: string, { min, max }: { readonly min: number; readonly max: number }): number {
  const value = Number(text);
  if (text.trim() === '' || !(value >= min && value <= max))
    throw new UsageError(`--${name}: expected a number from ${min} to ${max}, got “${text}”.`);
  return value;
}

/** Names of the site's cameras by the host that is one of them. */
const camerasAt = (site: Site, seen: readonly SeenHost[]): ReadonlyMap<string, string> =>
  new Map(
    matchSeen(site, seen).hosts.flatMap(({ host, cameras }) =>
      cameras.length === 0 ? [] : [[host.host, cameras.map(({ name }) => name).join(', ')] as const],
    ),
  );
