import { sayDays, sayRate } from '../../base/say.ts';
import { bytes, days, inTB } from '../../base/units.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import type { Tap } from '../../document/chapters/taps/tap.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { judgeDays, type RetentionNumbers, soundKbps, writtenPerDay } from '../../site/disk-ledger.ts';
import type { SiteView } from '../../site/site-view.ts';
import { diskNeeded, secondsPerDay } from '../../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';

const { overheadFraction, comfortableFactor, sizesSoldTB } = STORAGE_ASSUMPTIONS;

/** Something that would change the days, with the verdict they would then have. */
export interface Lever {
  readonly id: 'disk' | 'rate' | 'stream' | 'days' | 'share' | 'room';
  readonly text: string;
  readonly verdict: Verdict;
  /** What does it; `null` where somebody has to do it at the camera. */
  readonly command: SiteCommand | null;
}

interface LeverInput {
  readonly tap: Tap;
  readonly camera: Camera;
  readonly destination: Destination;
  readonly rateKbps: number;
  readonly numbers: RetentionNumbers;
}

/** [A] Less than this of a stream, or of a day, is no recording any more. */
const LEAST_SHARE = 0.1;

/** What would change the verdict, nearest first; when all fits, how much room is left. */
export function leversFor(
  view: Pick<SiteView, 'factsOf' | 'index'>,
  { tap, camera, destination, rateKbps: own, numbers }: LeverInput,
): readonly Lever[] {
  const { storage } = destination;
  if (!storage) return [];
  const { factsOf } = view;
  const recorded = camera.streams.find(({ id }) => id === tap.streamId);
  const sound = recorded ? soundKbps(view, recorded, destination) : 0;
  const others = numbers.allBytesPerDay - numbers.ownBytesPerDay;
  const roomPerDay = numbers.usableBytes / (numbers.daysWanted * comfortableFactor) - others;
  const onDay = secondsPerDay(tap.schedule) * (1 + overheadFraction);
  // what is left for the picture, its sound being recorded as well
  const comfortableKbps = (onDay > 0 ? (roomPerDay * 8) / onDay / 1000 : 0) - sound;
  if (numbers.verdict === 'ok')
    return [
      {
        id: 'room',
        text: `Room for ${sayRate(comfortableKbps - own)} more before it gets tight`,
        verdict: 'ok',
        command: null,
      },
    ];

  const changed = (change: Partial<Destination>): SiteCommand => ({
    kind: 'changeDestination',
    destination: { ...destination, ...change },
  });
  const levers: Lever[] = [];
  for (const stream of camera.streams) {
    if (stream.id === tap.streamId) continue;
    const { bitrateKbps: rate, codec } = factsOf(stream);
    const isTaken = destination.codecs.length === 0 || (codec !== null && destination.codecs.includes(codec.value));
    if (!rate || rate.value >= own || !isTaken) continue;
    const fit = numbers.usableBytes / (others + writtenPerDay(rate.value + soundKbps(view, stream, destination), tap));
    levers.push({
      id: 'stream',
      text: `Record ${stream.label} at ${sayRate(rate.value)}: ${sayDays(fit)}`,
      verdict: judgeDays(fit, numbers.daysWanted),
      command: { kind: 'changeTap', tap: { ...tap, streamId: stream.id } },
    });
  }
  if (comfortableKbps >= own * LEAST_SHARE) {
    levers.push({ id: 'rate', text: `Lower this stream to ${sayRate(comfortableKbps)}`, verdict: 'ok', command: null });
    const percent = Math.floor(
      ((comfortableKbps + sound) / (own + sound)) * (secondsPerDay(tap.schedule) / days(1)) * 100,
    );
    if (percent >= LEAST_SHARE * 100)
      levers.push({
        id: 'share',
        text: `Record ${percent} % of the day`,
        verdict: 'ok',
        command: { kind: 'changeTap', tap: { ...tap, schedule: { mode: 'duty', duty: percent / 100 } } },
      });
  }
  const needed = diskNeeded(
    bytes(numbers.allBytesPerDay),
    numbers.daysWanted * comfortableFactor,
    storage.usableFraction,
    sizesSoldTB,
  );
  const diskTB = needed.pickTB;
  levers.push({
    id: 'disk',
    text: `Use a disk of ${diskTB ?? inTB(needed.size).toFixed(1)} TB`,
    verdict: 'ok',
    command: diskTB === null ? null : changed({ storage: { ...storage, diskTB } }),
  });
  const fewerDays = Math.floor(numbers.daysFit / comfortableFactor);
  if (fewerDays >= 1)
    levers.push({
      id: 'days',
      text: `Keep ${fewerDays} days`,
      verdict: 'ok',
      command: changed({ retentionDays: fewerDays }),
    });
  return levers;
}
