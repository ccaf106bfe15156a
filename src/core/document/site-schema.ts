import { type ISchema, lazy, mixed, number, type Schema } from 'yup';
import { LIST_LIMITS, STREAM_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { id, line, list, moment, oneOf, orNull, shape, share, text, whole } from '../base/schema-parts.ts';
import { TAP_USES } from '../base/tap-uses.ts';
import { modelSchema } from './cards/model-schema.ts';
import { costing, feed, gear, link, mounting, need, plan, point, sky } from './planning-schema.ts';
import {
  CAMERA_KINDS,
  DESTINATION_KINDS,
  type EvidenceValue,
  KNOWN_HOWS,
  LOG_KINDS,
  SITE_FORMAT,
  SITE_VERSION,
  type Site,
} from './site-types.ts';

const amount = () => number().strict().min(0).max(1e6).required();
const SCHEDULES: Readonly<Record<string, Schema>> = {
  window: shape({ mode: oneOf(['window']), hoursPerDay: number().strict().min(0).max(24).required() }),
  duty: shape({ mode: oneOf(['duty']), duty: share() }),
  events: shape({
    mode: oneOf(['events']),
    eventsPerDay: amount(),
    eventS: amount(),
    preS: amount(),
    postS: amount(),
    hoursPerDay: number().strict().min(0).max(24),
  }),
};
const ALL_DAY = shape({ mode: oneOf(['continuous', 'window', 'duty', 'events']) });
const schedule = lazy((value: unknown) => {
  const mode = typeof value === 'object' && value !== null && 'mode' in value ? String(value.mode) : '';
  return Object.hasOwn(SCHEDULES, mode) ? (SCHEDULES[mode] ?? ALL_DAY) : ALL_DAY;
});

const stream = shape({
  id: id(),
  label: text(TEXT_LIMITS.label).min(1),
  path: line(TEXT_LIMITS.path).matches(/^(\/[^\s#]*)?$/, '${path} must start with / and hold no blanks'),
  codec: orNull(text(TEXT_LIMITS.codec)),
  width: orNull(whole(1, STREAM_LIMITS.sidePx)),
  height: orNull(whole(1, STREAM_LIMITS.sidePx)),
  fps: orNull(number().strict().moreThan(0).max(STREAM_LIMITS.fps)),
  gopFrames: orNull(whole(1, STREAM_LIMITS.gopFrames)),
  bitrateKbps: orNull(number().strict().moreThan(0).max(STREAM_LIMITS.bitrateKbps)),
});

const camera = shape({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  place: text(TEXT_LIMITS.place),
  kind: oneOf(CAMERA_KINDS),
  modelId: orNull(id()),
  host: line(TEXT_LIMITS.host),
  ports: shape({ rtsp: whole(1, 65_535).required() }),
  account: orNull(shape({ user: line(TEXT_LIMITS.user), secretRef: id(TEXT_LIMITS.secretRef) })),
  streams: list(stream, LIST_LIMITS.streamsOfCamera),
  need: orNull(need),
  mounting: orNull(mounting),
  position: orNull(point),
  candidates: list(id(), LIST_LIMITS.candidates),
  feed: orNull(feed),
});

const destination = shape({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  kind: oneOf(DESTINATION_KINDS),
  codecs: list(text(TEXT_LIMITS.codec).required(), LIST_LIMITS.codecs),
  storage: orNull(shape({ diskTB: number().strict().moreThan(0).max(10_000).required(), usableFraction: share() })),
  retentionDays: orNull(number().strict().moreThan(0).max(36_500)),
  position: orNull(point),
});

/** Names in a document are names of nothing else (schema-parts.ts); what is beyond the limit is unknown and refused. */
const assumptions = lazy((value: unknown) =>
  shape(
    Object.fromEntries(
      Object.keys(typeof value === 'object' && value !== null ? value : {})
        .filter((name) => id().isValidSync(name))
        .slice(0, LIST_LIMITS.assumptions)
        .map((name) => [name, number().strict().min(-1e6).max(1e6).required()]),
    ),
  ),
);

/** What JSON can carry: neither NaN nor Infinity, and no text beyond its limit. */
const isEvidenceValue = (value: unknown): value is EvidenceValue =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= TEXT_LIMITS.evidence);

const evidence = shape({
  id: id(),
  subject: text(TEXT_LIMITS.subject).min(1),
  quantity: text(TEXT_LIMITS.quantity).min(1),
  value: mixed(isEvidenceValue).test('needed', '${path} must be a text, a number or yes or no', isEvidenceValue),
  how: oneOf(KNOWN_HOWS),
  takenAt: moment(),
  source: text(TEXT_LIMITS.source),
});

const logEntry = shape({
  id: id(),
  at: moment(),
  kind: oneOf(LOG_KINDS),
  subject: text(TEXT_LIMITS.subject).min(1),
  text: text(TEXT_LIMITS.logText),
  refs: list(shape({ name: text(TEXT_LIMITS.refName).min(1), value: text(TEXT_LIMITS.refValue) }), LIST_LIMITS.logRefs),
});

const tap = shape({
  id: id(),
  cameraId: id(),
  streamId: id(),
  destinationId: id(),
  use: oneOf(TAP_USES),
  protocol: oneOf(['rtsp']),
  schedule,
});

const network = shape({
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  cidr: text(43).min(1),
  gateway: orNull(text(45)),
});

/** Lists of the document: what an item is, and how many there may be. */
export const SITE_LISTS = {
  networks: { item: network, most: LIST_LIMITS.networks },
  gear: { item: gear, most: LIST_LIMITS.gear },
  links: { item: link, most: LIST_LIMITS.links },
  models: { item: modelSchema, most: LIST_LIMITS.models },
  cameras: { item: camera, most: LIST_LIMITS.cameras },
  destinations: { item: destination, most: LIST_LIMITS.destinations },
  taps: { item: tap, most: LIST_LIMITS.taps },
  evidence: { item: evidence, most: LIST_LIMITS.evidence },
  log: { item: logEntry, most: LIST_LIMITS.log },
} as const satisfies Partial<Record<keyof Site, { readonly item: ISchema<unknown>; readonly most: number }>>;

const listOf = (name: keyof typeof SITE_LISTS) => list(SITE_LISTS[name].item, SITE_LISTS[name].most);

/** All else of it. */
export const SITE_VALUES = {
  format: oneOf([SITE_FORMAT]),
  version: number().strict().oneOf([SITE_VERSION]).required(),
  id: id(),
  name: text(TEXT_LIMITS.name).min(1),
  notes: text(TEXT_LIMITS.siteNotes),
  sky,
  plan,
  costing,
  assumptions,
} as const satisfies Partial<Record<keyof Site, ISchema<unknown>>>;

/** The site document, in its newest version. */
export const siteSchema = shape({
  ...SITE_VALUES,
  networks: listOf('networks'),
  gear: listOf('gear'),
  links: listOf('links'),
  models: listOf('models'),
  cameras: listOf('cameras'),
  destinations: listOf('destinations'),
  taps: listOf('taps'),
  evidence: listOf('evidence'),
  log: listOf('log'),
});
