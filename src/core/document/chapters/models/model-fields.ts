import { UNKNOWN_SECRET_LIMITS } from '../../../auth/secret-limits.ts';
import { STREAM_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { above0, between, wholes } from '../../../base/range.ts';
import { RADIO_BANDS } from '../../../base/ways.ts';
import {
  amount,
  choice,
  type FieldTable,
  figure,
  lineOf,
  nameOf,
  notesOf,
  own,
  pathOf,
  several,
  usualOf,
  yesNo,
} from '../../../fields/field.ts';
import { PORT_RANGE } from '../../../net/port-range.ts';
import { RADIO_KIND_IDS, RADIO_KIND_WORDS } from '../../../radio/radio-kinds.ts';
import {
  type CardLight,
  LOCAL_STREAM_WORDS,
  LOCAL_STREAMS,
  MODEL_NOTES_CHARS,
  type Model,
  type ModelPower,
  SOUNDS,
} from './model-card.ts';

/** What the numbers of a card may be that are typed together with others. */
export const MODEL_RANGES = {
  sensorMm: above0(60, 'mm'),
  focalMm: above0(1000, 'mm'),
  sidePx: wholes(16, STREAM_LIMITS.sidePx, 'px'),
  measuredHfovDeg: between(1, 359, '°'),
  axisDeg: between(-180, 180, '°'),
  fps: above0(STREAM_LIMITS.fps),
  ingress: wholes(0, 69),
  poeClass: wholes(0, 8),
  volts: above0(400, 'V'),
} as const;

const WATTS = above0(1000, 'W');
const TURN = between(0, 360, '°');

export const POWER_FIELDS = {
  ways: own('Power sources', []),
  poeClass: own('Class', null),
  minVolts: own('Least voltage', null),
  maxVolts: own('Highest voltage', null),
  dayW: figure('By day, W', WATTS, { group: 'first' }),
  nightW: figure('At night, W', WATTS, { group: 'first' }),
  standbyW: figure('Standby, W', between(0, 1000, 'W'), { group: 'power' }),
  batteryWh: figure('Built-in battery, Wh', above0(100_000, 'Wh'), { group: 'power' }),
  supplyInBox: yesNo('Power supply in the box', { group: 'power' }),
} as const satisfies FieldTable<ModelPower>;

export const LIGHT_FIELDS = {
  kind: own('Illuminator', 'none'),
  reachM: figure('Rated range, m', between(0, 500, 'm'), { group: 'night' }),
  angleDeg: figure('Angle, °', TURN, { group: 'night' }),
} as const satisfies FieldTable<CardLight>;

/** What a card may say: its shape, the empty card and its form are made from these lines. */
export const MODEL_FIELDS = {
  maker: lineOf('Make', TEXT_LIMITS.name, { group: 'name' }),
  model: nameOf('Model', TEXT_LIMITS.name, { group: 'name' }),
  localStream: choice('Local stream', LOCAL_STREAMS, { words: LOCAL_STREAM_WORDS, group: 'name' }),
  hardwareRev: lineOf('Hardware revision', TEXT_LIMITS.label, { group: 'box' }),
  price: figure('Price each', between(0, 1e7), { group: 'box' }),
  seats: amount('Licences it takes', wholes(1, 16), 1, { group: 'box' }),
  ingress: own('IP code', null),
  cardMaxGB: figure('Largest SD card, GB (0: no slot)', between(0, 100_000, 'GB'), { group: 'box' }),
  lenses: own('Lenses', []),
  codecs: own('Codecs of the main stream', []),
  path: pathOf('Path', TEXT_LIMITS.path, {
    placeholder: '/live/main',
    hint: '{channel}, {user} and {password} are filled in',
    group: 'main',
  }),
  rtspPort: figure('Port', PORT_RANGE, { placeholder: '554', group: 'main' }),
  fps: figure('Frame rate', MODEL_RANGES.fps, { group: 'main' }),
  sessions: figure('Clients at once', wholes(1, 1000), { group: 'main' }),
  subs: own('Sub streams', null),
  light: own('Illuminator', null),
  panRangeDeg: figure('Pan, ° (0: fixed)', TURN, { group: 'night' }),
  tiltRangeDeg: figure('Tilt, °', TURN, { group: 'night' }),
  sound: choice('Audio', SOUNDS, { words: { hear: 'hears', talk: 'two-way' }, group: 'night' }),
  power: own('Power', usualOf<ModelPower>(POWER_FIELDS)),
  wired: yesNo('Wired network', { group: 'power' }),
  bands: several('Wi-Fi', RADIO_BANDS, {
    words: { '2.4': '2.4 GHz', '5': '5 GHz' },
    group: 'power',
  }),
  radio: choice('Wi-Fi standard', RADIO_KIND_IDS, { words: RADIO_KIND_WORDS, group: 'power' }),
  radioDbm: figure('Wi-Fi transmit power, dBm', between(0, 36, 'dBm'), { group: 'power' }),
  streamSwitch: notesOf('Where its RTSP is switched on', TEXT_LIMITS.place, { group: 'setup', isWide: true }),
  onvifPort: figure('ONVIF port', PORT_RANGE, { placeholder: '80', group: 'setup' }),
  channels: figure('Channels of a recorder', wholes(1, 256), { placeholder: '1', group: 'setup' }),
  factoryLogin: own('Factory login', null),
  secretLimits: own('Password rules', UNKNOWN_SECRET_LIMITS),
  hasSideBranch: yesNo('Maker’s RTSP firmware', { group: 'setup' }),
  reflash: own('Community firmware', null),
  lostWithoutAccount: own('What is lost', null),
  notes: notesOf('Notes', MODEL_NOTES_CHARS, { group: 'notes', isWide: true }),
  learnedFrom: own('Source', []),
} as const satisfies FieldTable<Omit<Model, 'id'>>;

/** A card of which only the name is known. */
export const emptyModel = (id: string, maker: string, model: string): Model => ({
  id,
  ...usualOf<Omit<Model, 'id'>>(MODEL_FIELDS),
  maker,
  model,
});
