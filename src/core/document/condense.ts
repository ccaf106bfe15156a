import { LIST_LIMITS } from '../base/limits.ts';
import { sayMany } from '../base/say.ts';
import type { Evidence } from './chapters/journal/evidence.ts';
import type { LogEntry } from './chapters/journal/log.ts';
import type { Stamp } from './command-parts.ts';

// The record only grows; long before it is larger than a site may be, what is old is condensed. What a person confirmed
// stays, of each thing the first probe and the latest ones stay, and of the log the latest lines with one that tells how
// many went before.

/** Condensing goes down to this share of the limit, so that it is rare. */
const DOWN_TO = 0.5;
/** Probes of one thing that are kept at most when there is no room for all: enough to see what is usual. */
const MOST_PROBES = 512;

/** Evidence that fits its limit; the same list when it does already. */
export function condenseEvidence(
  evidence: readonly Evidence[],
  limit: number = LIST_LIMITS.evidence,
): readonly Evidence[] {
  if (evidence.length <= limit) return evidence;
  const target = Math.floor(limit * DOWN_TO);
  for (let most = MOST_PROBES; most >= 1; most = Math.floor(most / 2)) {
    const kept = withFewerProbes(evidence, most);
    if (kept.length <= target) return kept;
  }
  // Thousands of things, each with its one last probe, or as many hand-overs: the latest of all.
  return withFewerProbes(evidence, 1).slice(-target);
}

/** Of each subject the first source and the `most` last ones; what a person confirmed is no probe and stays. */
function withFewerProbes(evidence: readonly Evidence[], most: number): readonly Evidence[] {
  const sources = new Map<string, string[]>();
  for (const { subject, source, how } of evidence) {
    if (how === 'confirmed') continue;
    const known = sources.get(subject);
    if (!known) sources.set(subject, [source]);
    else if (known.at(-1) !== source) known.push(source);
  }
  const kept = new Map([...sources].map(([subject, all]) => [subject, new Set([all[0], ...all.slice(-most)])]));
  return evidence.filter(({ subject, source, how }) => how === 'confirmed' || kept.get(subject)?.has(source) === true);
}

/** A log that fits its limit: one line stands for those that went. */
export function condenseLog(
  log: readonly LogEntry[],
  stamp: Stamp,
  limit: number = LIST_LIMITS.log,
): readonly LogEntry[] {
  if (log.length <= limit) return log;
  const kept = log.slice(-Math.floor(limit * DOWN_TO));
  const gone = log.slice(0, log.length - kept.length);
  const first = gone[0];
  const last = gone.at(-1);
  if (!first || !last) return kept;
  const text = `${sayMany(gone.length, 'older line')} of the logbook condensed into this one`;
  const refs = [
    { name: 'from', value: first.at },
    { name: 'to', value: last.at },
  ];
  return [{ id: stamp.newId(), at: last.at, kind: 'site', subject: 'site', text, refs }, ...kept];
}
