import { pushTo } from '../base/push-to.ts';
import { bytes, kilobits, terabytes } from '../base/units.ts';
import { atLeast, type Verdict } from '../base/verdict.ts';
import type { Stream } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import { streamSubject } from '../document/subject.ts';
import { bestKnown } from '../evidence/best-known.ts';
import { soundCodecOf } from '../figures/written-figures.ts';
import { bytesPerDay, daysFit } from '../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../storage/storage-assumptions.ts';
import type { SiteView } from './site-view.ts';

const { overheadFraction, comfortableFactor } = STORAGE_ASSUMPTIONS;

/** Days that a disk holds against the days that are wanted; the comfortable factor more is no longer tight. */
export const judgeDays = (fit: number, wanted: number): Verdict => atLeast(fit, wanted * comfortableFactor, wanted);

export interface RetentionNumbers {
  readonly ownBytesPerDay: number;
  readonly allBytesPerDay: number;
  /** Taps that record on the same disk, this one counted. */
  readonly recordings: number;
  readonly usableBytes: number;
  readonly daysFit: number;
  readonly daysWanted: number;
  /** Of the days alone, whatever else stands in the way. */
  readonly verdict: Verdict;
}

/** What is recorded on one destination's disk: added up once, asked by each of its taps. */
export interface DiskLedger {
  readonly bytesPerDayOf: ReadonlyMap<string, number>;
  readonly allBytesPerDay: number;
  /** Names of recordings whose rate is not known: the days cannot be told while there are any. */
  readonly ratesMissing: readonly string[];
}

/** Of sound whose rate nobody told, kbit/s: by definition for G.711 and its like (RFC 3551 §4.5), as cameras are set for others [A]. */
const SOUND_KBPS: Readonly<Record<string, number>> = { PCMU: 64, PCMA: 64, G722: 64, 'G726-32': 32, AAC: 64 };
const OTHER_SOUND_KBPS = 64;

/** What the sound of a stream adds where it is recorded; a destination that does not take its codec drops it. */
export function soundKbps(
  { index }: Pick<SiteView, 'index'>,
  stream: Stream,
  destination: Pick<Destination, 'sounds'> | undefined,
): number {
  const subject = streamSubject(stream.id);
  const codec = bestKnown(index, subject, 'sound.codec')?.value;
  if (typeof codec !== 'string') return 0;
  const taken = destination?.sounds ?? [];
  if (taken.length > 0 && !taken.includes(soundCodecOf(codec))) return 0;
  const rate = bestKnown(index, subject, 'sound.bitrateKbps')?.value;
  return typeof rate === 'number' ? rate : (SOUND_KBPS[codec] ?? OTHER_SOUND_KBPS);
}

/** What one tap writes in a day, with the container around it, bytes. */
export const writtenPerDay = (rateKbps: number, { schedule }: Tap): number =>
  bytesPerDay([{ count: 1, rate: kilobits(rateKbps), schedule }], overheadFraction);

/** The ledgers of one document, each made when it is asked for first. */
export class DiskLedgers {
  readonly #recordings = new Map<string, Tap[]>();
  readonly #ledgers = new Map<string, DiskLedger>();

  constructor(private readonly view: SiteView) {
    for (const tap of view.site.taps) if (tap.use === 'record') pushTo(this.#recordings, tap.destinationId, tap);
  }

  of(destinationId: string): DiskLedger {
    const known = this.#ledgers.get(destinationId);
    if (known) return known;
    const bytesPerDayOf = new Map<string, number>();
    const ratesMissing: string[] = [];
    let allBytesPerDay = 0;
    const destination = this.view.destination(destinationId);
    for (const tap of this.#recordings.get(destinationId) ?? []) {
      const camera = this.view.camera(tap.cameraId);
      const stream = camera?.streams.find(({ id }) => id === tap.streamId);
      const rate = stream ? this.view.factsOf(stream).bitrateKbps : null;
      if (!rate) ratesMissing.push(camera?.name ?? tap.cameraId);
      const sound = stream ? soundKbps(this.view, stream, destination) : 0;
      const own = rate ? writtenPerDay(rate.value + sound, tap) : 0;
      bytesPerDayOf.set(tap.id, own);
      allBytesPerDay += own;
    }
    const ledger = { bytesPerDayOf, allBytesPerDay, ratesMissing };
    this.#ledgers.set(destinationId, ledger);
    return ledger;
  }
}

/** @returns `null` where the disk or the days are not said, or a rate is missing */
export function retentionOf(ledger: DiskLedger, destination: Destination, tap: Tap): RetentionNumbers | null {
  const { storage, retentionDays } = destination;
  // Where nothing is written, nothing is known of the days: none lasts for ever.
  if (ledger.ratesMissing.length > 0 || !storage || retentionDays === null || ledger.allBytesPerDay <= 0) return null;
  const fit = daysFit(terabytes(storage.diskTB), storage.usableFraction, bytes(ledger.allBytesPerDay));
  return {
    ownBytesPerDay: ledger.bytesPerDayOf.get(tap.id) ?? 0,
    allBytesPerDay: ledger.allBytesPerDay,
    recordings: ledger.bytesPerDayOf.size,
    usableBytes: terabytes(storage.diskTB) * storage.usableFraction,
    daysFit: fit,
    daysWanted: retentionDays,
    verdict: judgeDays(fit, retentionDays),
  };
}
