import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';

/** How fast a machine is, and whether it is left alone. */
export interface Machine {
  /** How many times as long as usual a fixed piece of work takes. */
  readonly slowness: number;
  /** Of two cores, how much is ours: 0 to 1. */
  readonly share: number;
  /** As good as all of it: nobody else was at work. */
  readonly isOurs: boolean;
}

/** Between before and after: a machine that changes so much in between was not the same one. */
const MOST_CHANGE = 1.25;

export async function measureMachine(root: string): Promise<Machine> {
  const { stdout } = await promisify(execFile)(process.execPath, [join(root, 'scripts/check/machine.mjs')]);
  return JSON.parse(stdout);
}

export const isDisturbed = (before: Machine, after: Machine): boolean =>
  !before.isOurs ||
  !after.isOurs ||
  Math.max(before.slowness, after.slowness) > MOST_CHANGE * Math.min(before.slowness, after.slowness);

export const sayMachine = ({ slowness, share }: Machine): string =>
  `${slowness.toFixed(2)} of the usual time, ${(100 * share).toFixed(0)} % of two cores`;
