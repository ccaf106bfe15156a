import { type ChecksOf, flag, line, listOf, number, orNull, record, text, whole, word } from '../base/check.ts';
import { STREAM_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { type CertificateSeen, MOST_CERTIFICATE_NAMES } from '../net/certificate.ts';
import { PORT_RANGE } from '../net/port-range.ts';
import { SERVICE_NAMES } from './namespaces.ts';
import { ONVIF_CAUSES } from './onvif-cause.ts';
import { MOST_TEXT, MOST_TOKEN, MOST_URI, READING_LIMITS } from './onvif-limits.ts';
import type {
  OnvifReading,
  ReadClock,
  ReadEvents,
  ReadNetwork,
  ReadProfile,
  ReadPtz,
  ReadService,
  ReadUri,
} from './reading.ts';
import type { OtherDoor } from './service-place.ts';
import type { DeviceInformation } from './services/device.ts';
import type { ImagingSettings } from './services/media.ts';
import type { PtzNode, PtzPosition, PtzPreset, Space, Span } from './services/ptz.ts';
import type { RecordingSummary } from './services/recording.ts';

// A journal comes from files too: each field of a reading that it holds is checked.

const BIG = 1e15;
const any = number(-BIG, BIG);
const count = number(0, BIG);
const port = whole(PORT_RANGE.min, PORT_RANGE.max);
const short = line(MOST_TEXT);
const token = text(MOST_TOKEN);
const uri = line(MOST_URI);

const URI: ChecksOf<ReadUri> = { path: uri, port, scheme: text(10), elsewhere: short };
const SERVICE: ChecksOf<ReadService> = {
  name: word(SERVICE_NAMES),
  version: short,
  path: uri,
  port,
  elsewhere: text(MOST_URI),
  isTls: flag,
};
const PROFILE: ChecksOf<ReadProfile> = {
  token,
  name: short,
  source: token,
  codec: orNull(text(TEXT_LIMITS.codec, 1)),
  width: orNull(whole(1, STREAM_LIMITS.sidePx)),
  height: orNull(whole(1, STREAM_LIMITS.sidePx)),
  fps: orNull(number(Number.MIN_VALUE, STREAM_LIMITS.fps)),
  gopFrames: orNull(whole(1, STREAM_LIMITS.gopFrames)),
  bitrateKbps: orNull(number(Number.MIN_VALUE, STREAM_LIMITS.bitrateKbps)),
  sound: orNull(short),
  hasPtz: flag,
  via: word(['media', 'media2', 'both']),
  stream: orNull(record<ReadUri>({ ...URI, elsewhere: text(MOST_URI) })),
  still: orNull(record<ReadUri>({ ...URI, elsewhere: text(MOST_URI) })),
};
const SPAN: ChecksOf<Span> = { min: any, max: any };
const SPACE: ChecksOf<Space> = { uri: text(MOST_TOKEN), x: record<Span>(SPAN), y: orNull(record<Span>(SPAN)) };
const space = orNull(record<Space>(SPACE));
const NODE: ChecksOf<PtzNode> = {
  token,
  name: short,
  absolute: space,
  absoluteZoom: space,
  relative: space,
  relativeZoom: space,
  continuous: space,
  continuousZoom: space,
  mostPresets: orNull(any),
  hasHome: orNull(flag),
};
const POSITION: ChecksOf<PtzPosition> = { pan: any, tilt: any, zoom: orNull(any) };
const PRESET: ChecksOf<PtzPreset> = { token, name: short, position: orNull(record<PtzPosition>(POSITION)) };
const CERTIFICATE: ChecksOf<CertificateSeen> = {
  protocol: text(200),
  subject: text(200),
  issuer: text(200),
  isSelfSigned: flag,
  validFromUnixMs: orNull(any),
  validToUnixMs: orNull(any),
  seenAtUnixMs: any,
  names: listOf(text(200), MOST_CERTIFICATE_NAMES),
  keyBits: orNull(count),
  isElliptic: flag,
  signatureHash: orNull(text(200)),
  fingerprint: text(200),
};
const READING: ChecksOf<OnvifReading> = {
  host: text(300),
  port,
  path: uri,
  cause: orNull(word(ONVIF_CAUSES)),
  note: text(1000),
  clock: orNull(
    record<ReadClock>({ skewS: any, kept: orNull(word(['manual', 'ntp'])), zone: short } satisfies ChecksOf<ReadClock>),
  ),
  device: orNull(
    record<DeviceInformation>({ make: short, model: short, firmware: short, serial: short, hardware: short }),
  ),
  isOpen: flag,
  login: word(['none', 'token', 'digest']),
  isOld: flag,
  services: listOf(record<ReadService>(SERVICE), READING_LIMITS.services),
  network: orNull(
    record<ReadNetwork>({
      mac: short,
      dhcp: orNull(flag),
      timeServers: orNull(listOf(short, READING_LIMITS.timeServers)),
    }),
  ),
  sources: orNull(listOf(token, READING_LIMITS.sources)),
  profiles: listOf(record<ReadProfile>(PROFILE), READING_LIMITS.profiles),
  ptz: orNull(
    record<ReadPtz>({
      node: record<PtzNode>(NODE),
      profile: token,
      tells: word(['position', 'moving', 'nothing']),
      presets: orNull(listOf(record<PtzPreset>(PRESET), READING_LIMITS.presets)),
    }),
  ),
  imaging: orNull(record<ImagingSettings>({ infraredCut: short, focus: short, wideRange: orNull(flag) })),
  events: orNull(
    record<ReadEvents>({ topics: listOf(short, READING_LIMITS.topics), canPull: orNull(flag), note: text(1000) }),
  ),
  recordings: orNull(
    record<RecordingSummary>({ recordings: orNull(any), fromUnixMs: orNull(any), toUnixMs: orNull(any) }),
  ),
  heldDoors: listOf(record<OtherDoor>({ port, isTls: flag }), READING_LIMITS.heldDoors),
  isTls: flag,
  tls: orNull(record<CertificateSeen>(CERTIFICATE)),
  tellsLogin: flag,
  extraAnswers: count,
  oddTypes: count,
  answers: count,
  meanAnswerMs: orNull(count),
};

/** Why a reading cannot be kept; `null` when it can. */
export const checkReading = record<OnvifReading>(READING);
