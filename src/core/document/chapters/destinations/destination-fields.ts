import { UNKNOWN_SECRET_LIMITS } from '../../../auth/secret-limits.ts';
import { STREAM_LIMITS } from '../../../base/limits.ts';
import { above0, between, wholes } from '../../../base/range.ts';
import { type FieldTable, figure, own, several, usualOf } from '../../../fields/field.ts';
import { type Destination, PROTOCOL_WORDS, PROTOCOLS } from './destination.ts';

type DestinationFigures = Omit<Destination, 'id' | 'name' | 'kind'>;

/** What its numbers may be that are typed together with others, or in another unit. */
export const DESTINATION_RANGES = {
  diskTB: above0(10_000, 'TB'),
  usableFraction: between(0, 1),
  sidePx: wholes(16, STREAM_LIMITS.sidePx, 'px'),
  mostKbps: above0(STREAM_LIMITS.bitrateKbps, 'kbit/s'),
  includedSeats: wholes(0, 10_000),
  price: between(0, 1e7),
} as const;

/** What a destination takes; nothing is known when nobody said. */
export const DESTINATION_FIELDS = {
  host: own('Its own address', ''),
  networkId: own('Its network', null),
  codecs: own('Codecs it takes', []),
  sounds: own('Audio codecs it takes', []),
  protocols: several('Protocols it takes', PROTOCOLS, { words: PROTOCOL_WORDS }),
  largest: own('Largest resolution', null),
  mostFps: figure('Highest frame rate', above0(STREAM_LIMITS.fps)),
  mostKbps: own('Highest bit rate', null),
  decodes: figure('Streams it decodes at once', wholes(1, 10_000), { hint: 'shown live, or analysed' }),
  seats: own('Licences', null),
  storage: own('Disk', null),
  retentionDays: figure('Days wanted', above0(36_500, 'days')),
  secretLimits: own('Password rules', UNKNOWN_SECRET_LIMITS),
  position: own('Place', null),
} as const satisfies FieldTable<DestinationFigures>;

/** A destination of which only name and kind are known. */
export const UNKNOWN_DESTINATION = usualOf<DestinationFigures>(DESTINATION_FIELDS);
