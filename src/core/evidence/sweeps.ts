import { weakMapMemoize } from 'reselect';
import type { Evidence } from '../document/chapters/journal/entry.ts';
import { networkSubject } from '../document/subject.ts';
import { parseIpv4 } from '../net/ipv4.ts';
import { readSeen, type SeenHost } from '../scan/seen.ts';
import type { EvidenceIndex } from './best-known.ts';

/** What the last sweep of a network saw. */
export interface Sweep {
  readonly sweepId: string;
  readonly at: string;
  /** As it was asked: from and to. */
  readonly range: string;
  readonly isWhole: boolean;
  readonly hosts: readonly SeenHost[];
}

const NONE: readonly Evidence[] = [];

/** Read once: the texts stay the same until another sweep is written down. */
const readHosts = weakMapMemoize((items: readonly Evidence[], sweepId: string): readonly SeenHost[] =>
  items.flatMap(({ source, value }) => (source === sweepId ? (readSeen(String(value)) ?? []) : [])),
);

/** The last sweep of a network; `null` where nobody looked through it. */
export function lastSweepOf(index: EvidenceIndex, networkId: string): Sweep | null {
  const known = index.get(networkSubject(networkId));
  const last = known?.get('sweep.range')?.at(-1);
  if (!last) return null;
  const { source: sweepId, takenAt: at, value } = last;
  const isWhole = known?.get('sweep.isWhole')?.findLast(({ source }) => source === sweepId)?.value === true;
  return { sweepId, at, range: String(value), isWhole, hosts: readHosts(known?.get('sweep.host') ?? NONE, sweepId) };
}

/** Whether a sweep looked at an address: who is silent there was asked. */
export function wasAsked({ range }: Sweep, host: string): boolean {
  const [from = '', to = from] = range.split(' to ');
  const [first, last, address] = [parseIpv4(from), parseIpv4(to), parseIpv4(host)];
  return first !== null && last !== null && address !== null && address >= first && address <= last;
}
