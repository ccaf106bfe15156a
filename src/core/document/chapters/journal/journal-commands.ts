import { sayRate, sayShare } from '../../../base/say.ts';
import type { ProbeReport } from '../../../probe/probe-types.ts';
import { type BenchItem, benchQuantity } from '../../bench-test.ts';
import { cameraOf, clippedEvidence, destinationOf, type Handlers, streamIn, words } from '../../command-parts.ts';
import { evidenceOfReport } from '../../probe-evidence.ts';
import { cameraSubject, tapSubject } from '../../subject.ts';
import { tapOf } from '../taps/tap-commands.ts';
import type { LogEntry, LogKind } from './log.ts';

/** What happened or was measured: it is written down, and the plan stays as it is. */
export type JournalCommand =
  | {
      readonly kind: 'recordProbe';
      readonly cameraId: string;
      readonly streamId: string;
      readonly url: string;
      readonly probeId: string;
      readonly report: ProbeReport;
    }
  | {
      readonly kind: 'recordHandOver';
      readonly tapId: string;
      readonly url: string;
      readonly by: string;
      readonly refs: LogEntry['refs'];
    }
  | {
      readonly kind: 'recordBenchTest';
      readonly cameraId: string;
      readonly item: BenchItem;
      readonly seen: string;
      readonly by: string;
    }
  | { readonly kind: 'note'; readonly text: string; readonly subject: string; readonly logKind: LogKind };

export const JOURNAL_COMMANDS: Handlers<JournalCommand> = {
  recordProbe: (site, { cameraId, streamId, report, url, probeId }, stamp) => {
    const camera = cameraOf(site, cameraId);
    const stream = streamIn(camera, streamId);
    const evidence = evidenceOfReport(report, stream.id, url).map((item) =>
      clippedEvidence({ ...item, id: stamp.newId(), takenAt: stamp.at, source: probeId }),
    );
    const text = `${camera.name} ${stream.label} probed: ${outcomeOf(report)}`;
    return {
      site: { ...site, evidence: [...site.evidence, ...evidence] },
      log: words('probe', cameraSubject(camera.id), text, numbersOfReport(report)),
    };
  },
  recordHandOver: (site, { tapId, url, by, refs }, stamp) => {
    const tap = tapOf(site, tapId);
    const subject = tapSubject(tap.id);
    const item = clippedEvidence({
      id: stamp.newId(),
      subject,
      quantity: 'handedOver',
      value: url,
      how: 'confirmed',
      takenAt: stamp.at,
      source: by,
    });
    const text = `${cameraOf(site, tap.cameraId).name} handed over to ${destinationOf(site, tap.destinationId).name}`;
    return {
      site: { ...site, evidence: [...site.evidence, item] },
      log: { kind: 'hand-over', subject, text, refs },
    };
  },
  recordBenchTest: (site, { cameraId, item, seen, by }, stamp) => {
    const value = seen || 'yes';
    const subject = cameraSubject(cameraId);
    const evidence = clippedEvidence({
      id: stamp.newId(),
      subject,
      quantity: benchQuantity(item.id),
      value,
      how: 'confirmed',
      takenAt: stamp.at,
      source: by,
    });
    const text = `${cameraOf(site, cameraId).name}: on the bench: ${item.said}`;
    return {
      site: { ...site, evidence: [...site.evidence, evidence] },
      log: words('power', subject, text, { seen: value }),
    };
  },
  note: (site, { logKind, subject, text }) => ({ site, log: words(logKind, subject, text) }),
};

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
    rate: measured ? sayRate(measured.bitrateKbps) : undefined,
    lost: measured ? `${measured.lost} (${sayShare(measured.lossRatio)})` : undefined,
    'key frame': measured?.keyframeIntervalSeconds
      ? `every ${measured.keyframeIntervalSeconds.toFixed(2)} s`
      : undefined,
  };
}
