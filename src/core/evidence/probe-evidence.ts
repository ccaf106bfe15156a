import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import type { Fact, FactValue, KnownHow } from '../document/chapters/journal/entry.ts';
import type { QuantityName } from '../document/chapters/journal/quantities.ts';
import { streamSubject } from '../document/subject.ts';
import { probeFacts } from '../probe/probe-facts.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { proofOf } from '../probe/proof.ts';

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
] as const;
/** Prefix of the facts that the probe rules read again later. */
export const FACT = 'fact.';

/**
 * What a probe teaches about a stream, as facts: declared and measured, its verdict, and the facts its
 * rules were judged by, so that the findings can be told again after a reload.
 * @param url the URL that was probed, without an account
 */
export function factsOfReport(report: ProbeReport, streamId: string, url: string): readonly Fact[] {
  const subject = streamSubject(streamId);
  const found: Fact[] = [];
  const add = (quantity: QuantityName | `fact.${string}`, value: FactValue | null | undefined, how: KnownHow): void => {
    if (value === null || value === undefined || (typeof value === 'number' && !Number.isFinite(value))) return;
    found.push({ subject, quantity, value, how });
  };
  const { diagnosis } = report;
  const proof = diagnosis ? proofOf(diagnosis).proof : '';
  const because = report.findings.find(({ rule }) => rule === `probe.${report.cause}`)?.because;
  // the proof is kept apart, and put together with the note again
  const failedNote = proof !== '' && because?.endsWith(proof) ? because.slice(0, -proof.length).trimEnd() : because;
  add('probe.verdict', report.verdict, 'measured');
  add('probe.url', url, 'measured');
  add('probe.cause', report.cause, 'measured');
  add('probe.note', failedNote, 'measured');
  add('probe.reason', diagnosis?.reason, 'measured');
  add('probe.proof', proof === '' ? null : clipText(proof, TEXT_LIMITS.evidence), 'measured');
  add('found.path', diagnosis?.found?.path, 'measured');
  add('found.port', diagnosis?.found?.port, 'measured');
  add('found.line', diagnosis?.found?.line, 'measured');
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
  for (const [name, value] of Object.entries(probeFacts(report))) add(`${FACT}${name}`, value, 'measured');
  return found;
}
