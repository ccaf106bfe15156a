import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { sayCount, sayMany, sayRate, sayShare, sayStretch } from '../base/say.ts';
import type { JournalCommand } from '../document/chapters/journal/journal-commands.ts';
import type { Payload } from '../document/payload/payload.ts';
import { checkPayload, HOSTS_OF_SWEEP } from '../document/payload/payload-check.ts';
import { cameraSubject, networkSubject } from '../document/subject.ts';
import { READING_LIMITS } from '../onvif/onvif-limits.ts';
import type { OnvifReading } from '../onvif/reading.ts';
import type { Heard } from '../onvif-client/hear-machine.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { SeenHost } from '../scan/seen.ts';
import { checkSeenHost } from '../scan/seen-check.ts';
import type { SessionsReport } from '../sessions/sessions-types.ts';
import { factsOfReport, payloadOfReport } from './probe-evidence.ts';

// What was measured becomes a payload and words where it is known: the first view, which measures nothing, carries none of this.

type Measured = Extract<JournalCommand, { readonly kind: 'recordMeasured' }>;

/** The command; of a payload that a site could not be opened with again, the words alone, and why. */
function measured(command: Omit<Measured, 'kind' | 'of'> & { readonly payload: Payload }): Measured {
  const problem = checkPayload(command.payload);
  const { of } = command.payload;
  return problem
    ? { kind: 'recordMeasured', of, ...command, payload: null, numbers: { ...command.numbers, 'not kept': problem } }
    : { kind: 'recordMeasured', of, ...command };
}

/** @param url the URL that was probed, without an account */
export const probeRecord = ({
  streamId,
  url,
  probeId,
  report,
}: {
  readonly streamId: string;
  readonly url: string;
  readonly probeId: string;
  readonly report: ProbeReport;
}): JournalCommand =>
  measured({
    logKind: 'probe',
    payload: payloadOfReport(report, streamId, url),
    said: ` probed: ${outcomeOf(report)}`,
    numbers: numbersOfReport(report),
    source: probeId,
    facts: factsOfReport(report, streamId),
  });

const finiteOrNull = (value: number | null): number | null => (value !== null && Number.isFinite(value) ? value : null);

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
  const { limit, opened, most, refusedWith, effectOnFirst, firstAlonePerS, firstBesidePerS } = report;
  const kept: SessionsReport = {
    ...report,
    refusedWith: refusedWith && { ...refusedWith, note: clipText(refusedWith.note, TEXT_LIMITS.evidence) },
    firstAlonePerS: finiteOrNull(firstAlonePerS),
    firstBesidePerS: finiteOrNull(firstBesidePerS),
  };
  return measured({
    logKind: 'tap',
    payload: { kind: 'sessions', of: cameraSubject(cameraId), host, report: kept },
    said: `, sessions at once: ${opened === 0 ? 'none granted' : limit === null ? `none of ${most} was refused` : sayMany(limit, 'session')}`,
    numbers: {
      'next answer': refusedWith ? clipText(refusedWith.note, TEXT_LIMITS.place) : undefined,
      'first client': effectOnFirst ?? undefined,
    },
    source: countId,
    facts: [],
  });
}

/** A reading with as much of each list as a site keeps. */
const keptReading = (reading: OnvifReading): OnvifReading => ({
  ...reading,
  note: clipText(reading.note, TEXT_LIMITS.logText),
  services: reading.services.slice(0, READING_LIMITS.services),
  profiles: reading.profiles.slice(0, READING_LIMITS.profiles),
  sources: reading.sources?.slice(0, READING_LIMITS.sources) ?? null,
  ptz: reading.ptz && { ...reading.ptz, presets: reading.ptz.presets?.slice(0, READING_LIMITS.presets) ?? null },
  events: reading.events && {
    ...reading.events,
    topics: reading.events.topics.slice(0, READING_LIMITS.topics),
    note: clipText(reading.events.note, TEXT_LIMITS.logText),
  },
});

/** What a device told by ONVIF, or why it told nothing. */
export function readingRecord(cameraId: string, readingId: string, reading: OnvifReading): JournalCommand {
  const { cause, note, profiles, clock, device } = reading;
  const name = [device?.make ?? '', device?.model ?? ''].filter((part) => part !== '').join(' ');
  return measured({
    logKind: 'tap',
    payload: { kind: 'reading', of: cameraSubject(cameraId), reading: keptReading(reading) },
    said: cause ? ' was not read by ONVIF' : ` read by ONVIF: ${name || 'read'}`,
    numbers: {
      cause: cause ?? undefined,
      because: cause && note !== '' ? clipText(note, TEXT_LIMITS.place) : undefined,
      firmware: device?.firmware || undefined,
      serial: device?.serial || undefined,
      profiles: profiles.length > 0 ? String(profiles.length) : undefined,
      clock: clock ? sayStretch(clock.skewS) : undefined,
    },
    source: readingId,
    facts: [],
  });
}

/** How listening to the events of a device went. */
export function heardRecord(cameraId: string, heardId: string, heard: Heard): JournalCommand {
  const { seconds, changes, motions, lost } = heard;
  return measured({
    logKind: 'tap',
    payload: {
      kind: 'heard',
      of: cameraSubject(cameraId),
      heard: { ...heard, note: clipText(heard.note, TEXT_LIMITS.evidence) },
    },
    said: ` listened to: ${sayMany(changes, 'event')}`,
    numbers: {
      for: `${Math.round(seconds)} s`,
      motions: String(motions),
      'subscriptions lost': lost > 0 ? String(lost) : undefined,
    },
    source: heardId,
    facts: [],
  });
}

/** What a sweep of a network saw. */
export interface SweptPart {
  readonly networkId: string;
  readonly sweepId: string;
  readonly range: string;
  /** It was not cut short: who was not seen was not there. */
  readonly isWhole: boolean;
  readonly calls: number;
  readonly seconds: number;
  readonly hosts: readonly SeenHost[];
}

/** What a sweep saw: of many hosts several entries, under one id. A host too wordy to be kept whole is left out. */
export function sweepRecords({
  networkId,
  sweepId,
  range,
  isWhole,
  calls,
  seconds,
  hosts,
}: SweptPart): readonly JournalCommand[] {
  const kept = hosts.filter((host) => checkSeenHost(host) === null);
  const parts = Array.from({ length: Math.max(1, Math.ceil(kept.length / HOSTS_OF_SWEEP)) }, (_, at) =>
    kept.slice(at * HOSTS_OF_SWEEP, (at + 1) * HOSTS_OF_SWEEP),
  );
  return parts.map((part) =>
    measured({
      logKind: 'address',
      payload: {
        kind: 'sweep',
        of: networkSubject(networkId),
        range: clipText(range, TEXT_LIMITS.evidence),
        isWhole,
        hosts: part,
      },
      said: ` scanned: ${sayMany(part.length, 'address', 'addresses')} answered`,
      numbers: {
        range,
        connections: sayCount(calls),
        took: `${seconds.toFixed(1)} s`,
        'to its end': isWhole ? 'yes' : 'no',
      },
      source: sweepId,
      facts: [],
    }),
  );
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
