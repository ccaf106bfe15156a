import { ONVIF_USAGE } from './onvif-usage.ts';
import { complain } from './print.ts';
import { PROBE_USAGE, probeCommand } from './probe-command.ts';
import { SCAN_USAGE } from './scan-usage.ts';
import { SESSIONS_USAGE } from './sessions-usage.ts';
import { InputError, UsageError } from './usage-error.ts';

type Command = (args: readonly string[]) => Promise<number>;

/** Loaded when asked for: a probe starts without the encoder and the schemas. */
const COMMANDS: Readonly<Record<string, () => Promise<Command>>> = {
  probe: async () => probeCommand,
  check: async () => (await import('./check-command.ts')).checkCommand,
  card: async () => (await import('./card-command.ts')).cardCommand,
  rehearse: async () => (await import('./rehearse-command.ts')).rehearseCommand,
  scan: async () => (await import('./scan-command.ts')).scanCommand,
  onvif: async () => (await import('./onvif-command.ts')).onvifCommand,
  sessions: async () => (await import('./sessions-command.ts')).sessionsCommand,
  standins: async () => (await import('./standins-command.ts')).standinsCommand,
};

const USAGE = `usage:
  ${PROBE_USAGE}
  cleartap check FILE.cleartap.json [--secrets FILE.json] [--apply RULE [--out FILE]] [--json]
  ${SCAN_USAGE}
  ${ONVIF_USAGE}
  ${SESSIONS_USAGE}
  cleartap card --size BYTES [--limit GIB] [--image FILE [--sha256 HEX] [--name NAME]] [--json]
  cleartap rehearse [SCRIPT.json] [--json]
  cleartap standins [--json]
`;

const isBadOption = (error: unknown): error is Error =>
  error instanceof Error && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS');

async function main(): Promise<number> {
  const [name = '', ...args] = process.argv.slice(2);
  const load = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  try {
    if (!load) throw new UsageError(name === '' ? 'A command is needed.' : `There is no command “${name}”.`);
    const command = await load();
    return await command(args);
  } catch (error) {
    if (error instanceof InputError) {
      complain(`${error.message}\n`);
      return 2;
    }
    if (!(error instanceof UsageError) && !isBadOption(error)) throw error;
    complain(`${error.message}\n\n${USAGE}`);
    return 2;
  }
}

process.exitCode = await main();
