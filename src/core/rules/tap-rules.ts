import { sayBytes, sayDays, sayRate } from '../base/say.ts';
import type { KnownHow } from '../site/site-types.ts';
import { STORAGE_ASSUMPTIONS } from '../storage/storage-assumptions.ts';
import { rulesFor } from './rule.ts';

/** What the rules about one tap may ask for. */
export interface TapFacts {
  readonly destination: string;
  readonly codec: string;
  /** Codecs the destination takes; only present when it says so. */
  readonly codecsTaken: readonly string[];
  readonly rateKbps: number;
  readonly rateHow: KnownHow;
  readonly records: boolean;
  readonly daysFit: number;
  readonly daysWanted: number;
  readonly bytesPerDay: number;
  readonly usableBytes: number;
}

const rule = rulesFor<TapFacts>();
const comfortable = STORAGE_ASSUMPTIONS.comfortableFactor;
const sum = (f: { bytesPerDay: number; usableBytes: number }): string =>
  `${sayBytes(f.usableBytes)} usable ÷ ${sayBytes(f.bytesPerDay)} a day`;

/** What a destination makes of a stream. */
export const TAP_RULES = [
  rule({
    id: 'tap.codec-not-taken',
    severity: 'stop',
    source: 'the destination’s own list of codecs',
    needs: ['codec', 'codecsTaken', 'destination'],
    fails: (f) => !f.codecsTaken.includes(f.codec),
    title: (f) => `${f.destination} does not take ${f.codec}`,
    because: (f) => `The stream is ${f.codec}; it takes ${f.codecsTaken.join(', ')}.`,
    do: ['Draw a stream in another codec.', 'Set the camera’s encoder to one it takes.'],
    why: 'A destination that cannot decode a stream shows or keeps nothing.',
  }),
  rule({
    id: 'storage.retention-short',
    severity: 'stop',
    source: 'rate × retention ÷ 8 against the usable disk',
    needs: ['daysFit', 'daysWanted', 'bytesPerDay', 'usableBytes', 'destination'],
    fails: (f) => f.daysFit < f.daysWanted * (1 - 1e-6),
    title: (f) => `${f.destination} is full after ${sayDays(f.daysFit)}`,
    because: (f) => `${sum(f)} = ${sayDays(f.daysFit)}; ${f.daysWanted} wanted.`,
    do: ['Take a larger disk, a lower rate, or record less of the day.'],
    why: 'The recorder writes over the oldest day, and that is the one somebody asks for.',
  }),
  rule({
    id: 'storage.retention-tight',
    severity: 'fix',
    source: `1.2 times the days wanted count as comfortable [A]`,
    needs: ['daysFit', 'daysWanted', 'bytesPerDay', 'usableBytes', 'destination'],
    fails: (f) => f.daysFit >= f.daysWanted * (1 - 1e-6) && f.daysFit < f.daysWanted * comfortable * (1 - 1e-6),
    title: (f) => `${f.destination} holds ${sayDays(f.daysFit)}, with little to spare`,
    because: (f) =>
      `${sum(f)} = ${sayDays(f.daysFit)}; ${f.daysWanted} wanted, ${(f.daysWanted * comfortable).toFixed(1)} would be comfortable.`,
    do: ['Leave room: rain and busy days raise the rate.'],
    why: 'A rate measured in three seconds of an ordinary day is not that of a stormy night.',
  }),
  rule({
    id: 'storage.rate-not-measured',
    severity: 'note',
    source: 'known how: assumed < planned < declared < measured',
    needs: ['rateHow', 'rateKbps', 'records'],
    fails: (f) => f.records && f.rateHow !== 'measured' && f.rateHow !== 'confirmed',
    title: (f) => `Its rate is ${f.rateHow}, not measured`,
    because: (f) => `${sayRate(f.rateKbps)} is ${f.rateHow}.`,
    do: ['Probe the stream; the days follow at once.'],
    why: 'Encoders use half or twice what a plan says.',
  }),
] as const;
