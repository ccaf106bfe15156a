import { text as readAll } from 'node:stream/consumers';
import { UsageError } from './usage-error.ts';

/** A secret that was handed over by the environment or by standard input; never by an argument, which others can list. */
export async function readSecret(variable: string | undefined, fromStdin: boolean): Promise<string | null> {
  if (variable !== undefined && fromStdin) throw new UsageError('--pass-env and --pass-stdin exclude each other.');
  if (fromStdin) return (await readAll(process.stdin)).replace(/\r?\n$/, '');
  if (variable === undefined) return null;
  const secret = process.env[variable];
  if (secret === undefined) throw new UsageError(`--pass-env: the variable ${variable} is not set.`);
  return secret;
}
