import { clipText } from '../base/clip.ts';
import { err, ok, type Result } from '../base/result.ts';
import type { PowerWay } from '../base/ways.ts';
import { SENSOR_FORMATS } from '../optics/sensor-formats.ts';

// Figures as people write them and data sheets print them: “4MP”, “2.8–12 mm”, “802.3af, 12 V”. What is read is said back by
// the `say…` beside it, and reading that gives the same. What is not understood is an error in words, never a guess.

/** Longer than any figure. */
const MOST_CHARS = 200;
const NUMBER = String.raw`\d{1,6}(?:[.,]\d{1,4})?`;
const TO = String.raw`\s{0,3}(?:-|–|—|to|\.\.\.?|…)\s{0,3}`;
const pattern = (text: string): RegExp => new RegExp(`^${text}$`, 'i');

const toNumber = (text: string): number => Number(text.replace(',', '.'));
const partsOf = (text: string): readonly string[] =>
  text
    .slice(0, MOST_CHARS)
    .split(/[,;/&]\s|[;&]|,(?!\d)|\s[/+]\s|\sor\s|\sand\s/i)
    .map((part) => part.trim())
    .filter((part) => part !== '');
const quoted = (text: string): string => `“${clipText(text.trim(), 40)}”`;

/** Codecs by the names they are sold under. */
const CODEC_NAMES: Readonly<Record<string, string>> = {
  H264: 'H264',
  AVC: 'H264',
  H265: 'H265',
  HEVC: 'H265',
  JPEG: 'JPEG',
  MJPEG: 'JPEG',
  MJPG: 'JPEG',
  MPEG4: 'MPEG4',
  MP4V: 'MPEG4',
  AV1: 'AV1',
  VP8: 'VP8',
  VP9: 'VP9',
};

/** “H.264, H.265+” → H264, H265. */
export function readCodecs(text: string): Result<readonly string[], string> {
  const found: string[] = [];
  for (const word of text.slice(0, MOST_CHARS).split(/[\s,;/]+/)) {
    if (word === '') continue;
    const codec = CODEC_NAMES[word.toUpperCase().replace(/[^A-Z0-9]/g, '')];
    if (!codec) return err(`${quoted(word)} is not a codec known here: H.264, H.265, JPEG, MPEG-4, AV1, VP8, VP9.`);
    if (!found.includes(codec)) found.push(codec);
  }
  return ok(found);
}
const CODEC_WORDS: Readonly<Record<string, string>> = { H264: 'H.264', H265: 'H.265', MPEG4: 'MPEG-4' };
export const sayCodecs = (codecs: readonly string[]): string =>
  codecs.map((codec) => CODEC_WORDS[codec] ?? codec).join(', ');

/** Codecs of sound by the names they are sold under; G.711 without a law is both. */
const SOUND_NAMES: Readonly<Record<string, readonly string[]>> = {
  AAC: ['AAC'],
  AACLC: ['AAC'],
  G711: ['PCMU', 'PCMA'],
  PCM: ['PCMU', 'PCMA'],
  G711U: ['PCMU'],
  PCMU: ['PCMU'],
  ULAW: ['PCMU'],
  MULAW: ['PCMU'],
  G711A: ['PCMA'],
  PCMA: ['PCMA'],
  ALAW: ['PCMA'],
  G726: ['G726'],
  G722: ['G722'],
  OPUS: ['OPUS'],
  MP2: ['MPA'],
  MPA: ['MPA'],
};

