import { weakMapMemoize } from 'reselect';
import type { ChangedAssumptions } from '../assumptions/assumptions.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { CAMERA_RANGES } from '../document/chapters/cameras/camera.ts';
import type { FactValue } from '../document/chapters/journal/entry.ts';
import { streamSubject } from '../document/subject.ts';
import type { Finding } from '../findings/finding.ts';
import { type Facts, failedRow, findingsOf, judgeRows, type Row } from '../findings/rule.ts';
import { CAMERA_LINES } from '../net/camera-line.ts';
import { STREAM_PATH } from '../net/path-places.ts';
import { findingOfCause } from '../probe/cause-findings.ts';
import type { ProbeFacts } from '../probe/probe-facts.ts';
import { probeLimits } from '../probe/probe-limits.ts';
import { PROBE_RULES } from '../probe/probe-rules.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { type FoundWay, REASONS, type Reason } from '../probe/reasons.ts';
import { PROBE_CAUSES, type ProbeCause } from '../rtsp/exchange-types.ts';
import { bestOf, type EvidenceIndex, type QuantitiesOf } from './best-known.ts';
import { FACT } from './probe-evidence.ts';

/** The last probe of a stream as the site remembers it. */
export interface RememberedProbe {
  readonly probeId: string;
  readonly at: string;
  readonly url: string;
  readonly verdict: ProbeReport['verdict'];
  readonly cause: ProbeCause | null;
  readonly reason: Reason | null;
  /** Where it works, as an experiment proved. */
  readonly found: FoundWay;
  /** What its rules say, and before them why it failed, where it did. */
  readonly rows: readonly Row[];
  readonly findings: readonly Finding[];
}

const isCause = (text: unknown): text is ProbeCause => PROBE_CAUSES.some((cause) => cause === text);

/** What experiments found, which a file may have brought: what makes no sense is none. */
function foundBy(of: (quantity: string) => FactValue | undefined): FoundWay {
  const [path, port, line] = ['path', 'port', 'line'].map((name) => of(`found.${name}`));
  const known = CAMERA_LINES.find((one) => one === line);
  const { min, max } = CAMERA_RANGES.rtspPort;
  return {
    ...(typeof path === 'string' && STREAM_PATH.test(path) && path.length <= TEXT_LIMITS.path ? { path } : {}),
    ...(typeof port === 'number' && Number.isInteger(port) && port >= min && port <= max ? { port } : {}),
    ...(known ? { line: known } : {}),
  };
}

/** The last probe and its findings, told again from evidence by what the site assumes; `null` when it was never probed. */
export const rememberedProbe = (
  index: EvidenceIndex,
  streamId: string,
  changed: ChangedAssumptions,
): RememberedProbe | null => rememberedProbeOf(index.get(streamSubject(streamId)), changed);

/** The same, from what is known of just this stream: judged again only when that is another, or is assumed otherwise. */
export const rememberedProbeOf = weakMapMemoize(judgeRemembered);

function judgeRemembered(quantities: QuantitiesOf | undefined, changed: ChangedAssumptions): RememberedProbe | null {
  const verdict = bestOf(quantities?.get('probe.verdict'));
  if (!verdict || (verdict.value !== 'ok' && verdict.value !== 'warn' && verdict.value !== 'fail')) return null;
  const probeId = verdict.source;
  const of = (quantity: string): FactValue | undefined => {
    const items = quantities?.get(quantity);
    const last = items?.at(-1);
    // mostly the last probe told it last; who looks further looks at all that was told before
    return last?.source === probeId ? last.value : items?.findLast((item) => item.source === probeId)?.value;
  };
  const facts: Record<string, FactValue> = {};
  for (const quantity of quantities?.keys() ?? []) {
    const value = quantity.startsWith(FACT) ? of(quantity) : undefined;
    if (value !== undefined) facts[quantity.slice(FACT.length)] = value;
  }
  const cause = of('probe.cause');
  const reason = REASONS.find((one) => one === of('probe.reason')) ?? null;
  const judged = judgeRows(PROBE_RULES, { ...(facts as Facts<ProbeFacts>), limits: probeLimits(changed) }); // written by factsOfReport under the same names
  const rows = isCause(cause)
    ? [
        failedRow(
          findingOfCause(cause, String(of('probe.note') ?? ''), { reason, proof: String(of('probe.proof') ?? '') }),
        ),
        ...judged,
      ]
    : judged;
  return {
    probeId,
    at: verdict.takenAt ?? '',
    url: String(of('probe.url') ?? ''),
    verdict: verdict.value,
    cause: isCause(cause) ? cause : null,
    reason,
    found: foundBy(of),
    rows,
    findings: findingsOf(rows),
  };
}
