import { between, wholes } from '../base/range.ts';
import { PORT_RANGE } from '../net/port-range.ts';
import { countOf, type ScanRange } from '../net/scan-range.ts';

/** How a range is looked through. */
export interface ScanPace {
  /** Calls a second. */
  readonly rate: number;
  /** How long a call may go unanswered, ms. */
  readonly timeoutMs: number;
}

/** [A] Gentle: less than a page of the web costs, and no switch notices. */
export const USUAL_PACE: ScanPace = { rate: 100, timeoutMs: 1000 };

export const SCAN_RANGES = {
  rate: wholes(1, 2000, 'connections a second'),
  timeoutMs: between(100, 5000, 'ms'),
  ports: PORT_RANGE,
} as const;
/** More ports than these are no search for cameras. */
export const MOST_PORTS = 16;

/** Calls that are open at once at most: as many as the pace leaves unanswered, and a quarter. */
export const atOnceOf = ({ rate, timeoutMs }: ScanPace): number =>
  Math.max(4, Math.ceil((rate * timeoutMs * 1.25) / 1000));

/** How long a sweep takes where most addresses are silent, s: its calls at their rate, and the last one's timeout. */
export const impliedSeconds = (calls: number, { rate, timeoutMs }: ScanPace): number =>
  calls === 0 ? 0 : calls / rate + timeoutMs / 1000;

export const callsOf = (range: ScanRange | null, ports: readonly number[]): number =>
  range === null ? 0 : countOf(range) * ports.length;

/** `554, 8554`: ports as people write them; `null` when one of them is none, or there are too many. */
export function readPorts(text: string): readonly number[] | null {
  const words = text
    .slice(0, 200)
    .split(/[\s,;]+/)
    .filter((word) => word !== '');
  const ports = [...new Set(words.map((word) => (/^\d{1,5}$/.test(word) ? Number(word) : 0)))];
  const isGood =
    ports.length > 0 &&
    ports.length <= MOST_PORTS &&
    ports.every((port) => port >= PORT_RANGE.min && port <= PORT_RANGE.max);
  return isGood && text.length <= 200 ? ports : null;
}
