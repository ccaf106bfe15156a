import { type Camera, type Stream, UNKNOWN_STREAM, UNPLANNED } from '../core/document/chapters/cameras/camera.ts';
import type { Feed } from '../core/document/chapters/cameras/feed.ts';
import { UNSAID_HANDSET } from '../core/document/chapters/cameras/handset.ts';
import type { Need } from '../core/document/chapters/cameras/need.ts';
import { UNSAID_REFLASH } from '../core/document/chapters/cameras/reflash.ts';
import { type Destination, UNKNOWN_DESTINATION } from '../core/document/chapters/destinations/destination.ts';
import type { Entry } from '../core/document/chapters/journal/entry.ts';
import { UNKNOWN_NETWORK } from '../core/document/chapters/networks/network.ts';
import { UNKNOWN_REACH } from '../core/document/chapters/reach/reach.ts';
import { emptySite } from '../core/document/empty-site.ts';
import type { Site } from '../core/document/site.ts';
import { airSubject, cameraSubject, gearSubject } from '../core/document/subject.ts';
import { ALDER_MILL_MODELS } from './alder-mill-models.ts';
import { MILL_HOSTS, MILL_NETWORK } from './alder-mill-network.ts';
import {
  ALDER_MILL_COSTING,
  ALDER_MILL_GEAR,
  ALDER_MILL_LINKS,
  ALDER_MILL_PLAN,
  ALDER_MILL_SKY,
} from './alder-mill-plan.ts';
import { BOOT_ROOM, BREAD_OVEN, LINEN_STAIR, type Personality, SLUICE_RAIL } from './personality.ts';

/** Planned with generous round figures, as one does before anything is measured. */
const plannedMain = { codec: 'H264', width: 1280, height: 720, fps: 15, gopFrames: 30, bitrateKbps: null };

const streams = (slug: string, personality: Personality): readonly Stream[] =>
  personality.streams.map(({ label, path }) => ({
    id: `${slug}-${label}`,
    label,
    path,
    ...(label === 'main' ? plannedMain : UNKNOWN_STREAM),
  }));

/** As somebody read it at each device. */
const identityOf = ({ plug, page }: Personality): Camera['identity'] => ({
  mac: plug?.mac ?? '',
  serial: '',
  endpoint: page?.onvif ? `urn:uuid:${page.onvif.endpoint}` : '',
});

const camera = (
  slug: string,
  personality: Personality,
  rest: Pick<Camera, 'place' | 'modelId'> & Partial<Camera>,
): Camera => ({
  ...UNPLANNED,
  id: slug,
  name: personality.name,
  kind: 'camera',
  host: personality.host,
  ports: { rtsp: personality.port },
  account: personality.account ? { user: personality.account.user, secretRef: `secret-${slug}` } : null,
  identity: identityOf(personality),
  keeping: personality.plug?.address === 'static' ? 'static' : 'reservation',
  streams: streams(slug, personality),
  ...rest,
});

const DAY_AND_NIGHT: Pick<Need, 'atNight' | 'sound' | 'turns' | 'outdoors' | 'text'> = {
  atNight: true,
  sound: 'none',
  turns: false,
  outdoors: true,
  text: null,
};
const byWire: Feed = { way: 'poe', sun: null, charge: null };
const byLead: Feed = { way: 'usb', sun: null, charge: null };
const recorded = { destinationId: 'loft-store', use: 'record' } as const;
const seenAtHub = { destinationId: 'mill-hub', use: 'live' } as const;
const seenInKitchen = { destinationId: 'kitchen-tablet', use: 'live' } as const;

/** Not bought or not hung yet: there is a place, and what it is for. */
const planned = (id: string, name: string, place: string, more: Partial<Camera>): Camera => ({
  ...UNPLANNED,
  id,
  name,
  place,
  kind: 'camera',
  modelId: null,
  host: '',
  ports: { rtsp: 554 },
  account: null,
  streams: [{ id: `${id}-main`, label: 'main', path: '', ...UNKNOWN_STREAM }],
  ...more,
});

