import { type BitsPerSecond, type Bytes, bytes, type Seconds } from '../base/units.ts';
import type { RecordingSchedule } from './schedule.ts';

const SECONDS_PER_DAY = 86_400;
const SECONDS_PER_HOUR = 3600;

export interface RecordedStream {
  readonly count: number;
  readonly rate: BitsPerSecond;
  readonly schedule: RecordingSchedule;
}

const share = (name: string, value: number, max = 1): number => {
  if (!(value >= 0 && value <= max)) throw new RangeError(`${name}: expected 0…${max}, got ${value}`);
  return value;
};

/**
 * Seconds of a day in which a stream is written.
 * Overlapping events are counted twice up to the window; that errs on the full side.
 * @throws RangeError when a share is outside 0…1 or hours outside 0…24
 */
export function secondsPerDay(schedule: RecordingSchedule): number {
  switch (schedule.mode) {
    case 'continuous':
      return SECONDS_PER_DAY;
    case 'window':
      return SECONDS_PER_HOUR * share('hoursPerDay', schedule.hoursPerDay, 24);
    case 'duty':
      return SECONDS_PER_DAY * share('duty', schedule.duty);
    case 'events': {
      const window = SECONDS_PER_HOUR * share('hoursPerDay', schedule.hoursPerDay ?? 24, 24);
      return Math.min(window, schedule.eventsPerDay * (schedule.eventS + schedule.preS + schedule.postS));
    }
  }
}

/**
 * Bytes that streams write in a day.
 * @param overheadFraction container and index, 0.02 is usual (an assumption)
 * Source: Σ count × rate ÷ 8 × seconds × (1 + overhead). 4 Mbit/s all day → 43.2 GB.
 */
export function bytesPerDay(streams: readonly RecordedStream[], overheadFraction: number): Bytes {
  let total = 0;
  for (const { count, rate, schedule } of streams) total += count * (rate / 8) * secondsPerDay(schedule);
  return bytes(total * (1 + overheadFraction));
}

/** Days until a disk of which `usableFraction` may be used is full; `Infinity` when nothing is written: nobody is told that. */
export function daysFit(disk: Bytes, usableFraction: number, perDay: Bytes): number {
  share('usableFraction', usableFraction);
  return perDay === 0 ? Number.POSITIVE_INFINITY : (disk * usableFraction) / perDay;
}

/** Disk that holds `days`; `pickTB` is the smallest size sold that is large enough, `null` when none is. */
export function diskNeeded(
  perDay: Bytes,
  days: number,
  usableFraction: number,
  sizesTB: readonly number[],
): { readonly size: Bytes; readonly pickTB: number | null } {
  const size = bytes((perDay * days) / usableFraction);
  const fitting = sizesTB.filter((candidate) => candidate * 1e12 >= size * (1 - 1e-9));
  return { size, pickTB: fitting.length > 0 ? Math.min(...fitting) : null };
}

/** Hours until a memory card of a camera writes over its oldest recording. 64 GB × 0.9 at 6 Mbit/s → 21.33 h. */
export const cardLoopHours = (card: Bytes, usableFraction: number, rate: BitsPerSecond): number =>
  (card * share('usableFraction', usableFraction)) / (rate / 8) / SECONDS_PER_HOUR;

/**
 * What a card in the camera saves of an outage, and how long copying it back takes beside the live stream.
 * @returns `backfillS: null` when the link has no room beside the live stream
 */
export function gapFill(
  outage: Seconds,
  live: BitsPerSecond,
  link: BitsPerSecond,
  card: Bytes,
  usableFraction: number,
): { readonly missing: Bytes; readonly kept: Bytes; readonly lostS: number; readonly backfillS: number | null } {
  const missing = bytes((outage * live) / 8);
  const room = card * share('usableFraction', usableFraction);
  const kept = bytes(Math.min(missing, room));
  const lostS = Math.max(0, outage - room / (live / 8));
  return { missing, kept, lostS, backfillS: link <= live ? null : (kept * 8) / (link - live) };
}