/** “AAC, G.711” → AAC, PCMU, PCMA. */
export function readSounds(text: string): Result<readonly string[], string> {
  const found: string[] = [];
  for (const word of text.slice(0, MOST_CHARS).split(/[\s,;/]+/)) {
    if (word === '') continue;
    const key = word.toUpperCase().replace(/[^A-Z0-9]/g, '');
    if (!Object.hasOwn(SOUND_NAMES, key))
      return err(
        `${quoted(word)} is not an audio codec known here: AAC, G.711 (or PCMU, PCMA), G.722, G.726, Opus, MP2.`,
      );
    for (const codec of SOUND_NAMES[key] ?? []) if (!found.includes(codec)) found.push(codec);
  }
  return ok(found);
}
/** As a description names a codec of sound, without the rate that some have in their name. */
export const soundCodecOf = (name: string): string => (/^G726-\d\d$/.test(name) ? 'G726' : name);
const SOUND_WORDS: Readonly<Record<string, string>> = { G726: 'G.726', G722: 'G.722', OPUS: 'Opus', MPA: 'MP2' };
export const saySounds = (codecs: readonly string[]): string =>
  codecs.map((codec) => SOUND_WORDS[codec] ?? codec).join(', ');

/** Code of IEC 60529: “IP67”, “67”, “IPX4” (of dust nothing is said: 0). */
export function readIngress(text: string): Result<number, string> {
  const found = /^(?:IP\s?)?([0-6X])([0-9X])K?$/i.exec(text.trim());
  if (!found) return err(`${quoted(text)} is not an IP code: two digits, such as IP66.`);
  const digit = (sign: string | undefined): number => (sign === undefined || /x/i.test(sign) ? 0 : Number(sign));
  return ok(digit(found[1]) * 10 + digit(found[2]));
}
export const sayIngress = (code: number): string => `IP${String(code).padStart(2, '0')}`;

export interface PictureSize {
  readonly widthPx: number | null;
  readonly heightPx: number | null;
}
const named = (widthPx: number, heightPx: number): PictureSize => ({ widthPx, heightPx });
/** What is sold under a number of megapixels; where two shapes are, both stand there and one has to be written out. */
const MEGAPIXELS: Readonly<Record<string, readonly PictureSize[]>> = {
  '1': [named(1280, 720)],
  '1.3': [named(1280, 960)],
  '2': [named(1920, 1080)],
  '3': [named(2304, 1296), named(2048, 1536)],
  '4': [named(2560, 1440)],
  '5': [named(2880, 1620), named(2592, 1944)],
  '6': [named(3072, 2048)],
  '8': [named(3840, 2160)],
  '12': [named(4000, 3000)],
};
const LINES: Readonly<Record<string, PictureSize>> = {
  '360P': named(640, 360),
  '480P': named(640, 480),
  '720P': named(1280, 720),
  '1080P': named(1920, 1080),
  '1440P': named(2560, 1440),
  '2160P': named(3840, 2160),
  '4K': named(3840, 2160),
  VGA: named(640, 480),
  HD: named(1280, 720),
  FULLHD: named(1920, 1080),
};
const SIZE = /^(\d{2,5}|\?)\s{0,3}(?:x|×|\*|by)\s{0,3}(\d{2,5}|\?)(?:\s{0,3}px)?$/i;
const MEGA = /^(\d{1,2}(?:[.,]\d)?)\s{0,3}(?:mp|mpx|mpixel|megapixels?)$/i;

/** “2560×1440”, “4MP”, “1080p”; a side that is not known is “?”. */
export function readSize(text: string): Result<PictureSize, string> {
  const written = text.trim();
  const sides = SIZE.exec(written);
  if (sides) {
    const side = (sign: string | undefined): number | null =>
      sign === undefined || sign === '?' ? null : Number(sign);
    return ok({ widthPx: side(sides[1]), heightPx: side(sides[2]) });
  }
  const lines = LINES[written.toUpperCase().replace(/\s/g, '')];
  if (lines) return ok(lines);
  const mega = MEGA.exec(written)?.[1]?.replace(',', '.');
  const [size, other] = (mega && MEGAPIXELS[mega]) || [];
  if (size && !other) return ok(size);
  if (size && other) return err(`${mega} MP is sold as ${saySize(size)} and as ${saySize(other)}: write which.`);
  return err(`${quoted(text)} is not a resolution: such as 2560×1440, 4MP or 1080p.`);
}
export const saySize = ({ widthPx, heightPx }: PictureSize): string =>
  widthPx === null && heightPx === null ? '' : `${widthPx ?? '?'}×${heightPx ?? '?'}`;

