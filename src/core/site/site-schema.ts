import { lazy, mixed, number, string } from 'yup';
import { modelSchema } from '../models/model-schema.ts';
import { costing, feed, gear, link, mounting, need, plan, point, sky } from './planning-schema.ts';
import { id, list, oneOf, orNull, shape, share, text, whole } from './schema-parts.ts';
import { CAMERA_KINDS, DESTINATION_KINDS, KNOWN_HOWS, LOG_KINDS, SITE_FORMAT, SITE_VERSION } from './site-types.ts';
import { TAP_USES } from './tap-uses.ts';

/** Hard limits of a site: far above any house, low enough that a hostile file cannot hang the page. */
const MAX = { cameras: 5000, taps: 20_000, evidence: 200_000, log: 200_000, few: 500 } as const;

const schedule = lazy((value: unknown) => {
  const mode = typeof value === 'object' && value !== null && 'mode' in value ? value.mode : undefined;
  if (mode === 'window')
    return shape({ mode: oneOf(['window']), hoursPerDay: number().strict().min(0).max(24).required() });
  if (mode === 'duty') return shape({ mode: oneOf(['duty']), duty: share() });
  if (mode === 'events') {
    const amount = () => number().strict().min(0).max(1e6).required();
    return shape({
      mode: oneOf(['events']),
      eventsPerDay: amount(),
      eventS: amount(),
      preS: amount(),
      postS: amount(),
      hoursPerDay: number().strict().min(0).max(24),
    });
  }
  return shape({ mode: oneOf(['continuous', 'window', 'duty', 'events']) });
});

const stream = shape({
  id: id(),
  label: text(40).min(1),
  path: text(2000).matches(/^(\/[^\s#]*)?$/, '${path} must start with / and hold no blanks'),
  codec: orNull(text(20)),
  width: orNull(whole(1, 20_000)),
  height: orNull(whole(1, 20_000)),
  fps: orNull(number().strict().moreThan(0).max(1000)),
  gopFrames: orNull(whole(1, 100_000)),
  bitrateKbps: orNull(number().strict().moreThan(0).max(10_000_000)),
});

const camera = shape({
  id: id(),
  name: text(80).min(1),
  place: text(),
  kind: oneOf(CAMERA_KINDS),
  modelId: orNull(id()),
  host: text(253),
  ports: shape({ rtsp: whole(1, 65_535).required() }),
  account: orNull(shape({ user: text(), secretRef: id() })),
  streams: list(stream, 16),
  need: orNull(need),
  mounting: orNull(mounting),
  position: orNull(point),
  candidates: list(id(), 4),
  feed: orNull(feed),
});

const destination = shape({
  id: id(),
  name: text(80).min(1),
  kind: oneOf(DESTINATION_KINDS),
  codecs: list(text(20).required(), 20),
  storage: orNull(shape({ diskTB: number().strict().moreThan(0).max(10_000).required(), usableFraction: share() })),
  retentionDays: orNull(number().strict().moreThan(0).max(36_500)),
  position: orNull(point),
});

const assumptions = lazy((value: unknown) =>
  shape(
    Object.fromEntries(
      Object.keys(typeof value === 'object' && value !== null ? value : {})
        .slice(0, MAX.few)
        .map((name) => [name, number().strict().min(-1e6).max(1e6).required()]),
    ),
  ),
);

const evidence = shape({
  id: id(),
  subject: text(120).min(1),
  quantity: text(60).min(1),
  value: mixed((value): value is string | number | boolean =>
    ['string', 'number', 'boolean'].includes(typeof value),
  ).required(),
  how: oneOf(KNOWN_HOWS),
  takenAt: string().strict().required().datetime({ message: '${path} must be a time in UTC' }),
  source: text(),
});

const logEntry = shape({
  id: id(),
  at: string().strict().required().datetime({ message: '${path} must be a time in UTC' }),
  kind: oneOf(LOG_KINDS),
  subject: text(120).min(1),
  text: text(1000),
  refs: list(shape({ name: text(60).min(1), value: text(500) }), 40),
});

/** The site document, in its newest version. */
export const siteSchema = shape({
  format: oneOf([SITE_FORMAT]),
  version: number().strict().oneOf([SITE_VERSION]).required(),
  id: id(),
  name: text(80).min(1),
  notes: text(20_000),
  networks: list(shape({ id: id(), name: text(80).min(1), cidr: text(43).min(1), gateway: orNull(text(45)) }), MAX.few),
  sky,
  plan,
  gear: list(gear, MAX.few),
  links: list(link, MAX.taps),
  costing,
  assumptions,
  models: list(modelSchema, MAX.few),
  cameras: list(camera, MAX.cameras),
  destinations: list(destination, MAX.few),
  taps: list(
    shape({
      id: id(),
      cameraId: id(),
      streamId: id(),
      destinationId: id(),
      use: oneOf(TAP_USES),
      protocol: oneOf(['rtsp']),
      schedule,
    }),
    MAX.taps,
  ),
  evidence: list(evidence, MAX.evidence),
  log: list(logEntry, MAX.log),
});