const PLANNED_CAMERAS: readonly Camera[] = [
  planned('orchard-track', 'Orchard track', 'South wall, over the kitchen door', {
    need: {
      ...DAY_AND_NIGHT,
      level: 'recognise',
      text: { line: 'PRESS 7B', charHeightMm: 60 },
      distanceM: 9.5,
      widthM: 5,
      nearM: 8.5,
      draws: [recorded, seenInKitchen],
    },
    mounting: { heightM: 3.2, tiltDownDeg: 13, headingDeg: 80, zoom: null },
    position: { xM: 24, yM: 18.3 },
    candidates: ['pellam-b4', 'pellam-b4-z', 'quillbrook-out'],
    feed: byWire,
  }),
  planned('landing-stage', 'Landing stage', 'West wall, above the water', {
    modelId: 'ostrel-twin-8',
    need: {
      ...DAY_AND_NIGHT,
      level: 'observe',
      distanceM: 9,
      widthM: 12,
      nearM: 3,
      draws: [recorded, seenAtHub],
    },
    mounting: { heightM: 4, tiltDownDeg: 24, headingDeg: 195, zoom: null },
    position: { xM: 13.7, yM: 10 },
    candidates: ['ostrel-twin-8', 'pellam-pair-5'],
    feed: byWire,
  }),
  planned('bee-stand', 'Bee stand', 'Post between the hives', {
    modelId: 'pellam-sol-2',
    need: {
      ...DAY_AND_NIGHT,
      level: 'recognise',
      distanceM: 4,
      widthM: 4,
      nearM: 2.5,
      draws: [{ destinationId: 'mill-hub', use: 'detect' }],
    },
    mounting: { heightM: 2, tiltDownDeg: 14, headingDeg: 200, zoom: null },
    position: { xM: 36, yM: 21 },
    candidates: ['pellam-sol-2'],
    feed: {
      way: 'solar',
      charge: null,
      sun: {
        panelWp: 8,
        tiltDeg: 30,
        shade: 0.15,
        batteryWh: 42,
        depthOfDischarge: 0.8,
        isLithium: true,
        drawnHoursPerDay: 2,
        panelPrice: 24,
        batteryPrice: null,
        mainsMonths: [],
      },
    },
  }),
  planned('bread-oven', 'Bread oven', 'Shelf beside the oven, bakehouse', {
    kind: 'handset',
    modelId: 'old-handset',
    need: {
      ...DAY_AND_NIGHT,
      atNight: false,
      outdoors: false,
      level: 'observe',
      distanceM: 2.5,
      widthM: 2,
      nearM: 2.3,
      draws: [seenInKitchen],
    },
    mounting: { heightM: 1.6, tiltDownDeg: 15, headingDeg: 90, zoom: null },
    position: { xM: 35, yM: 5 },
    candidates: ['old-handset'],
    feed: { ...byLead, charge: { limitPercent: null } },
    ports: { rtsp: BREAD_OVEN.port },
    account: { user: BREAD_OVEN.account?.user ?? '', secretRef: 'secret-bread-oven' },
    streams: streams('bread-oven', BREAD_OVEN),
    handset: {
      ...UNSAID_HANDSET,
      mount: 'open',
      screen: 'dim',
      lens: 'back',
      roomC: 31,
      way: 'local',
      sendsSound: false,
    },
  }),
];

const DESTINATIONS: readonly Destination[] = [
  {
    id: 'loft-store',
    name: 'Loft store',
    kind: 'recorder',
    ...UNKNOWN_DESTINATION,
    host: MILL_HOSTS['loft-store'],
    seats: {
      included: 6,
      packs: [
        { seats: 1, price: 37 },
        { seats: 3, price: 96 },
        { seats: 10, price: 270 },
      ],
    },
    protocols: ['rtsp', 'onvif'],
    codecs: ['H264', 'H265'],
    storage: { diskTB: 0.25, usableFraction: 0.9, price: 38 },
    retentionDays: 14,
    position: { xM: 26, yM: 11.5 },
  },
  {
    id: 'mill-hub',
    name: 'Mill hub',
    kind: 'hub',
    ...UNKNOWN_DESTINATION,
    host: MILL_HOSTS['mill-hub'],
    protocols: ['rtsp', 'http'],
    codecs: ['H264', 'JPEG'],
    position: { xM: 21, yM: 9.5 },
  },
  {
    id: 'reception-screen',
    name: 'Reception screen',
    kind: 'viewer',
    ...UNKNOWN_DESTINATION,
    host: MILL_HOSTS['reception-screen'],
    protocols: ['rtsp', 'onvif'],
    decodes: 9,
    codecs: ['H264', 'H265'],
    position: { xM: 26, yM: 15 },
  },
  {
    id: 'kitchen-tablet',
    name: 'Kitchen tablet',
    kind: 'viewer',
    ...UNKNOWN_DESTINATION,
    networkId: 'house',
    protocols: ['rtsp'],
    largest: { widthPx: 1920, heightPx: 1080 },
    secretLimits: { longest: 24, refused: '"&<>' },
    decodes: 4,
    codecs: ['H264'],
    position: { xM: 20.5, yM: 17 },
  },
];

const SAID: Pick<Entry, 'refs' | 'source' | 'facts' | 'revokes' | 'isPast'> = {
  refs: [],
  source: '',
  facts: [],
  revokes: [],
  isPast: false,
};

