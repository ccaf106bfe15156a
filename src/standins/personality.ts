import { type ReflashGuide, USUAL_GUIDE } from '../core/firmware/guide.ts';
import type { Mount, OldPhoneLoad } from '../core/old-phone/heat.ts';
import type { Oddities } from './oddities.ts';
import type { HeadPersonality, OnvifPersonality } from './onvif/onvif-personality.ts';
import type { LoopName } from './pictures/loop-feed.ts';
import type { FeedFormat } from './pictures/picture-feed.ts';
import { SLUICE_WALK } from './pictures/scenes.ts';

export interface StreamPersonality {
  readonly label: string;
  readonly path: string;
  readonly format: FeedFormat;
  /** Pictures that were encoded beforehand, instead of drawn ones. */
  readonly loop?: LoopName;
  /** Of a box: which of its channels it shows; 1 unless said. */
  readonly channel?: number;
}

/** How a simulated camera behaves: the healthy one, and the ways real ones fail. */
export interface Personality {
  readonly name: string;
  /** Its address in the simulated network. */
  readonly host: string;
  readonly port: number;
  readonly server: string;
  readonly realm: string;
  readonly account: { readonly user: string; readonly password: string } | null;
  readonly login: 'digest' | 'basic';
  readonly digestQop: 'auth' | null;
  readonly transports: readonly ('tcp' | 'udp')[];
  /** How long each answer takes. */
  readonly answerDelayMs: number;
  /** Its clock minus the real one: in the burnt-in clock and in sender reports. */
  readonly clockErrorMs: number;
  readonly sessionTimeoutS: number;
  readonly maxSessions: number;
  /** What it does with one session too many; a refusal with 453 unless said. */
  readonly whenFull?: 'ends-first' | 'hangs-up' | 'starves-first';
  /** One packet of so many is dropped; `null` drops none. */
  readonly dropEvery: number | null;
  /** Longest RTP payload: radios cut finer. */
  readonly maxPayloadBytes: number;
  /** Stops sending this long after PLAY, without a word; `null` never. */
  readonly stopsAfterMs: number | null;
  readonly streams: readonly StreamPersonality[];
  /** Its plug or radio, and how it comes to its address. */
  readonly plug?: Plug;
  /** Its own web page, and where it answers by ONVIF. */
  readonly page?: DevicePage;
  /** Delivered with a firmware that gives no stream: its port is closed until another one is written. */
  readonly reflash?: ReflashGuide;
  /** What is out of the ordinary about how it speaks. */
  readonly odd?: Oddities;
  /** An old handset: it grows warm, drops frames then, and gives pictures by HTTP too. */
  readonly handset?: OldPhonePersonality;
}

/** How a device is joined to the network. */
export interface Plug {
  readonly mac: string;
  /** `static` is set on the device; `asks` asks by DHCP. */
  readonly address: 'static' | 'asks';
  /** It makes itself a new MAC address whenever it joins anew. */
  readonly isRandom?: true;
}

export interface DevicePage {
  readonly port: number;
  readonly title: string;
  readonly server: string;
  readonly onvif?: OnvifPersonality;
}

export interface OldPhonePersonality {
  readonly roomC: number;
  readonly mount: Mount;
  readonly load: OldPhoneLoad;
  /** How long it was on already when the demo begins, min. */
  readonly onForMin: number;
  /** Where it gives one picture, and pictures without end, as JPEG. */
  readonly pictures: { readonly port: number; readonly path: string; readonly streamPath: string };
  /** Where its own page lies. */
  readonly pagePort: number;
}

const GOP_SECONDS = 2;
const main = { codec: 'H264', width: 960, height: 540, fps: 12, groupFrames: 12 * GOP_SECONDS } as const;
const sub = { codec: 'H264', width: 480, height: 270, fps: 6, groupFrames: 6 * GOP_SECONDS } as const;

/** What most cameras have in common. */
export const ORDINARY = {
  login: 'digest',
  transports: ['tcp', 'udp'],
  answerDelayMs: 0,
  clockErrorMs: 0,
} as const satisfies Partial<Personality>;

/** What most of them say of themselves by ONVIF. */
const SPEAKS = { login: 'either', tokenLifeS: 300 } as const satisfies Partial<OnvifPersonality>;

const DOME: HeadPersonality = {
  panMin: -175,
  panMax: 175,
  tiltMin: -80,
  tiltMax: 10,
  zoomMax: 5,
  panDegPerS: 60,
  tiltDegPerS: 40,
  hfovDeg: 60.5,
  presets: [
    { name: 'Sluice gate', pan: -18, tilt: -6, zoom: 1.6 },
    { name: 'Wheel', pan: 11, tilt: 0, zoom: 1.8 },
  ],
  mostPresets: 16,
};

