import { randomBytes } from 'node:crypto';
import { performance } from 'node:perf_hooks';
import type { Clock, Entropy } from '../ports.ts';

export const systemClock: Clock = { monotonicMs: () => performance.now(), unixMs: () => Date.now() };
export const systemEntropy: Entropy = { hex: (byteCount) => randomBytes(byteCount).toString('hex') };
