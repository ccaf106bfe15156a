import { TEXT_LIMITS } from '../../../base/limits.ts';
import { line, oneOf, orNull, shapeOf, text, within } from '../../../base/schema-parts.ts';
import { GUIDE_RANGES, type ReflashGuide } from '../../../firmware/guide.ts';
import { LED_COLOURS, type LedPattern, RHYTHM_NAMES } from '../../../firmware/led.ts';
import { FILE_SYSTEMS } from '../../../firmware/memory-card.ts';

const lamp = () => shapeOf<LedPattern>()({ colour: oneOf(LED_COLOURS), rhythm: oneOf(RHYTHM_NAMES) });

/** How a model is reflashed, as it lies on its card. */
export const guideShape = shapeOf<ReflashGuide>()({
  imageName: line(TEXT_LIMITS.fileName),
  backName: line(TEXT_LIMITS.fileName),
  fileSystem: oneOf(FILE_SYSTEMS),
  limitGiB: orNull(within(GUIDE_RANGES.limitGiB)),
  cardWay: text(TEXT_LIMITS.place),
  button: text(TEXT_LIMITS.place),
  powerOffS: within(GUIDE_RANGES.powerOffS),
  holdS: within(GUIDE_RANGES.holdS),
  signWithinS: within(GUIDE_RANGES.signWithinS),
  writeFromS: within(GUIDE_RANGES.writeS),
  writeToS: within(GUIDE_RANGES.writeS),
  patienceS: within(GUIDE_RANGES.patienceS),
  rebootS: within(GUIDE_RANGES.rebootS),
  lamps: shapeOf<ReflashGuide['lamps']>()({ usual: lamp(), taken: lamp(), writing: lamp(), stuck: lamp() }),
});