/** A healthy wired dome over the sluice. */
export const SLUICE_RAIL: Personality = {
  name: 'Sluice rail',
  host: '10.77.4.21',
  port: 554,
  server: 'Ostrel/2.4',
  realm: 'Ostrel PD-5',
  account: { user: 'mill-viewer', password: 'Weir & Gate/7' },
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 6,
  dropEvery: null,
  maxPayloadBytes: 1400,
  stopsAfterMs: null,
  plug: { mac: '00:00:5e:00:53:21', address: 'asks' },
  page: {
    port: 80,
    title: 'Ostrel PD-5',
    server: 'Ostrel-web/2.4',
    onvif: {
      ...SPEAKS,
      endpoint: '6d1b9a3e-21c4-4e0f-8a52-00005e005321',
      hardware: 'PD-5',
      location: 'sluice',
      make: 'Ostrel',
      model: 'PD-5',
      firmware: '2.4.11',
      serial: 'OS5-21-0417',
      head: DOME,
      walks: SLUICE_WALK,
      timeServer: '10.77.4.1',
    },
  },
  streams: [
    {
      label: 'main',
      path: '/live/main',
      format: { scene: 'sluice', label: 'Sluice rail', quantiser: 23, around: DOME, ...main },
    },
    {
      label: 'sub',
      path: '/live/sub',
      format: { scene: 'sluice', label: 'Sluice rail', quantiser: 24, around: DOME, ...sub },
    },
  ],
};

/** How the low-cost pan camera is reflashed: as its boot loader really wants it. */
export const QUILLBROOK_MINI_GUIDE: ReflashGuide = {
  ...USUAL_GUIDE,
  imageName: 'mini_open.bin',
  backName: 'mini_stock.bin',
  limitGiB: 32,
  cardWay: 'label towards the lens, until it clicks',
  button: 'the small one under the rubber, beside the SD card',
  powerOffS: 10,
  holdS: 6,
  signWithinS: 12,
  writeFromS: 120,
  writeToS: 300,
  patienceS: 900,
  rebootS: 90,
};

const PAN_ONLY: HeadPersonality = {
  panMin: -170,
  panMax: 170,
  tiltMin: -30,
  tiltMax: 30,
  zoomMax: 1,
  panDegPerS: 30,
  tiltDegPerS: 20,
  isTimedOnly: true,
  deadMs: 120,
  hfovDeg: 78,
  presets: [],
  mostPresets: 0,
};

/** A low-cost pan camera at the edge of the Wi-Fi: one packet in 125 never arrives. */
export const BOOT_ROOM: Personality = {
  name: 'Boot room',
  host: '10.77.4.27',
  port: 8554,
  server: 'qb-rtspd 0.9',
  realm: 'Quillbrook',
  account: { user: 'boot-viewer', password: 'oiled#laces' },
  ...ORDINARY,
  digestQop: null,
  sessionTimeoutS: 60,
  maxSessions: 4,
  dropEvery: 125,
  maxPayloadBytes: 700,
  stopsAfterMs: null,
  reflash: QUILLBROOK_MINI_GUIDE,
  plug: { mac: '00:00:5e:00:53:27', address: 'asks' },
  odd: { sound: 'PCMU' },
  page: {
    port: 8899,
    title: 'Mini',
    server: 'qb-httpd 0.9',
    onvif: {
      endpoint: '3f0c5d18-7a21-4b66-9d0e-00005e005327',
      hardware: 'Mini',
      location: 'boot room',
      make: 'Quillbrook',
      model: 'Mini',
      firmware: '1.0.3',
      serial: 'QM-008812',
      login: 'token',
      tokenLifeS: 300,
      head: PAN_ONLY,
    },
  },
  streams: [
    {
      label: 'main',
      path: '/ch0',
      format: { scene: 'boot-room', label: 'Boot room', quantiser: 25, around: PAN_ONLY, ...main },
    },
    {
      label: 'sub',
      path: '/ch1',
      format: { scene: 'boot-room', label: 'Boot room', quantiser: 25, around: PAN_ONLY, ...sub },
    },
  ],
};

const YEAR_MS = 365 * 24 * 3600 * 1000;
const still = { codec: 'JPEG', quantiser: 60 } as const;

