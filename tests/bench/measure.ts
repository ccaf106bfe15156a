import { performance } from 'node:perf_hooks';

/** A figure against its peer in the same run; it holds when the ratio is at most the limit. */
export interface Figure {
  readonly what: string;
  readonly value: number;
  readonly unit: 'ms' | 'kB' | 'MiB' | '';
  readonly against: number;
  readonly peer: string;
  readonly limit: number;
  /** `against` is a time of the clock, and no peer of the same run: it is longer on a slower machine, by the fixed piece of work. */
  readonly isFixedTime?: true;
}

/** Wall times of `count` runs, one after the other, ms. */
export async function timed(count: number, act: () => Promise<unknown>): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < count; i++) {
    const startedMs = performance.now();
    await act();
    times.push(performance.now() - startedMs);
  }
  return times;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
}

/** The quarter mark: what it takes when no other tenant of the machine has the core, without trusting a single run. */
export function lowerQuartile(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 4)] ?? Number.NaN;
}

export const holds = ({ value, against, limit }: Figure): boolean => value / against <= limit;

const ratio = (value: number): string => (value > 0 && value < 0.1 ? `1/${Math.round(1 / value)}` : value.toFixed(2));

export function printTable(figures: readonly Figure[]): void {
  const rows = figures.map((figure) => {
    const got = figure.value / figure.against;
    const cells = [
      figure.what,
      `${figure.value.toFixed(1)} ${figure.unit}`,
      `${figure.against.toFixed(1)} ${figure.unit}`,
      figure.peer,
    ];
    return [...cells, ratio(got), ratio(figure.limit), holds(figure) ? 'holds' : 'MISSED'];
  });
  const head = ['what', 'ours', 'against', 'peer', 'ratio', 'at most', ''];
  const widths = head.map((_, column) => Math.max(...[head, ...rows].map((row) => row[column]?.length ?? 0)));
  for (const row of [head, ...rows])
    console.log(row.map((cell, column) => cell.padEnd(widths[column] ?? 0)).join('  '));
}
