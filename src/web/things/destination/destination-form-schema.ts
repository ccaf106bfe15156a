import { type InferType, object, string } from 'yup';
import { SECRET_LIMIT_RANGES } from '../../../core/auth/secret-limits.ts';
import { inPercent, type Range } from '../../../core/base/range.ts';
import {
  DESTINATION_KINDS,
  type Destination,
  type DestinationKind,
} from '../../../core/document/chapters/destinations/destination.ts';
import {
  DESTINATION_FIELDS,
  DESTINATION_RANGES,
  UNKNOWN_DESTINATION,
} from '../../../core/document/chapters/destinations/destination-fields.ts';
import {
  readCodecs,
  readSize,
  readSounds,
  sayCodecs,
  saySize,
  saySounds,
} from '../../../core/figures/written-figures.ts';
import { STORAGE_ASSUMPTIONS } from '../../../core/storage/storage-assumptions.ts';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { formTable } from '../../ui/form-table.ts';
import { hostField, nameField, readOr, signsField, sizeField, writtenField } from '../../ui/form-texts.ts';
import { packsSchema } from './pack-fields.tsx';

export const KIND_WORDS: Readonly<Record<DestinationKind, string>> = {
  hub: 'home-automation hub',
  recorder: 'recorder',
  viewer: 'viewer',
  relay: 'relay',
};

const inMbps = ({ max, ...rest }: Range): Range => ({ ...rest, max: max / 1000, unit: 'Mbit/s' });

const figures = formTable(DESTINATION_FIELDS);

/** Figures of a destination as they are typed. */
export const destinationFormSchema = object({
  ...figures.fields,
  name: nameField(),
  kind: string().oneOf(DESTINATION_KINDS).required(),
  host: hostField(),
  networkId: string().defined(),
  codecs: writtenField(readCodecs),
  sounds: writtenField(readSounds),
  largest: sizeField(DESTINATION_RANGES.sidePx, { isWhole: true }),
  mostMbps: optionalNumber('Bit rate', inMbps(DESTINATION_RANGES.mostKbps)),
  includedSeats: optionalNumber('Licences', DESTINATION_RANGES.includedSeats),
  packs: packsSchema,
  diskTB: optionalNumber('Disk', DESTINATION_RANGES.diskTB),
  usablePercent: optionalNumber('Usable', inPercent(DESTINATION_RANGES.usableFraction)),
  diskPrice: optionalNumber('Price', DESTINATION_RANGES.price),
  longestSecret: optionalNumber('Longest password', SECRET_LIMIT_RANGES.longest),
  refusedSigns: signsField(),
});
export type DestinationFields = InferType<typeof destinationFormSchema>;

const known = (value: number | null | undefined): number | undefined => value ?? undefined;

export function fieldsOfDestination(before: Destination | null): DestinationFields {
  const one = before ?? { ...UNKNOWN_DESTINATION, name: '', kind: 'recorder' as const };
  const { storage, seats } = one;
  return {
    ...figures.show(one),
    name: one.name,
    kind: one.kind,
    host: one.host,
    networkId: one.networkId ?? '',
    codecs: sayCodecs(one.codecs),
    sounds: saySounds(one.sounds),
    largest: one.largest ? saySize(one.largest) : '',
    mostMbps: one.mostKbps === null ? undefined : one.mostKbps / 1000,
    includedSeats: seats?.included,
    packs: (seats?.packs ?? []).map((pack) => ({ ...pack })),
    diskTB: storage?.diskTB,
    usablePercent: Number(((storage?.usableFraction ?? STORAGE_ASSUMPTIONS.usableFraction) * 100).toFixed(6)),
    diskPrice: known(storage?.price),
    retentionDays: before ? known(one.retentionDays) : 14,
    longestSecret: known(one.secretLimits.longest),
    refusedSigns: one.secretLimits.refused,
  };
}

/** The destination that the fields say: a new one by its id, or what was before. Only recorders keep days. */
export function destinationOf(fields: DestinationFields, before: Destination | string): Destination {
  const isRecorder = fields.kind === 'recorder';
  const size = readOr(readSize, fields.largest, { widthPx: null, heightPx: null });
  const usable = fields.usablePercent ?? 100 * STORAGE_ASSUMPTIONS.usableFraction;
  return {
    ...figures.read(fields),
    id: typeof before === 'string' ? before : before.id,
    name: fields.name,
    kind: fields.kind,
    host: fields.host,
    networkId: fields.networkId || null,
    codecs: readOr(readCodecs, fields.codecs, []),
    sounds: readOr(readSounds, fields.sounds, []),
    largest:
      size.widthPx === null || size.heightPx === null ? null : { widthPx: size.widthPx, heightPx: size.heightPx },
    mostKbps: fields.mostMbps === undefined ? null : Number((fields.mostMbps * 1000).toFixed(6)),
    seats: fields.includedSeats === undefined ? null : { included: fields.includedSeats, packs: fields.packs },
    storage:
      isRecorder && fields.diskTB !== undefined
        ? { diskTB: fields.diskTB, usableFraction: usable / 100, price: fields.diskPrice ?? null }
        : null,
    retentionDays: isRecorder ? (fields.retentionDays ?? null) : null,
    secretLimits: {
      longest: fields.longestSecret ?? null,
      refused: fields.refusedSigns,
    },
    position: typeof before === 'string' ? null : before.position,
  };
}
