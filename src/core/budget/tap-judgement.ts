import { sayDays, sayRate } from '../base/say.ts';
import { bytes, days, inTB, kilobits, terabytes } from '../base/units.ts';
import { atLeast, type Verdict, worstVerdict } from '../base/verdict.ts';
import type { Finding } from '../probe/probe-types.ts';
import { evaluate, type Facts } from '../rules/rule.ts';
import { TAP_RULES, type TapFacts } from '../rules/tap-rules.ts';
import { type EvidenceIndex, type Known, streamFacts } from '../site/best-known.ts';
import type { Destination, Site, Tap } from '../site/site-types.ts';
import { bytesPerDay, daysFit, diskNeeded, type RecordedStream, secondsPerDay } from '../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../storage/storage-assumptions.ts';

/** Something that would change the verdict, with the verdict it would bring. */
export interface Lever {
  readonly id: 'disk' | 'rate' | 'stream' | 'days' | 'share' | 'room';
  readonly text: string;
  readonly verdict: Verdict;
}

export interface RetentionNumbers {
  readonly ownBytesPerDay: number;
  readonly allBytesPerDay: number;
  /** Taps that record on the same disk, this one counted. */
  readonly recordings: number;
  readonly usableBytes: number;
  readonly daysFit: number;
  readonly daysWanted: number;
}

export interface TapJudgement {
  readonly verdict: Verdict;
  readonly findings: readonly Finding[];
  readonly rate: Known<number> | null;
  readonly retention: RetentionNumbers | null;
  readonly levers: readonly Lever[];
  /** Names of recordings on this disk whose rate is not known: the days cannot be told while there are any. */
  readonly ratesMissing: readonly string[];
}

const { overheadFraction, comfortableFactor, sizesSoldTB } = STORAGE_ASSUMPTIONS;

interface Recording {
  readonly tap: Tap;
  readonly name: string;
  readonly rate: Known<number> | null;
}

const streamOf = (site: Site, tap: Tap) => {
  const camera = site.cameras.find(({ id }) => id === tap.cameraId);
  return { camera, stream: camera?.streams.find(({ id }) => id === tap.streamId) };
};

function recordingsOn(site: Site, index: EvidenceIndex, destinationId: string): readonly Recording[] {
  return site.taps
    .filter((tap) => tap.destinationId === destinationId && tap.use === 'record')
    .map((tap) => {
      const { camera, stream } = streamOf(site, tap);
      return { tap, name: camera?.name ?? tap.cameraId, rate: stream ? streamFacts(index, stream).bitrateKbps : null };
    });
}

const recorded = (rateKbps: number, tap: Tap): RecordedStream => ({
  count: 1,
  rate: kilobits(rateKbps),
  schedule: tap.schedule,
});
const perDay = (recordings: readonly { rateKbps: number; tap: Tap }[]): number =>
  bytesPerDay(
    recordings.map(({ rateKbps, tap }) => recorded(rateKbps, tap)),
    overheadFraction,
  );

const judgeDays = (fit: number, wanted: number): Verdict => atLeast(fit, wanted * comfortableFactor, wanted);

/**
 * Whether a destination can draw a stream for a use: the codec it takes and, for recordings, the days its disk holds
 * with everything else that is recorded on it. Computed from the best known rate of every stream involved.
 */
export function judgeTap(site: Site, index: EvidenceIndex, tap: Tap): TapJudgement {
  const destination = site.destinations.find(({ id }) => id === tap.destinationId);
  const { stream } = streamOf(site, tap);
  if (!destination || !stream)
    return { verdict: 'unknown', findings: [], rate: null, retention: null, levers: [], ratesMissing: [] };
  const { codec, bitrateKbps: rate } = streamFacts(index, stream);
  const recordings = tap.use === 'record' ? recordingsOn(site, index, destination.id) : [];
  const ratesMissing = recordings.filter((recording) => recording.rate === null).map(({ name }) => name);
  const retention = ratesMissing.length === 0 ? retentionOf(recordings, destination, tap) : null;

  const facts: Facts<TapFacts> = {
    destination: destination.name,
    codec: codec?.value,
    codecsTaken: destination.codecs.length > 0 ? destination.codecs : undefined,
    rateKbps: rate?.value,
    rateHow: rate?.how,
    records: tap.use === 'record',
    daysFit: retention?.daysFit,
    daysWanted: retention?.daysWanted,
    bytesPerDay: retention?.allBytesPerDay,
    usableBytes: retention?.usableBytes,
  };
  const { findings } = evaluate(TAP_RULES, facts);
  const verdicts: Verdict[] = [codecVerdict(destination, codec)];
  if (tap.use === 'record') verdicts.push(retention ? judgeDays(retention.daysFit, retention.daysWanted) : 'unknown');
  const levers = retention ? leversFor(site, index, tap, destination, recordings, retention) : [];
  return { verdict: worstVerdict(verdicts), findings, rate, retention, levers, ratesMissing };
}

