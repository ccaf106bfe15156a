import { UsageError } from './usage-error.ts';

/** Aborts when somebody ends the command: what is open is told to let go. */
export function cancelOnSignal(): AbortSignal {
  const controller = new AbortController();
  for (const name of ['SIGINT', 'SIGTERM'] as const)
    process.once(name, () => controller.abort(new UsageError('Cancelled.')));
  return controller.signal;
}
