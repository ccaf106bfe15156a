import { AsyncLocalStorage } from 'node:async_hooks';
import { inspect } from 'node:util';
import { visibleText } from '../core/base/control-signs.ts';

/** Ends the work that a callback belongs to. */
type End = (error: unknown) => void;

const work = new AsyncLocalStorage<End>();

/** Runs what opens sockets and timers: should one of their callbacks throw past every guard, `end` ends this work. */
export const underGuard = <T>(end: End, run: () => T): T => work.run(end, run);

/** A fault of ours on the console, so that what a peer said in it steers no terminal. */
export const logFault = (error: unknown): void => console.error(visibleText(inspect(error)));

/**
 * The last guard of the process: what nobody caught is logged, ends the probe or view that it came of, and nothing else.
 * A server that one camera or one page could end would not be there when the next is worked on.
 */
export function installLastGuard(): void {
  const take = (error: unknown): void => {
    logFault(error);
    try {
      work.getStore()?.(error);
    } catch (second) {
      logFault(second);
    }
  };
  process.on('uncaughtException', take);
  process.on('unhandledRejection', take);
}