/** A ten-year-old box on the stairs: Basic login, a JPEG a picture, two clients at most, slow, and its clock is years off. */
export const LINEN_STAIR: Personality = {
  name: 'Linen stair',
  host: '10.77.4.33',
  port: 554,
  server: 'C1 Stream 1.02',
  realm: 'C1',
  account: { user: 'linen', password: 'starch&press 2' },
  login: 'basic',
  digestQop: null,
  transports: ['tcp', 'udp'],
  answerDelayMs: 420,
  clockErrorMs: -8 * YEAR_MS,
  sessionTimeoutS: 60,
  maxSessions: 2,
  dropEvery: null,
  maxPayloadBytes: 1300,
  stopsAfterMs: null,
  plug: { mac: '00:00:5e:00:53:33', address: 'static' },
  page: {
    port: 80,
    title: 'C1 setup',
    server: 'C1 Web 1.02',
    onvif: {
      endpoint: '0a7c1d52-33b0-11e5-9c3f-00005e005333',
      hardware: 'C1',
      location: 'stair',
      staleAddress: '192.168.0.90',
      make: 'Marrick',
      model: 'C1',
      firmware: '1.02',
      serial: 'C1-330815',
      login: 'token',
      tokenLifeS: 300,
      isOld: true,
      saysSoap11: true,
    },
  },
  streams: [
    {
      label: 'main',
      path: '/video.mjpg',
      format: { scene: 'stair', label: 'Linen stair', ...still, width: 640, height: 480, fps: 5, groupFrames: 5 },
    },
    {
      label: 'sub',
      path: '/small.mjpg',
      format: { scene: 'stair', label: 'Linen stair', ...still, width: 320, height: 240, fps: 5, groupFrames: 5 },
    },
  ],
};

/** An old handset beside the bread oven: warm since the morning, and it saves itself by giving fewer frames. */
export const BREAD_OVEN: Personality = {
  name: 'Bread oven',
  host: '10.77.4.35',
  port: 8554,
  server: 'Pocket stream 3.1',
  realm: 'OldPhone',
  account: { user: 'view-bread-oven', password: 'crumb7tray4peel' },
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 2,
  dropEvery: null,
  maxPayloadBytes: 1200,
  stopsAfterMs: null,
  plug: { mac: '02:00:5e:10:00:35', address: 'asks', isRandom: true },
  handset: {
    roomC: 36,
    mount: 'open',
    load: { widthPx: 960, heightPx: 540, fps: 12, screen: 'off', isChargeLimited: true },
    onForMin: 180,
    pictures: { port: 8081, path: '/shot.jpg', streamPath: '/pictures' },
    pagePort: 8080,
  },
  streams: [
    { label: 'main', path: '/live', format: { scene: 'oven', label: 'Bread oven', quantiser: 25, ...main } },
    { label: 'sub', path: '/small', format: { scene: 'oven', label: 'Bread oven', quantiser: 25, ...sub } },
  ],
};

const boxStream = (channel: number, label: string): readonly StreamPersonality[] => [
  {
    label: 'main',
    path: `/ch${channel}/main`,
    channel,
    format: { scene: 'press', label, quantiser: 25, ...main },
  },
  { label: 'sub', path: `/ch${channel}/sub`, channel, format: { scene: 'press', label, quantiser: 25, ...sub } },
];

/** A recorder box with two cameras hanging off it: by ONVIF it shows the first, and the addresses of the network behind it. */
export const CIDER_PRESS: Personality = {
  name: 'Cider press',
  host: '10.77.4.41',
  port: 554,
  server: 'R8 media 4.1',
  realm: 'R8',
  account: { user: 'press-viewer', password: 'pomace&pulp 9' },
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 8,
  dropEvery: null,
  maxPayloadBytes: 1400,
  stopsAfterMs: null,
  plug: { mac: '00:00:5e:00:53:41', address: 'asks' },
  page: {
    port: 80,
    title: 'R8 recorder',
    server: 'R8 web 4.1',
    onvif: {
      ...SPEAKS,
      endpoint: '5b2f7c40-90d1-4a7e-b3b8-00005e005341',
      hardware: 'R8',
      location: 'cider press',
      make: 'Marrick',
      model: 'R8',
      firmware: '4.1.7',
      serial: 'R8-770231',
      sourcesShown: 1,
      innerHost: '192.168.10.1',
      timeServer: '10.77.4.1',
      recordings: { count: 2, days: 9 },
    },
  },
  streams: [...boxStream(1, 'Cider press A'), ...boxStream(2, 'Cider press B')],
};
