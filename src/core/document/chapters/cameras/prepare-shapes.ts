import { TEXT_LIMITS } from '../../../base/limits.ts';
import { flag, line, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import type { Marks } from '../../../firmware/marks.ts';
import { FILE_SYSTEMS } from '../../../firmware/memory-card.ts';
import { OPTIONS } from '../../../firmware/options.ts';
import { MOUNTS, SCREENS } from '../../../old-phone/heat.ts';
import { OLD_PHONE_LENSES, OLD_PHONE_RANGES, OLD_PHONE_WAYS, type OldPhone } from './old-phone.ts';
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

export const oldPhoneShape = shapeOf<OldPhone>()({
  mount: orNull(oneOf(MOUNTS)),
  screen: orNull(oneOf(SCREENS)),
  lens: orNull(oneOf(OLD_PHONE_LENSES)),
  roomC: orNull(within(OLD_PHONE_RANGES.roomC)),
  way: orNull(oneOf(OLD_PHONE_WAYS)),
  startsItself: orNull(flag()),
  hasFixedMac: orNull(flag()),
  sendsSound: orNull(flag()),
  isHeardNearby: orNull(flag()),
  loopGB: orNull(within(OLD_PHONE_RANGES.loopGB)),
  loopHoursWanted: orNull(within(OLD_PHONE_RANGES.loopHoursWanted)),
});
