import { TEXT_LIMITS } from '../../../base/limits.ts';
import { flag, line, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import type { Marks } from '../../../firmware/marks.ts';
import { FILE_SYSTEMS } from '../../../firmware/memory-card.ts';
import { OPTIONS } from '../../../firmware/options.ts';
import { MOUNTS, SCREENS } from '../../../handset/heat.ts';
import { HANDSET_LENSES, HANDSET_RANGES, HANDSET_WAYS, type Handset } from './handset.ts';
import type { ImageFile, PlannedCard, Reflash } from './reflash.ts';
import { REFLASH_RANGES } from './reflash-ranges.ts';

const mark = () => line(TEXT_LIMITS.label);
const marksShape = shapeOf<Marks>()({ board: mark(), flash: mark(), sensor: mark(), radio: mark() });

const imageShape = shapeOf<ImageFile>()({
  fileName: line(TEXT_LIMITS.fileName).min(1),
  archive: orNull(line(TEXT_LIMITS.fileName)),
  bytes: within(REFLASH_RANGES.imageBytes),
  sha256: text(64).matches(/^[0-9a-f]{64}$/, '${path} must be 64 hexadecimal digits'),
  published: line(TEXT_LIMITS.refValue),
  version: line(TEXT_LIMITS.label),
  hardwareRev: line(TEXT_LIMITS.label),
  marks: marksShape,
});

const cardShape = shapeOf<PlannedCard>()({
  bytes: within(REFLASH_RANGES.cardBytes),
  fileSystem: oneOf(FILE_SYSTEMS),
  partitionMiB: orNull(within(REFLASH_RANGES.partitionMiB)),
  fileName: line(TEXT_LIMITS.fileName),
});

export const reflashShape = shapeOf<Reflash>()({
  isOwn: orNull(flag()),
  isOnlyOne: orNull(flag()),
  hasMainsInside: orNull(flag()),
  hasRescue: orNull(flag()),
  label: shapeOf<Reflash['label']>()({ hardwareRev: line(TEXT_LIMITS.label), version: line(TEXT_LIMITS.label) }),
  marks: marksShape,
  decision: orNull(oneOf(OPTIONS)),
  image: orNull(imageShape),
  backImage: orNull(imageShape),
  isBackGivenUp: flag(),
  card: orNull(cardShape),
});

export const handsetShape = shapeOf<Handset>()({
  mount: orNull(oneOf(MOUNTS)),
  screen: orNull(oneOf(SCREENS)),
  lens: orNull(oneOf(HANDSET_LENSES)),
  roomC: orNull(within(HANDSET_RANGES.roomC)),
  way: orNull(oneOf(HANDSET_WAYS)),
  startsItself: orNull(flag()),
  hasFixedMac: orNull(flag()),
  sendsSound: orNull(flag()),
  isHeardNearby: orNull(flag()),
  loopGB: orNull(within(HANDSET_RANGES.loopGB)),
  loopHoursWanted: orNull(within(HANDSET_RANGES.loopHoursWanted)),
});
