import { weakMapMemoize } from 'reselect';
import type { ChangedAssumptions } from '../assumptions/assumptions.ts';
import type { ProbePayload } from '../document/payload/payload.ts';
import { streamSubject } from '../document/subject.ts';
import type { Finding } from '../findings/finding.ts';
import { failedRow, findingsOf, judgeRows, type Row } from '../findings/rule.ts';
import { findingOfCause } from '../probe/cause-findings.ts';
import type { ProbeFacts } from '../probe/probe-facts.ts';
import { probeLimits } from '../probe/probe-limits.ts';
import { PROBE_RULES } from '../probe/probe-rules.ts';
import { type EvidenceIndex, lastPayload, payloadsOf, type Taken } from './evidence-index.ts';

/** The last probe of a stream as the site remembers it; its source is the id of the probe. */
export type RememberedProbe = Taken<ProbePayload>;

export const rememberedProbe = (index: EvidenceIndex, streamId: string): RememberedProbe | undefined =>
  lastPayload(index, streamSubject(streamId), 'probe');

/** The last probe of a stream that told of one thing: a later one that failed told less. */
export const lastProbeWith = (
  index: EvidenceIndex,
  streamId: string,
  name: keyof ProbeFacts,
): RememberedProbe | undefined =>
  payloadsOf(index, streamSubject(streamId), 'probe').findLast(({ payload }) => payload.facts[name] !== undefined);

/** What it told of that. */
export const lastProbeFact = <N extends keyof ProbeFacts>(
  index: EvidenceIndex,
  streamId: string,
  name: N,
): ProbeFacts[N] | undefined => lastProbeWith(index, streamId, name)?.payload.facts[name];

/** What is to be said of a probe. */
export interface JudgedProbe {
  /** What its rules say, and before them why it failed, where it did. */
  readonly rows: readonly Row[];
  readonly findings: readonly Finding[];
}

/**
 * Judges a probe by what the site assumes; judged again only when it is another, or is assumed otherwise.
 * @param isOnWifi how the camera is connected; `undefined` where the site does not say
 */
export const judgeProbe = weakMapMemoize(
  (
    { payload: { cause, note, reason, proof, facts } }: RememberedProbe,
    changed: ChangedAssumptions,
    isOnWifi: boolean | undefined,
  ): JudgedProbe => {
    const judged = judgeRows(PROBE_RULES, { ...facts, limits: probeLimits(changed), isOnWifi });
    const rows = cause ? [failedRow(findingOfCause(cause, note, { reason, proof })), ...judged] : judged;
    return { rows, findings: findingsOf(rows) };
  },
);
