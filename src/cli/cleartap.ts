import { complain } from './print.ts';
import { probeCommand } from './probe-command.ts';
import { USAGE } from './usage.ts';
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
