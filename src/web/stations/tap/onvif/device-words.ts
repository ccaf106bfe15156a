import { sayMany, sayStretch } from '../../../../core/base/say.ts';
import { motionTopics, type OnvifReading } from '../../../../core/onvif/reading.ts';

/** “right”, “8 years slow”. */
export const sayClockError = (skewS: number): string =>
  Math.abs(skewS) < 1 ? 'right to the second' : `${sayStretch(skewS)} ${skewS > 0 ? 'fast' : 'slow'}`;

export const nameOfDevice = ({ device }: OnvifReading): string =>
  [device?.make, device?.model].filter((part) => part).join(' ') || 'A device that does not say its name';

/** How its head can be moved, in a few words. */
export function sayHead({ ptz }: OnvifReading): string {
  if (!ptz) return 'no PTZ';
  const { absolute, relative } = ptz.node;
  const how = absolute ? 'absolute moves' : relative ? 'relative moves' : 'timed moves only';
  const tells = { position: 'reports position', moving: 'reports movement', nothing: 'reports nothing' }[ptz.tells];
  return `PTZ ${how}, ${tells}`;
}

export function sayEvents({ events }: OnvifReading): string {
  if (!events) return 'no events';
  if (events.canPull === false) return 'events that cannot be pulled';
  const motion = motionTopics(events.topics).length;
  return `${sayMany(events.topics.length, 'topic')}${motion > 0 ? ', motion among them' : ', none of motion'}`;
}
