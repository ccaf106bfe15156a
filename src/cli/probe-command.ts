import { text as readAll } from 'node:stream/consumers';
import { parseArgs } from 'node:util';
import { sayMs, sayRate, sayShare } from '../core/base/say.ts';
import { readTarget } from '../core/net/target.ts';
import { reportOfBadTarget } from '../core/probe/probe-report.ts';
import type { ProbeReport } from '../core/probe/probe-types.ts';
import { systemClock, systemEntropy } from '../server/adapters/system.ts';
import { createTcpDialer } from '../server/adapters/tcp-dialer.ts';
import { runProbe } from '../server/works/run-probe.ts';
import { print, printJson } from './print.ts';
import { UsageError } from './usage-error.ts';

export const PROBE_USAGE = `cleartap probe rtsp://host:port/path [--user NAME] [--pass-env VAR | --pass-stdin]
               [--transport tcp|udp|auto] [--seconds 3] [--timeout 5] [--no-media] [--allow-public] [--json]`;

const TRANSPORTS = ['tcp', 'udp', 'auto'] as const;

function positive(name: string, text: string, max: number): number {
  const value = Number(text);
  if (text.trim() === '' || !(value > 0 && value <= max))
    throw new UsageError(`--${name}: expected a number above 0 up to ${max}, got “${text}”.`);
  return value;
}

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
      transport: { type: 'string', default: 'auto' },
      seconds: { type: 'string', default: '3' },
      timeout: { type: 'string', default: '5' },
      media: { type: 'boolean', default: true },
      'allow-public': { type: 'boolean', default: false },
      json: { type: 'boolean', default: false },
    },
  });
  const [target, ...rest] = positionals;
  if (target === undefined || rest.length > 0) throw new UsageError('Expected one URL.');
  if (values['pass-env'] !== undefined && values['pass-stdin'])
    throw new UsageError('--pass-env and --pass-stdin exclude each other.');
  const transport = TRANSPORTS.find((one) => one === values.transport);
  if (!transport) throw new UsageError(`--transport: expected tcp, udp or auto, got “${values.transport}”.`);
  const seconds = positive('seconds', values.seconds, 3600);
  const timeoutMs = positive('timeout', values.timeout, 600) * 1000;
  const secret = await readSecret(values['pass-env'], values['pass-stdin'] === true);

  const read = readTarget(target, values.user ?? null, secret);
  let report: ProbeReport;
  if (!read.ok) report = reportOfBadTarget(read.error);
  else {
    const world = {
      dialer: createTcpDialer({ allowPublic: values['allow-public'] }),
      clock: systemClock,
      entropy: systemEntropy,
    };
    report = await runProbe(
      { ...read.value, seconds, timeoutMs, media: values.media, transport },
      world,
      cancelOnSignal(),
    );
  }
  if (values.json) printJson(report);
  else print(describe(report));
  return report.verdict === 'fail' ? 1 : 0;
}

async function readSecret(variable: string | undefined, fromStdin: boolean): Promise<string | null> {
  if (fromStdin) return (await readAll(process.stdin)).replace(/\r?\n$/, '');
  if (variable === undefined) return null;
  const secret = process.env[variable];
  if (secret === undefined) throw new UsageError(`--pass-env: the variable ${variable} is not set.`);
  return secret;
}

function cancelOnSignal(): AbortSignal {
  const controller = new AbortController();
  for (const name of ['SIGINT', 'SIGTERM'] as const)
    process.once(name, () => controller.abort(new UsageError('Cancelled.')));
  return controller.signal;
}

/** The report for eyes. */
function describe(report: ProbeReport): string {
  const lines = [`${report.target.url || 'no URL'}: ${report.verdict}${report.cause ? ` (${report.cause})` : ''}`, ''];
  for (const { name, status, durationMs, note, ok } of report.steps)
    lines.push(
      `  ${ok ? ' ' : '×'} ${name.padEnd(15)} ${String(status ?? '').padStart(3)} ${sayMs(durationMs).padStart(9)}  ${note ?? ''}`.trimEnd(),
    );
  for (const { kind, codec, measured } of report.media) {
    if (!measured) continue;
    const size = measured.width ? `, ${measured.width}×${measured.height}` : '';
    const fps = measured.fps === null ? '' : `, ${measured.fps.toFixed(1)} frames a second`;
    lines.push(
      '',
      `  ${kind} ${codec}${size}${fps}, ${measured.bitrateKbps === null ? 'no rate measured' : sayRate(measured.bitrateKbps)}, ${measured.lost} of ${measured.packets + measured.lost} lost (${sayShare(measured.lossRatio)})`,
    );
  }
  for (const finding of report.findings)
    lines.push(
      '',
      `  ${finding.severity}: ${finding.title}`,
      `    ${finding.because}`,
      ...finding.do.map((step) => `    → ${step}`),
    );
  return `${lines.join('\n')}\n`;
}