/** Alder Mill, a converted watermill guest house: the demo site as its integrator would find it on the first morning. */
export const alderMill = (at: string): Site => ({
  ...emptySite('alder-mill', 'Alder Mill'),
  notes: 'Converted watermill, nine guest rooms. All names are invented.',
  networks: [
    {
      ...UNKNOWN_NETWORK,
      id: 'house',
      name: 'House',
      ...MILL_NETWORK,
      dns: [MILL_NETWORK.gateway],
      ntp: MILL_NETWORK.gateway,
      dhcpServers: 1,
      permit: 'Owner of the mill',
    },
    {
      ...UNKNOWN_NETWORK,
      id: 'guests',
      name: 'Guests',
      cidr: '10.77.9.0/24',
      gateway: '10.77.9.1',
      pool: { from: '10.77.9.20', to: '10.77.9.250' },
      vlan: 9,
    },
  ],
  reach: { ...UNKNOWN_REACH, lookIn: 'none' },
  sky: ALDER_MILL_SKY,
  plan: ALDER_MILL_PLAN,
  gear: ALDER_MILL_GEAR,
  links: ALDER_MILL_LINKS,
  costing: ALDER_MILL_COSTING,
  models: ALDER_MILL_MODELS,
  cameras: [
    camera('sluice-rail', SLUICE_RAIL, {
      place: 'On the rail above the sluice gate',
      modelId: 'ostrel-pd-5',
      need: {
        ...DAY_AND_NIGHT,
        level: 'recognise',
        distanceM: 12,
        widthM: 7,
        nearM: 8.5,
        turns: true,
        draws: [recorded, seenAtHub],
      },
      mounting: { heightM: 3.4, tiltDownDeg: 12, headingDeg: 165, zoom: null },
      position: { xM: 13.7, yM: 14 },
      candidates: ['ostrel-pd-5'],
      feed: byWire,
    }),
    camera('boot-room', BOOT_ROOM, {
      place: 'Shelf over the bench, far side of the stone wall',
      modelId: 'quillbrook-mini',
      need: {
        ...DAY_AND_NIGHT,
        outdoors: false,
        level: 'recognise',
        distanceM: 4,
        widthM: 3,
        nearM: 2.3,
        draws: [recorded],
      },
      mounting: { heightM: 2.2, tiltDownDeg: 20, headingDeg: 300, zoom: null },
      position: { xM: 15, yM: 17.2 },
      candidates: ['quillbrook-mini'],
      feed: byLead,
      keeping: 'dynamic',
      adminAccount: { user: 'quill', secretRef: 'admin-boot-room' },
      reflash: {
        ...UNSAID_REFLASH,
        isOwn: true,
        isOnlyOne: false,
        hasMainsInside: false,
        marks: { board: 'QM-3 r2', flash: '16 MB', sensor: 'S307', radio: 'R8' },
      },
    }),
    {
      ...camera('linen-stair', LINEN_STAIR, {
        place: 'Top of the linen stair',
        modelId: 'marrick-c1',
        position: { xM: 27.3, yM: 8.7 },
        mounting: { heightM: 2.4, tiltDownDeg: 25, headingDeg: 120, zoom: null },
        feed: { way: 'dc', sun: null, charge: null },
      }),
      // As its faded label says: nobody has opened it for years, and letter case was not minded.
      streams: streams('linen-stair', LINEN_STAIR).map((stream) => ({
        ...stream,
        ...UNKNOWN_STREAM,
        path: stream.label === 'main' ? '/Video.mjpg' : stream.path,
      })),
    },
    ...PLANNED_CAMERAS,
  ],
  destinations: DESTINATIONS,
  journal: [
    {
      ...SAID,
      id: 'log-0',
      at,
      kind: 'site',
      subject: 'site',
      text: 'Alder Mill opened from the demo',
    },
    {
      ...SAID,
      id: 'log-1',
      at,
      kind: 'power',
      subject: cameraSubject('boot-room'),
      text: 'Boot room: signal read: -71 dBm',
      source: 'phone',
      facts: [
        {
          subject: airSubject(gearSubject('hall-ap'), cameraSubject('boot-room')),
          quantity: 'signalDbm',
          value: -71,
          how: 'measured',
        },
      ],
    },
    {
      ...SAID,
      id: 'log-2',
      at,
      kind: 'power',
      subject: cameraSubject('bread-oven'),
      text: 'Bread oven: battery temperature read: 46 °C',
      source: 'its system',
      facts: [
        { subject: cameraSubject('bread-oven'), quantity: 'batteryC', value: 46, how: 'measured' },
        { subject: cameraSubject('bread-oven'), quantity: 'under.watts', value: 2.516, how: 'measured' },
        { subject: cameraSubject('bread-oven'), quantity: 'under.mount', value: 'open', how: 'measured' },
        { subject: cameraSubject('bread-oven'), quantity: 'under.roomC', value: 31, how: 'measured' },
      ],
    },
  ],
});

/** Secrets of the demo's cameras by the reference that the site holds; they go to the vault, never into the document. */
export const alderMillSecrets = (): Readonly<Record<string, string>> => ({
  'secret-sluice-rail': SLUICE_RAIL.account?.password ?? '',
  'secret-linen-stair': LINEN_STAIR.account?.password ?? '',
  'secret-boot-room': BOOT_ROOM.account?.password ?? '',
  'secret-bread-oven': BREAD_OVEN.account?.password ?? '',
});
