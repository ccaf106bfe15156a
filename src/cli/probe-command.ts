import { parseArgs } from 'node:util';
import { oneLine } from '../core/base/control-signs.ts';
import { sayMs, sayRate, sayShare } from '../core/base/say.ts';
import { PORT_RANGE } from '../core/net/port-range.ts';
import { readTarget } from '../core/net/target.ts';
import { reportOfBadTarget } from '../core/probe/probe-report.ts';
import type { ProbeReport } from '../core/probe/probe-types.ts';
import type { World } from '../server/drive.ts';
import { runDiagnosed } from '../server/works/run-diagnosed.ts';
import { runProbe } from '../server/works/run-probe.ts';
import { cancelOnSignal } from './cancel-on-signal.ts';
import { linesOf, print, printJson } from './print.ts';
import type { SiteProbeOptions } from './probe-site.ts';
import { createWorld, readPositive, readTransport } from './read-options.ts';
import { readSecret } from './read-secret.ts';
import { tellRefusedLogins } from './tell-refused-logins.ts';
import { UsageError } from './usage-error.ts';

export const PROBE_USAGE = `cleartap probe rtsp://host:port/path [--user NAME] [--pass-env VAR | --pass-stdin]
               [--transport tcp|udp|auto] [--seconds 3] [--timeout 5] [--no-media] [--no-experiments] [--onvif PORT] [--tunnel]
               [--allow-public] [--json]
  cleartap probe --site FILE.cleartap.json [--again] [--passwords FILE.json] [--pass-env VAR | --pass-stdin] … [--json]`;

/** Probes once. Exit code 0 verdict ok or warn, 1 fail, 2 wrong usage. */
export async function probeCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    allowNegative: true,
    options: {
      user: { type: 'string' },
      'pass-env': { type: 'string' },
      'pass-stdin': { type: 'boolean' },
      site: { type: 'string' },
      again: { type: 'boolean', default: false },
      passwords: { type: 'string' },
      transport: { type: 'string', default: 'auto' },
      seconds: { type: 'string', default: '3' },
      timeout: { type: 'string', default: '5' },
      media: { type: 'boolean', default: true },
      experiments: { type: 'boolean', default: true },
      onvif: { type: 'string' },
      tunnel: { type: 'boolean', default: false },
      'allow-public': { type: 'boolean', default: false },
      json: { type: 'boolean', default: false },
    },
  });
  const [target, ...rest] = positionals;
  if (values.site !== undefined && (target !== undefined || values.user !== undefined))
    throw new UsageError('--site takes URLs and accounts from its file: give neither.');
  if (values.site === undefined && (values.again || values.passwords !== undefined))
    throw new UsageError('--again and --passwords belong to --site.');
  if (values.site === undefined && (target === undefined || rest.length > 0)) throw new UsageError('Expected one URL.');
  const transport = readTransport(values.transport);
  const seconds = readPositive('seconds', values.seconds, 3600);
  const timeoutMs = readPositive('timeout', values.timeout, 600) * 1000;
  const secret = await readSecret(values['pass-env'], values['pass-stdin'] === true);

  const onvifPort = values.onvif === undefined ? null : readPositive('onvif', values.onvif, PORT_RANGE.max);
  const world = createWorld(values['allow-public']);
  const run = { seconds, timeoutMs, media: values.media, transport };
  if (values.site !== undefined) {
    const { site, again, passwords, json } = values;
    return await wholeSite(site, { ...run, again, secretOfAll: secret }, { secrets: passwords, json }, world);
  }
  const read = readTarget(target ?? '', values.user ?? null, secret, values.tunnel);
  const report = read.ok
    ? await (values.experiments
        ? runDiagnosed({ ...read.value, ...run, paths: [], onvifPort }, world, cancelOnSignal())
        : runProbe({ ...read.value, ...run }, world, cancelOnSignal()))
    : reportOfBadTarget(read.error);
  if (values.json) printJson(report);
  else print(describe(report));
  tellRefusedLogins(world);
  return report.verdict === 'fail' ? 1 : 0;
}

/** All cameras of a site file. Exit code 1 when one of them fails. */
async function wholeSite(
  file: string,
  options: Omit<SiteProbeOptions, 'secrets'>,
  { secrets, json }: { readonly secrets: string | undefined; readonly json: boolean },
  world: World,
): Promise<number> {
  const [{ readSite, readText }, { probeSite }, { readSecrets }] = await Promise.all([
    import('./read-site.ts'),
    import('./probe-site.ts'),
    import('./read-secrets.ts'),
  ]);
  const site = await readSite(file);
  const known = secrets === undefined ? new Map<string, string>() : readSecrets(await readText(secrets), secrets);
  const found = await probeSite(
    site,
    { ...options, secrets: known },
    world,
    cancelOnSignal(),
    ({ camera, stream, report }) => {
      if (!json) print(`${oneLine(camera)}, ${oneLine(stream)}: ${describe(report)}\n`);
    },
  );
  if (json) printJson(found);
  else {
    for (const { camera, why } of found.leftOut) print(`${oneLine(camera)}: left out, ${why}\n`);
    const failed = found.probed.filter(({ verdict }) => verdict === 'fail').length;
    print(`${found.probed.length} probed, ${failed} failed, ${found.leftOut.length} left out\n`);
  }
  tellRefusedLogins(world);
  return found.probed.some(({ verdict }) => verdict === 'fail') ? 1 : 0;
}

/** The report for eyes. */
function describe(report: ProbeReport): string {
  const lines = [`${report.target.url || 'no URL'}: ${report.verdict}${report.cause ? ` (${report.cause})` : ''}`, ''];
  for (const { name, status, durationMs, note, ok } of report.steps)
    lines.push(
      `  ${ok ? ' ' : '×'} ${name.padEnd(15)} ${String(status ?? '').padStart(3)} ${sayMs(durationMs).padStart(9)}  ${note ?? ''}`.trimEnd(),
    );
  for (const { kind, codec, declared, measured } of report.media) {
    if (!measured) continue;
    const size = measured.width
      ? `, ${measured.width}×${measured.height}`
      : declared.width
        ? `, ${declared.width}×${declared.height} as declared`
        : '';
    const fps = measured.fps === null ? '' : `, ${measured.fps.toFixed(1)} frames a second`;
    lines.push(
      '',
      `  ${kind} ${codec}${size}${fps}, ${measured.bitrateKbps === null ? 'no rate measured' : sayRate(measured.bitrateKbps)}, ${measured.lost} of ${measured.packets + measured.lost} lost (${sayShare(measured.lossRatio)})`,
    );
  }
  lines.push(...linesOf(report.findings));
  return `${lines.join('\n')}\n`;
}