export interface FocalLength {
  readonly wideMm: number | null;
  readonly teleMm: number | null;
}
const FOCAL = pattern(
  String.raw`(?:f\s{0,2}=?\s{0,2})?(${NUMBER}|\?)(?:\s{0,3}mm)?(?:${TO}(${NUMBER}|\?))?(?:\s{0,3}mm)?`,
);

/** “2.8 mm”, “2.8–12”. */
export function readFocal(text: string): Result<FocalLength, string> {
  const found = FOCAL.exec(text.trim().slice(0, MOST_CHARS));
  if (!found) return err(`${quoted(text)} is not a focal length: such as 2.8 mm, or 2.8–12 mm for a zoom lens.`);
  const end = (sign: string | undefined): number | null => (sign === undefined || sign === '?' ? null : toNumber(sign));
  const [wideMm, teleMm] = [end(found[1]), end(found[2])];
  if (wideMm === 0 || teleMm === 0) return err('A focal length is above 0.');
  if (wideMm !== null && teleMm !== null && teleMm < wideMm)
    return err(`The long end (${teleMm} mm) lies below the wide end (${wideMm} mm).`);
  return ok({ wideMm, teleMm: teleMm ?? wideMm });
}
export const sayFocal = ({ wideMm, teleMm }: FocalLength): string =>
  wideMm === null && teleMm === null
    ? ''
    : teleMm === null || teleMm === wideMm
      ? `${wideMm} mm`
      : `${wideMm ?? '?'}–${teleMm} mm`;

export interface SensorSize {
  readonly widthMm: number;
  readonly heightMm: number;
}
const SENSOR = pattern(String.raw`(${NUMBER})(?:\s{0,3}mm)?\s{0,3}(?:x|×|\*|by)\s{0,3}(${NUMBER})(?:\s{0,3}mm)?`);

