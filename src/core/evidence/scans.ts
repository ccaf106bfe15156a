import { weakMapMemoize } from 'reselect';
import { networkSubject } from '../document/subject.ts';
import { parseIpv4 } from '../net/ipv4.ts';
import type { SeenHost } from '../scan/seen.ts';
import { type EvidenceIndex, payloadsIn, type SubjectEvidence } from './evidence-index.ts';

/** What the last sweep of a network saw. */
export interface Sweep {
  readonly sweepId: string;
  readonly at: string;
  /** As it was asked: from and to. */
  readonly range: string;
  readonly isWhole: boolean;
  readonly hosts: readonly SeenHost[];
}

/** The last sweep of a network; `null` where nobody looked through it. */
export function lastSweepOf(index: EvidenceIndex, networkId: string): Sweep | null {
  const known = index.get(networkSubject(networkId));
  return known ? joined(known) : null;
}

/** Joined once: its parts stay the same until another sweep is written down. */
const joined = weakMapMemoize((known: SubjectEvidence): Sweep | null => {
  const sweeps = payloadsIn(known, 'sweep');
  const last = sweeps.at(-1);
  if (!last) return null;
  const { source: sweepId, takenAt: at, payload } = last;
  const hosts = sweeps.flatMap((one) => (one.source === sweepId ? one.payload.hosts : []));
  return { sweepId, at, range: payload.range, isWhole: payload.isWhole, hosts };
});

/** Whether a sweep looked at an address: who is silent there was asked. */
export function wasAsked({ range }: Sweep, host: string): boolean {
  const [from = '', to = from] = range.split(' to ');
  const [first, last, address] = [parseIpv4(from), parseIpv4(to), parseIpv4(host)];
  return first !== null && last !== null && address !== null && address >= first && address <= last;
}
