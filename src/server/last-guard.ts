import { inspect } from 'node:util';
import { visibleText } from '../core/base/control-signs.ts';
import { createSafely } from './safely.ts';

/** Ends the work that a callback belongs to. */
type End = (error: unknown) => void;

/** Works under way, by the signal that ends whatever waits for them: sockets and timers are opened with it. */
const works = new WeakMap<AbortSignal, Set<End>>();

/**
 * Until it is let go by what is returned, a fault in what was opened with `signal` ends this work. Told by the signal, not by
 * the asynchronous context: that of Node costs every read of every socket an eighth of what is done with it.
 */
export function underGuard(signal: AbortSignal, end: End): () => void {
  const ends = works.get(signal) ?? new Set();
  works.set(signal, ends.add(end));
  return () => ends.delete(end);
}

/** Makes of a callback of a socket or a timer one that ends, should it throw, the works that it serves and nothing else. */
export type Guarded = <Args extends readonly unknown[]>(callback: (...args: Args) => void) => (...args: Args) => void;

export const guardedBy = (signal: AbortSignal): Guarded => {
  const safely = createSafely((error) => {
    const ends = works.get(signal);
    if (!ends?.size) return logFault(error);
    for (const end of [...ends]) end(error);
  });
  return (callback) =>
    (...args) =>
      safely(() => callback(...args));
};

/** A fault of ours on the console, so that what a peer said in it steers no terminal. */
export const logFault = (error: unknown): void => console.error(visibleText(inspect(error)));

/**
 * The last guard of the process: what got past every other is logged, and the process goes on. A server that one camera or
 * one page could end would not be there when the next is worked on.
 */
export function installLastGuard(): void {
  process.on('uncaughtException', logFault);
  process.on('unhandledRejection', logFault);
}