/** “1/2.8"” by the table of formats, or “5.6×3.15 mm” of the data sheet. */
export function readSensor(text: string): Result<SensorSize, string> {
  const written = text.trim().slice(0, MOST_CHARS);
  const sides = SENSOR.exec(written);
  if (sides) return ok({ widthMm: toNumber(sides[1] ?? ''), heightMm: toNumber(sides[2] ?? '') });
  const fraction = /^1\/(\d(?:[.,]\d{1,2})?)\s{0,2}(?:"|''|”|in|inch)?$/i.exec(written)?.[1]?.replace(',', '.');
  const format = SENSOR_FORMATS.find((one) => one.format === `1/${fraction}"`);
  if (format) return ok({ widthMm: format.widthMm, heightMm: format.heightMm });
  const known = SENSOR_FORMATS.map((one) => one.format).join(', ');
  return err(`${quoted(text)} is not a sensor known here: its size, such as 5.6×3.15 mm, or one of ${known}.`);
}
export function saySensor({ widthMm, heightMm }: SensorSize): string {
  const format = SENSOR_FORMATS.find((one) => one.widthMm === widthMm && one.heightMm === heightMm);
  return format?.format ?? `${widthMm}×${heightMm} mm`;
}

/** What feeds a camera, as its data sheet says. */
export interface FedBy {
  readonly ways: readonly PowerWay[];
  readonly poeClass: number | null;
  readonly minVolts: number | null;
  readonly maxVolts: number | null;
}
/** [A] Of a single voltage: low-voltage inputs take a tenth more or less, USB a twentieth. */
const TOLERANCE = { dc: 0.1, usb: 0.05 } as const;
/** No low voltage: what is printed so is the mains. */
const MAINS_FROM_V = 90;
const VOLTS = new RegExp(String.raw`(${NUMBER})(?:${TO}(${NUMBER}))?\s{0,2}v\b`, 'i');
const LIMIT = new RegExp(String.raw`(≥|>=|≤|<=)\s{0,2}(${NUMBER})\s{0,2}v\b`, 'i');
/** By IEEE 802.3 as it is written on boxes; of bt the class is printed or not known. */
const STANDARDS: readonly (readonly [RegExp, number | null])[] = [
  [/802\.3\s?bt|poe\s?\+\+/i, null],
  [/802\.3\s?at|poe\s?\+/i, 4],
  [/802\.3\s?af/i, 3],
];
const WAY_SIGNS: readonly (readonly [RegExp, PowerWay])[] = [
  [/\bpoe\b|802\.3|network cable|\bclass\s?\d/i, 'poe'],
  [/passive/i, 'passive'],
  [/\busb\b/i, 'usb'],
  [/battery|solar|panel/i, 'solar'],
  [/mains|\bac\b/i, 'mains'],
  [/low voltage|\bdc\b/i, 'dc'],
];

/** “802.3af, 12 V”, “USB, 5 V”, “passive 24 V”, “class 4, 10.8–28 V”. */
export function readFedBy(text: string): Result<FedBy, string> {
  const ways = new Set<PowerWay>();
  let poeClass: number | null = null;
  let volts: { readonly min: number | null; readonly max: number | null; readonly one: number | null } | null = null;
  for (const part of partsOf(text)) {
    const signs = WAY_SIGNS.filter(([sign]) => sign.test(part)).map(([, way]) => way);
    // “Passive PoE” negotiates nothing.
    const isPassive = signs.includes('passive');
    for (const way of signs) if (!(isPassive && way === 'poe')) ways.add(way);
    if (!isPassive) poeClass = classIn(part) ?? poeClass;
    const found = voltsIn(part);
    if (found && (found.one ?? found.min ?? 0) >= MAINS_FROM_V) ways.add('mains');
    else if (found) volts = found;
    if (signs.length === 0 && !found)
      return err(
        `${quoted(part)} is not a power source: such as 802.3af, class 4, 12 V, USB, passive 24 V, battery, mains.`,
      );
  }
  if (volts && !ways.has('dc') && !ways.has('usb') && !ways.has('passive')) ways.add('dc');
  const tolerance = ways.has('usb') && !ways.has('dc') ? TOLERANCE.usb : TOLERANCE.dc;
  const near = (one: number, factor: number): number => Number((one * factor).toFixed(3));
  return ok({
    ways: [...ways],
    poeClass,
    minVolts: volts ? (volts.one === null ? volts.min : near(volts.one, 1 - tolerance)) : null,
    maxVolts: volts ? (volts.one === null ? volts.max : near(volts.one, 1 + tolerance)) : null,
  });
}

function classIn(part: string): number | null {
  const printed = /class\s?([0-8])\b/i.exec(part)?.[1];
  if (printed !== undefined) return Number(printed);
  return STANDARDS.find(([sign]) => sign.test(part))?.[1] ?? null;
}

function voltsIn(part: string): { min: number | null; max: number | null; one: number | null } | null {
  const limit = LIMIT.exec(part);
  if (limit) {
    const volts = toNumber(limit[2] ?? '');
    const isLeast = limit[1] === '≥' || limit[1] === '>=';
    return { min: isLeast ? volts : null, max: isLeast ? null : volts, one: null };
  }
  const found = VOLTS.exec(part);
  if (!found) return null;
  const [from, to] = [toNumber(found[1] ?? ''), found[2] === undefined ? null : toNumber(found[2])];
  return to === null ? { min: null, max: null, one: from } : { min: from, max: to, one: null };
}

const WAY_TEXT: Readonly<Record<PowerWay, string>> = {
  poe: 'PoE',
  passive: 'passive',
  dc: 'low voltage',
  usb: 'USB',
  solar: 'battery',
  mains: 'mains',
};
export function sayFedBy({ ways, poeClass, minVolts, maxVolts }: FedBy): string {
  const parts = ways.map((way) => (way === 'poe' && poeClass !== null ? `class ${poeClass}` : WAY_TEXT[way]));
  if (minVolts !== null && maxVolts !== null) parts.push(`${minVolts}–${maxVolts} V`);
  else if (minVolts !== null) parts.push(`≥ ${minVolts} V`);
  else if (maxVolts !== null) parts.push(`≤ ${maxVolts} V`);
  return parts.join(', ');
}
