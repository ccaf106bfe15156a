import { sayRate, sayShare } from '../../../base/say.ts';
import type { ProbeReport } from '../../../probe/probe-types.ts';
import { benchQuantity } from '../../bench-quantity.ts';
import type { BenchItem } from '../../bench-test.ts';
import {
  cameraOf,
  destinationOf,
  type LogWords,
  type Recorded,
  type Recorders,
  streamIn,
  words,
} from '../../command-parts.ts';
import { factsOfReport } from '../../probe-evidence.ts';
import { cameraSubject, tapSubject } from '../../subject.ts';
import { nameOfSubject } from '../../subjects.ts';
import { tapOf } from '../taps/tap-commands.ts';
import type { Entry, Fact, FactValue, LogKind } from './entry.ts';
import { QUANTITIES, type QuantityName, sayQuantity } from './quantities.ts';

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
      readonly refs: Entry['refs'];
    }
  | {
      readonly kind: 'recordBenchTest';
      readonly cameraId: string;
      readonly item: BenchItem;
      readonly seen: string;
      readonly by: string;
    }
  | {
      /** Read on the spot, by eye or by another instrument. */
      readonly kind: 'recordReading';
      /** Whose line of the log it is; what it is known of is `subject`. */
      readonly about: string;
      readonly subject: string;
      readonly quantity: QuantityName;
      readonly value: FactValue;
      readonly by: string;
    }
  | {
      readonly kind: 'withdrawReading';
      readonly about: string;
      readonly subject: string;
      readonly quantity: QuantityName;
    }
  | { readonly kind: 'note'; readonly text: string; readonly subject: string; readonly logKind: LogKind };

/** Words without facts. */
const said = (words: LogWords): Recorded => ({ ...words, source: '', facts: [] });

export const JOURNAL_COMMANDS: Recorders<JournalCommand> = {
  recordProbe: (site, { cameraId, streamId, report, url, probeId }) => {
    const camera = cameraOf(site, cameraId);
    const stream = streamIn(camera, streamId);
    const text = `${camera.name} ${stream.label} probed: ${outcomeOf(report)}`;
    return {
      ...words('probe', cameraSubject(camera.id), text, numbersOfReport(report)),
      source: probeId,
      facts: factsOfReport(report, stream.id, url),
    };
  },
  recordHandOver: (site, { tapId, url, by, refs }) => {
    const tap = tapOf(site, tapId);
    const subject = tapSubject(tap.id);
    const text = `${cameraOf(site, tap.cameraId).name} handed over to ${destinationOf(site, tap.destinationId).name}`;
    const facts: readonly Fact[] = [{ subject, quantity: 'handedOver', value: url, how: 'confirmed' }];
    return { kind: 'hand-over', subject, text, refs, source: by, facts };
  },
  recordBenchTest: (site, { cameraId, item, seen, by }) => {
    const value = seen || 'yes';
    const subject = cameraSubject(cameraId);
    const text = `${cameraOf(site, cameraId).name}: on the bench: ${item.said}`;
    return {
      ...words('power', subject, text, { seen: value }),
      source: by,
      facts: [{ subject, quantity: benchQuantity(item.id), value, how: 'confirmed' }],
    };
  },
  recordReading: (site, { about, subject, quantity, value, by }) => {
    const said = sayQuantity(quantity, value);
    const text = `${nameOfSubject(site, about)}: ${QUANTITIES[quantity].label} read: ${said}`;
    return {
      ...words('power', about, text, { [QUANTITIES[quantity].label]: said }),
      source: by,
      facts: [{ subject, quantity, value, how: 'measured' }],
    };
  },
  withdrawReading: (site, { about, subject, quantity }) => {
    const text = `${nameOfSubject(site, about)}: ${QUANTITIES[quantity].label} taken back`;
    const isReading = (fact: Fact): boolean => fact.subject === subject && fact.quantity === quantity;
    const readings = site.journal.filter(({ facts }) => facts.some(isReading));
    return {
      ...said(words('power', about, text)),
      revokes: readings.map(({ id }) => id),
    };
  },
  note: (_, { logKind, subject, text }) => said(words(logKind, subject, text)),
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
    rate: measured?.bitrateKbps == null ? undefined : sayRate(measured.bitrateKbps),
    lost: measured ? `${measured.lost} (${sayShare(measured.lossRatio)})` : undefined,
    'key frame': measured?.keyframeIntervalSeconds
      ? `every ${measured.keyframeIntervalSeconds.toFixed(2)} s`
      : undefined,
  };
}
