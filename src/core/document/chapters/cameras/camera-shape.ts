import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { pointShape } from '../../../base/plan-shapes.ts';
import {
  flag,
  id,
  line,
  list,
  oneOf,
  orNull,
  positive,
  real,
  shape,
  shapeOf,
  share,
  text,
  within,
} from '../../../base/schema-parts.ts';
import { TAP_USES } from '../../../base/tap-uses.ts';
import { POWER_WAYS } from '../../../base/ways.ts';
import { CAMERA_LINES } from '../../../net/camera-line.ts';
import { STREAM_PATH } from '../../../net/path-places.ts';
import { DETAIL_LEVELS } from '../../../optics/detail-levels.ts';
import type { SunFeed } from '../../../power/sun-feed.ts';
import type { Site } from '../../site.ts';
import { SOUNDS } from '../models/model-card.ts';
import {
  type Account,
  CAMERA_KINDS,
  CAMERA_RANGES,
  type Camera,
  type MemoryCard,
  STREAM_RANGES,
  type Stream,
} from './camera.ts';
import { type ChargeCare, FEED_RANGES, type Feed } from './feed.ts';
import { type Identity, KEEPINGS } from './identity.ts';
import type { Mounting } from './mounting.ts';
import { NEED_RANGES, type Need } from './need.ts';
import { oldPhoneShape, reflashShape } from './prepare-shapes.ts';
import { steeringShape } from './ptz-shape.ts';

export const needShape = shapeOf<Need>()({
  level: orNull(oneOf(DETAIL_LEVELS.map(({ level }) => level))),
  text: orNull(shape({ line: text(TEXT_LIMITS.label).min(1), charHeightMm: within(NEED_RANGES.charHeightMm) })),
  distanceM: within(NEED_RANGES.distanceM),
  widthM: within(NEED_RANGES.widthM),
  nearM: within(NEED_RANGES.nearM),
  atNight: flag(),
  sound: oneOf(SOUNDS),
  turns: flag(),
  outdoors: flag(),
  draws: list(shape({ destinationId: id(), use: oneOf(TAP_USES) }), LIST_LIMITS.draws),
});

export const mountingShape = shapeOf<Mounting>()({
  heightM: positive(100).required(),
  tiltDownDeg: real(-90, 90).required(),
  headingDeg: real(-360, 360).required(),
  zoom: orNull(real(1, 100)),
});

const sunShape = shapeOf<SunFeed>()({
  panelWp: within(FEED_RANGES.panelWp),
  tiltDeg: within(FEED_RANGES.tiltDeg),
  shade: within(FEED_RANGES.shade),
  batteryWh: within(FEED_RANGES.batteryWh),
  panelPrice: orNull(within(FEED_RANGES.price)),
  batteryPrice: orNull(within(FEED_RANGES.price)),
  depthOfDischarge: share(),
  isLithium: flag(),
  drawnHoursPerDay: within(FEED_RANGES.drawnHoursPerDay),
  mainsMonths: list(within(FEED_RANGES.month), 12),
});

export const feedShape = shapeOf<Feed>()({
  way: oneOf(POWER_WAYS),
  sun: orNull(sunShape),
  charge: orNull(shapeOf<ChargeCare>()({ limitPercent: orNull(within(FEED_RANGES.limitPercent)) })),
});

export const streamShape = shapeOf<Stream>()({
  id: id(),
  label: line(TEXT_LIMITS.label).min(1),
  path: line(TEXT_LIMITS.path).matches(STREAM_PATH, '${path} must start with / and must not contain spaces'),
  codec: orNull(text(TEXT_LIMITS.codec)),
  width: orNull(within(STREAM_RANGES.sidePx)),
  height: orNull(within(STREAM_RANGES.sidePx)),
  fps: orNull(within(STREAM_RANGES.fps)),
  gopFrames: orNull(within(STREAM_RANGES.gopFrames)),
  bitrateKbps: orNull(within(STREAM_RANGES.bitrateKbps)),
});

export const identityShape = shapeOf<Identity>()({
  mac: line(TEXT_LIMITS.mac),
  serial: line(TEXT_LIMITS.serial),
  endpoint: line(TEXT_LIMITS.endpoint),
});

const accountShape = shapeOf<Account>()({ user: line(TEXT_LIMITS.user), secretRef: id(TEXT_LIMITS.secretRef) });

export const cameraShape = shapeOf<Camera>()({
  id: id(),
  name: line(TEXT_LIMITS.name).min(1),
  place: line(TEXT_LIMITS.place),
  kind: oneOf(CAMERA_KINDS),
  modelId: orNull(id()),
  channel: orNull(within(CAMERA_RANGES.channel)),
  host: line(TEXT_LIMITS.host),
  ports: shapeOf<Camera['ports']>()({ rtsp: within(CAMERA_RANGES.rtspPort) }),
  line: oneOf(CAMERA_LINES),
  onvifPort: orNull(within(CAMERA_RANGES.rtspPort)),
  onvifTls: flag(),
  identity: identityShape,
  keeping: orNull(oneOf(KEEPINGS)),
  account: orNull(accountShape),
  adminAccount: orNull(accountShape),
  streams: list(streamShape, LIST_LIMITS.streamsOfCamera),
  need: orNull(needShape),
  mounting: orNull(mountingShape),
  position: orNull(pointShape),
  candidates: list(id(), LIST_LIMITS.candidates),
  feed: orNull(feedShape),
  memoryCard: orNull(
    shapeOf<MemoryCard>()({ sizeGB: within(CAMERA_RANGES.cardGB), price: orNull(within(CAMERA_RANGES.price)) }),
  ),
  reflash: orNull(reflashShape),
  handset: orNull(oldPhoneShape),
  steering: steeringShape,
});

/** What a camera is known by, and what it knows others by. */
export const cameraJoints = ({ id, modelId, candidates, streams }: Camera): string =>
  [id, modelId, ...candidates, '', ...streams.map((stream) => stream.id)].join(' ');

export function brokenModelOfCamera({ models, cameras }: Pick<Site, 'models' | 'cameras'>): string | null {
  const known = new Set(models.map(({ id }) => id));
  for (const [index, { modelId, candidates }] of cameras.entries()) {
    if (modelId !== null && !known.has(modelId))
      return `cameras[${index}].modelId: there is no model card “${modelId}”.`;
    const missing = candidates.find((candidate) => !known.has(candidate));
    if (missing !== undefined) return `cameras[${index}].candidates: there is no model card “${missing}”.`;
  }
  return null;
}
