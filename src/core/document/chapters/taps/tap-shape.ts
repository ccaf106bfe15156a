import { type ISchema, number } from 'yup';
import { byField, id, oneOf, shape, shapeOf, share } from '../../../base/schema-parts.ts';
import { TAP_USES } from '../../../base/tap-uses.ts';
import type { RecordingSchedule } from '../../../storage/schedule.ts';
import type { Site } from '../../site.ts';
import type { Tap } from './tap.ts';

type ScheduleOf<M extends RecordingSchedule['mode']> = Extract<RecordingSchedule, { readonly mode: M }>;

const amount = () => number().strict().min(0).max(1e6).required();
const SCHEDULES: { readonly [M in RecordingSchedule['mode']]: ISchema<ScheduleOf<M>> } = {
  continuous: shapeOf<ScheduleOf<'continuous'>>()({ mode: oneOf(['continuous']) }),
  window: shapeOf<ScheduleOf<'window'>>()({
    mode: oneOf(['window']),
    hoursPerDay: number().strict().min(0).max(24).required(),
  }),
  duty: shapeOf<ScheduleOf<'duty'>>()({ mode: oneOf(['duty']), duty: share() }),
  events: shapeOf<ScheduleOf<'events'>>()({
    mode: oneOf(['events']),
    eventsPerDay: amount(),
    eventS: amount(),
    preS: amount(),
    postS: amount(),
    hoursPerDay: number().strict().min(0).max(24),
  }),
};
const scheduleShape = byField<RecordingSchedule>(
  'mode',
  SCHEDULES,
  shape({ mode: oneOf(['continuous', 'window', 'duty', 'events']) }),
);

export const tapShape = shapeOf<Tap>()({
  id: id(),
  cameraId: id(),
  streamId: id(),
  destinationId: id(),
  use: oneOf(TAP_USES),
  protocol: oneOf(['rtsp']),
  schedule: scheduleShape,
});

export function brokenEndOfTap({
  taps,
  cameras,
  destinations,
}: Pick<Site, 'taps' | 'cameras' | 'destinations'>): string | null {
  const streams = new Map(cameras.map((camera) => [camera.id, new Set(camera.streams.map(({ id }) => id))]));
  const drawers = new Set(destinations.map(({ id }) => id));
  for (const [index, { cameraId, streamId, destinationId }] of taps.entries()) {
    if (!streams.get(cameraId)?.has(streamId))
      return `taps[${index}]: there is no stream “${streamId}” of a camera “${cameraId}”.`;
    if (!drawers.has(destinationId)) return `taps[${index}].destinationId: there is no destination “${destinationId}”.`;
  }
  return null;
}