function codecVerdict(destination: Destination, codec: Known<string> | null): Verdict {
  if (destination.codecs.length === 0) return 'ok';
  if (!codec) return 'unknown';
  return destination.codecs.includes(codec.value) ? 'ok' : 'will-not-work';
}

function retentionOf(recordings: readonly Recording[], destination: Destination, tap: Tap): RetentionNumbers | null {
  const { storage, retentionDays } = destination;
  if (tap.use !== 'record' || !storage || retentionDays === null) return null;
  const rated = recordings.map(({ tap: other, rate }) => ({ tap: other, rateKbps: rate?.value ?? 0 }));
  const all = perDay(rated);
  return {
    ownBytesPerDay: perDay(rated.filter(({ tap: other }) => other.id === tap.id)),
    allBytesPerDay: all,
    recordings: recordings.length,
    usableBytes: terabytes(storage.diskTB) * storage.usableFraction,
    daysFit: daysFit(terabytes(storage.diskTB), storage.usableFraction, bytes(all)),
    daysWanted: retentionDays,
  };
}

/** What would change the verdict, nearest first; when all fits, how much room is left. */
function leversFor(
  site: Site,
  index: EvidenceIndex,
  tap: Tap,
  destination: Destination,
  recordings: readonly Recording[],
  numbers: RetentionNumbers,
): readonly Lever[] {
  const { storage } = destination;
  if (!storage) return [];
  const others = numbers.allBytesPerDay - numbers.ownBytesPerDay;
  const roomPerDay = numbers.usableBytes / (numbers.daysWanted * comfortableFactor) - others;
  const onDay = secondsPerDay(tap.schedule) * (1 + overheadFraction);
  const comfortableKbps = onDay > 0 ? (roomPerDay * 8) / onDay / 1000 : 0;
  const own = recordings.find((recording) => recording.tap.id === tap.id)?.rate?.value ?? 0;
  if (judgeDays(numbers.daysFit, numbers.daysWanted) === 'ok')
    return [
      { id: 'room', text: `Room for ${sayRate(comfortableKbps - own)} more before it gets tight`, verdict: 'ok' },
    ];

  const levers: Lever[] = [];
  const camera = site.cameras.find(({ id }) => id === tap.cameraId);
  for (const stream of camera?.streams ?? []) {
    const rate = stream.id === tap.streamId ? null : streamFacts(index, stream).bitrateKbps;
    if (!rate || rate.value >= own) continue;
    const fit = numbers.usableBytes / (others + perDay([{ rateKbps: rate.value, tap }]));
    levers.push({
      id: 'stream',
      text: `Record ${stream.label} at ${sayRate(rate.value)}: ${sayDays(fit)}`,
      verdict: judgeDays(fit, numbers.daysWanted),
    });
  }
  if (comfortableKbps > 0) {
    levers.push({ id: 'rate', text: `Lower this stream to ${sayRate(comfortableKbps)}`, verdict: 'ok' });
    const share = (comfortableKbps / own) * (secondsPerDay(tap.schedule) / days(1));
    levers.push({ id: 'share', text: `Record ${Math.floor(share * 100)} % of the day`, verdict: 'ok' });
  }
  const needed = diskNeeded(
    bytes(numbers.allBytesPerDay),
    numbers.daysWanted * comfortableFactor,
    storage.usableFraction,
    sizesSoldTB,
  );
  levers.push({ id: 'disk', text: `A disk of ${needed.pickTB ?? inTB(needed.size).toFixed(1)} TB`, verdict: 'ok' });
  const fewerDays = Math.floor(numbers.daysFit / comfortableFactor);
  if (fewerDays >= 1) levers.push({ id: 'days', text: `Keep ${fewerDays} days`, verdict: 'ok' });
  return levers;
}
