import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { sayMany, sayRate, sayShare } from '../base/say.ts';
import type { JournalCommand } from '../document/chapters/journal/journal-commands.ts';
import { cameraSubject } from '../document/subject.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { SessionsReport } from '../sessions/sessions-types.ts';
import { factsOfCount } from './facts-of-count.ts';
import { factsOfReport } from './probe-evidence.ts';

// What was measured becomes facts and words where it is known: the first view, which measures nothing, carries none of this.

/** @param url the URL that was probed, without an account */
export const probeRecord = ({
  cameraId,
  streamId,
  url,
  probeId,
  report,
}: {
  readonly cameraId: string;
  readonly streamId: string;
  readonly url: string;
  readonly probeId: string;
  readonly report: ProbeReport;
}): JournalCommand => ({
  kind: 'recordProbe',
  cameraId,
  streamId,
  said: outcomeOf(report),
  numbers: numbersOfReport(report),
  source: probeId,
  facts: factsOfReport(report, streamId, url),
});

const isKeepable = (value: unknown): boolean => typeof value !== 'number' || Number.isFinite(value);

/** @param host where it was counted: another address may be another camera */
export function sessionsRecord({
  cameraId,
  countId,
  host,
  report,
}: {
  readonly cameraId: string;
  readonly countId: string;
  readonly host: string;
  readonly report: SessionsReport;
}): JournalCommand {
  const { limit, opened, most, refusedWith, effectOnFirst } = report;
  const subject = cameraSubject(cameraId);
  return {
    kind: 'recordSessions',
    cameraId,
    said: opened === 0 ? 'none was had' : limit === null ? `none of ${most} was refused` : sayMany(limit, 'session'),
    numbers: {
      'then told': refusedWith ? clipText(refusedWith.note, TEXT_LIMITS.place) : undefined,
      'the first one then': effectOnFirst ?? undefined,
    },
    source: countId,
    facts: factsOfCount(report, host)
      .filter(([, value]) => isKeepable(value))
      .map(([quantity, value]) => ({ subject, quantity, value, how: 'measured' as const })),
  };
}

const outcomeOf = (report: ProbeReport): string =>
  report.verdict === 'fail'
    ? (report.findings[0]?.title ?? 'failed').toLowerCase()
    : report.verdict === 'warn'
      ? 'works, with something to fix'
      : 'works';

function numbersOfReport(report: ProbeReport): Record<string, string | undefined> {
  const video = report.media.find(({ kind }) => kind === 'video');
  const measured = video?.measured;
  const last = report.steps.at(-1);
  return {
    verdict: report.verdict,
    cause: report.cause ?? undefined,
    took: last ? `${((last.startMs + last.durationMs) / 1000).toFixed(2)} s` : undefined,
    codec: video?.codec ?? undefined,
    size: measured?.width ? `${measured.width}×${measured.height}` : undefined,
    fps: measured?.fps === null ? undefined : measured?.fps.toFixed(1),
    rate: measured?.bitrateKbps == null ? undefined : sayRate(measured.bitrateKbps),
    lost: measured ? `${measured.lost} (${sayShare(measured.lossRatio)})` : undefined,
    'key frame': measured?.keyframeIntervalSeconds
      ? `every ${measured.keyframeIntervalSeconds.toFixed(2)} s`
      : undefined,
  };
}
