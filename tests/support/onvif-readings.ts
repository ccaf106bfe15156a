import type { Camera } from '../../src/core/document/chapters/cameras/camera.ts';
import type { Model } from '../../src/core/document/chapters/models/model-card.ts';
import { emptyModel } from '../../src/core/document/chapters/models/model-fields.ts';
import type { Site } from '../../src/core/document/site.ts';
import type { SiteCommand } from '../../src/core/document/site-commands.ts';
import { readingRecord } from '../../src/core/evidence/measured-records.ts';
import type { OnvifReading, ReadProfile, ReadPtz } from '../../src/core/onvif/reading.ts';
import { addressed, MAC, seenAt, swept } from './address-sites.ts';
import { apply } from './sites.ts';

export const profile = (name: string, path: string, more: Partial<ReadProfile> = {}): ReadProfile => ({
  token: `token-${name}`,
  name,
  source: 'source-1',
  codec: 'H264',
  width: 1280,
  height: 720,
  fps: 15,
  gopFrames: 30,
  bitrateKbps: 2048,
  sound: null,
  hasPtz: true,
  via: 'both',
  stream: { path, port: 554, scheme: 'rtsp', elsewhere: '' },
  still: { path: '/still', port: 80, scheme: 'http', elsewhere: '' },
  ...more,
});

const space = { uri: 'generic', x: { min: -1, max: 1 }, y: { min: -1, max: 1 } };
export const HEAD: ReadPtz = {
  node: {
    token: 'node-1',
    name: 'head',
    absolute: space,
    absoluteZoom: null,
    relative: space,
    relativeZoom: null,
    continuous: space,
    continuousZoom: null,
    mostPresets: 16,
    hasHome: true,
  },
  profile: 'token-main',
  tells: 'position',
  presets: [{ token: '1', name: 'gate', position: null }],
};

/** What a device without fault told, by both media services. */
export const READING: OnvifReading = {
  host: '10.77.4.21',
  port: 80,
  path: '/onvif/device_service',
  cause: null,
  note: '',
  clock: { skewS: 0, kept: 'ntp', zone: 'UTC0' },
  device: { make: 'Ostrel', model: 'PD-5', firmware: '2.4', serial: 'OS5-1', hardware: 'PD-5' },
  isOpen: false,
  login: 'token',
  isOld: false,
  services: (['device', 'media', 'media2', 'ptz', 'events'] as const).map((name) => ({
    name,
    version: '2.60',
    path: `/onvif/${name}`,
    port: 80,
    elsewhere: '',
    isTls: false,
  })),
  network: { mac: MAC, dhcp: true, timeServers: ['10.77.4.1'] },
  sources: ['source-1'],
  profiles: [
    profile('main', '/live/main'),
    profile('sub', '/live/sub', { width: 640, height: 360, fps: 10, gopFrames: 20 }),
  ],
  ptz: HEAD,
  imaging: null,
  events: { topics: ['RuleEngine/CellMotionDetector/Motion'], canPull: true, note: '' },
  recordings: null,
  heldDoors: [],
  isTls: false,
  tls: null,
  tellsLogin: false,
  extraAnswers: 0,
  oddTypes: 0,
  answers: 20,
  meanAnswerMs: 30,
};

export const readAs = (more: Partial<OnvifReading> = {}, readingId = 'reading-1'): SiteCommand =>
  readingRecord('c', readingId, { ...READING, ...more });

/** A card that knows all that the device tells. */
export const KNOWING: Model = {
  ...emptyModel('pd-5', 'Ostrel', 'PD-5'),
  localStream: 'both',
  sessions: 6,
  codecs: ['H264'],
  fps: 15,
  path: '/live/main',
  rtspPort: 554,
  onvifPort: 80,
  subs: [{ codecs: ['H264'], widthPx: 640, heightPx: 360, fps: 10, path: '/live/sub' }],
};

/** One camera `c`, known by its serial, of a model whose card knows all, read once. */
export function readSite({
  camera = {},
  card = {},
  reading = {},
  models = [],
}: {
  readonly camera?: Partial<Camera>;
  readonly card?: Partial<Model>;
  readonly reading?: Partial<OnvifReading>;
  readonly models?: readonly Model[];
} = {}): Site {
  const site = addressed({
    camera: { modelId: 'pd-5', identity: { mac: MAC, serial: 'OS5-1', endpoint: '' }, ...camera },
  });
  return apply({ ...site, models: [...site.models, { ...KNOWING, ...card }, ...models] }, readAs(reading));
}

const [main] = READING.profiles;
const withStream = (more: object): readonly ReadProfile[] =>
  main?.stream ? [{ ...main, stream: { ...main.stream, ...more } }, ...READING.profiles.slice(1)] : [];

/** Each rule of ONVIF with a mend, and a site on which it finds something of camera `c`. */
export const ONVIF_CASES: readonly { readonly rule: string; readonly site: Site }[] = [
  { rule: 'onvif.path-not-offered', site: readSite({ reading: { profiles: withStream({ path: '/live/first' }) } }) },
  {
    rule: 'onvif.port-other',
    site: readSite({
      card: { rtspPort: 8554 },
      reading: {
        profiles: READING.profiles.map((one) => ({ ...one, stream: one.stream && { ...one.stream, port: 8554 } })),
      },
    }),
  },
  {
    rule: 'onvif.figures-other',
    site: readSite({
      reading: {
        profiles: [profile('main', '/live/main', { width: 1920, height: 1080 }), ...READING.profiles.slice(1)],
      },
    }),
  },
  {
    rule: 'onvif.stream-left-out',
    site: readSite({
      reading: { profiles: [...READING.profiles, profile('third', '/live/third', { width: 320, height: 180 })] },
    }),
  },
  { rule: 'onvif.identity-unknown', site: readSite({ camera: { identity: { mac: '', serial: '', endpoint: '' } } }) },
  {
    rule: 'onvif.identity-other',
    site: readSite({ camera: { identity: { mac: '', serial: 'OS5-2', endpoint: '' } } }),
  },
  { rule: 'onvif.model-unknown', site: readSite({ camera: { modelId: null } }) },
  {
    rule: 'onvif.model-other',
    site: readSite({ camera: { modelId: 'other' }, models: [{ ...KNOWING, id: 'other', model: 'X' }] }),
  },
  { rule: 'onvif.card-lacks', site: readSite({ card: { onvifPort: null, path: '' } }) },
  {
    rule: 'onvif.seen-elsewhere',
    site: apply(
      readSite({ reading: { cause: 'refused', note: 'Nothing listens there.', device: null } }),
      swept([seenAt('10.77.4.21', { doors: [{ port: 8899, is: 'onvif', server: '', title: '', isSlow: false }] })]),
    ),
  },
  { rule: 'onvif.keeping-other', site: readSite({ camera: { keeping: 'static' } }) },
];
