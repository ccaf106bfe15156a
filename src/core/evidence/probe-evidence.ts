import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import type { Fact, FactValue, KnownHow } from '../document/chapters/journal/entry.ts';
import type { QuantityName } from '../document/chapters/journal/quantities.ts';
import type { ProbePayload } from '../document/payload/payload.ts';
import { streamSubject } from '../document/subject.ts';
import type { Facts } from '../findings/rule.ts';
import { STREAM_PATH } from '../net/path-places.ts';
import { PORT_RANGE } from '../net/port-range.ts';
import { type ProbeFacts, probeFacts } from '../probe/probe-facts.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { proofOf } from '../probe/proof.ts';
import type { FoundWay } from '../probe/reasons.ts';

/** Quantities of a stream that are kept as such: other stations build on them. */
const DECLARED = ['width', 'height', 'fps', 'profile', 'bitrateKbps'] as const;
const MEASURED = [
  'width',
  'height',
  'fps',
  'bitrateKbps',
  'keyframeIntervalFrames',
  'keyframeIntervalSeconds',
  'lossRatio',
  'jitterMs',
  'longestGapMs',
] as const;

const isKeepable = (value: unknown): boolean =>
  value !== null && value !== undefined && (typeof value !== 'number' || Number.isFinite(value));

/** What a probe teaches about a stream, declared and measured, for whoever else builds on it. */
export function factsOfReport(report: ProbeReport, streamId: string): readonly Fact[] {
  const subject = streamSubject(streamId);
  const found: Fact[] = [];
  const add = (quantity: QuantityName, value: FactValue | null | undefined, how: KnownHow): void => {
    if (value !== null && value !== undefined && isKeepable(value)) found.push({ subject, quantity, value, how });
  };
  add('transport', report.transport, 'measured');
  const video = report.media.find(({ kind }) => kind === 'video');
  if (video) {
    add('codec', video.codec, video.measured ? 'measured' : 'declared');
    for (const quantity of DECLARED) add(quantity, video.declared[quantity], 'declared');
    for (const quantity of MEASURED) add(quantity, video.measured?.[quantity], 'measured');
  }
  const sound = report.media.find(({ kind }) => kind === 'audio');
  if (sound) {
    add('sound.codec', sound.codec, 'declared');
    add('sound.clockHz', sound.clockRate, 'declared');
    add('sound.channels', sound.declared.channels, 'declared');
    add('sound.bitrateKbps', sound.declared.bitrateKbps, 'declared');
    add('sound.bitrateKbps', sound.measured?.bitrateKbps, 'measured');
    add('sound.lossRatio', sound.measured?.lossRatio, 'measured');
  }
  return found;
}

const evidence = (text: string): string => clipText(text, TEXT_LIMITS.evidence);

/** Facts that JSON can carry, with texts of a length that a site keeps. */
const keptFacts = (facts: Facts<ProbeFacts>): Facts<ProbeFacts> =>
  Object.fromEntries(
    Object.entries(facts).flatMap(([name, value]) =>
      isKeepable(value) ? [[name, typeof value === 'string' ? evidence(value) : value]] : [],
    ),
  );

/** What experiments found, as far as a camera of a site can have it. */
function keptFound({ path, port, line, transport }: FoundWay): FoundWay {
  const { min, max } = PORT_RANGE;
  return {
    ...(path !== undefined && STREAM_PATH.test(path) && path.length <= TEXT_LIMITS.path ? { path } : {}),
    ...(port !== undefined && port >= min && port <= max ? { port } : {}),
    ...(line ? { line } : {}),
    ...(transport ? { transport } : {}),
  };
}

/**
 * What the rules about a probe are judged by, now and whenever it is asked again.
 * @param url the URL that was probed, without an account
 */
export function payloadOfReport(report: ProbeReport, streamId: string, url: string): ProbePayload {
  const { verdict, cause, note, diagnosis } = report;
  const { reason, proof } = diagnosis ? proofOf(diagnosis) : { reason: null, proof: '' };
  return {
    kind: 'probe',
    of: streamSubject(streamId),
    url: evidence(url),
    verdict,
    cause,
    note: evidence(note),
    reason,
    proof: evidence(proof),
    found: keptFound(diagnosis?.found ?? {}),
    facts: keptFacts(probeFacts(report)),
  };
}
