import type { Camera } from '../../src/core/document/chapters/cameras/camera.ts';
import type { Need } from '../../src/core/document/chapters/cameras/need.ts';
import type { Destination } from '../../src/core/document/chapters/destinations/destination.ts';
import type { Gear } from '../../src/core/document/chapters/gear/gear.ts';
import type { Link } from '../../src/core/document/chapters/links/link.ts';
import { UNMEASURED_LINK } from '../../src/core/document/chapters/links/link-fields.ts';
import type { Model } from '../../src/core/document/chapters/models/model-card.ts';
import type { Site } from '../../src/core/document/site.ts';
import { indexEvidence } from '../../src/core/evidence/evidence-index.ts';
import { lanesOf } from '../../src/core/lanes/lane.ts';
import { ALDER_MILL_MODELS } from '../../src/standins/alder-mill.ts';
import { apply, camera, mill, probed, record, report } from './sites.ts';

const card = (id: string): Model => {
  const found = ALDER_MILL_MODELS.find((model) => model.id === id);
  if (!found) throw new Error(`no card ${id}`);
  return found;
};
/** A card that says all, and fits what is asked below. */
export const SPARE: Model = {
  ...card('pellam-b4'),
  id: 'spare',
  localStream: 'both',
  sessions: 6,
  codecs: ['H264'],
  fps: 15,
  subs: [{ codecs: ['H264'], widthPx: 640, heightPx: 360, fps: 10, path: '' }],
  panRangeDeg: 350,
  tiltRangeDeg: 90,
  light: { kind: 'infrared', reachM: 60, angleDeg: 110 },
  ingress: 66,
  sound: 'talk',
  power: {
    ...card('pellam-b4').power,
    ways: ['poe', 'dc', 'passive'],
    poeClass: 3,
    dayW: 4,
    nightW: 6,
    minVolts: 10.8,
    maxVolts: 28,
    standbyW: 1,
  },
  wired: true,
  bands: ['2.4'],
};
export const NEED: Need = {
  level: 'observe',
  text: { line: 'PRESS 7B', charHeightMm: 120 },
  distanceM: 8,
  widthM: 4,
  nearM: 6,
  atNight: true,
  sound: 'hear',
  turns: true,
  outdoors: true,
  draws: [
    { destinationId: 'hub', use: 'live' },
    { destinationId: 'loft', use: 'record' },
  ],
};
export const MOUNTING = { heightM: 3, tiltDownDeg: 14, headingDeg: 0, zoom: null };

export const switchOf = (id: string, more: object = {}): Gear => ({
  id,
  name: `Switch ${id}`,
  kind: 'switch',
  price: null,
  position: null,
  ports: 10,
  poePorts: 8,
  pseType: 2,
  budgetW: 100,
  pseVolts: 52,
  reserves: 'class',
  uplinkMbps: 1000,
  ...more,
});
export const supplyOf = (id: string, volts: number, amps = 2): Gear => ({
  id,
  name: `Supply ${id}`,
  kind: 'supply',
  price: null,
  position: null,
  output: 'dc',
  volts,
  amps,
});
export const passiveOf = (id: string, volts: number): Gear => ({
  id,
  name: `Injector ${id}`,
  kind: 'injector',
  price: null,
  position: null,
  isPassive: true,
  volts,
  watts: 30,
});
export const apOf = (id: string, band: '2.4' | '5', xM: number): Gear => ({
  id,
  name: `Radio ${id}`,
  kind: 'access-point',
  price: null,
  position: { xM, yM: 0 },
  band,
  radio: band === '5' ? 'ac80' : 'n20',
  eirpDbm: 20,
  channel: band === '5' ? 36 : id === 'near' ? 11 : 1,
  poeClass: null,
});
export const linkOf = (id: string, from: string, to: string, more: Partial<Link> = {}): Link => ({
  id,
  from,
  to,
  medium: 'network-cable',
  ...UNMEASURED_LINK,
  lengthM: 10,
  ...more,
});
export const FEED = linkOf('feed', 'gear:a', 'camera:c');
export const JOINED = [linkOf('hub', 'gear:a', 'destination:hub'), linkOf('loft', 'gear:a', 'destination:loft')];

interface Parts {
  readonly camera?: Partial<Camera>;
  readonly need?: Partial<Need>;
  /** Of the model that is chosen; `spare` stays as good as it is. */
  readonly model?: Partial<Model>;
  readonly power?: Partial<Model['power']>;
  readonly gear?: readonly Gear[];
  readonly links?: readonly Link[];
  readonly destinations?: (all: readonly Destination[]) => readonly Destination[];
  readonly latitudeDeg?: number;
}

/** One camera in a place where all is well, but for what is given. */
export function siteOf(parts: Parts = {}): Site {
  const base = mill();
  const chosen: Model = { ...SPARE, id: 'chosen', ...parts.model, power: { ...SPARE.power, ...parts.power } };
  return {
    ...base,
    sky: { ...base.sky, latitudeDeg: parts.latitudeDeg ?? null },
    models: [chosen, SPARE],
    cameras: [
      camera('c', {
        modelId: 'chosen',
        need: { ...NEED, ...parts.need },
        mounting: MOUNTING,
        candidates: ['chosen', 'spare'],
        feed: { way: 'poe', sun: null, charge: null },
        ...parts.camera,
      }),
    ],
    destinations: (parts.destinations ?? ((all) => all))(
      base.destinations.map((one) =>
        one.id === 'loft' ? { ...one, storage: { diskTB: 2, usableFraction: 0.9, price: null } } : one,
      ),
    ),
    gear: parts.gear ?? [switchOf('a')],
    links: parts.links ?? [FEED, ...JOINED],
  };
}

export const lens = (more: Partial<Model['lenses'][number]>): Partial<Model> => ({
  lenses: SPARE.lenses.map((one) => ({ ...one, ...more })),
});
const PAIR = { medium: 'pair', lengthM: 10, areaMm2: 1.5 } as const;
export const byPair: Partial<Camera> = { feed: { way: 'dc', sun: null, charge: null } };
export const byPassive: Partial<Camera> = { feed: { way: 'passive', sun: null, charge: null } };
export const onPair = (from: string, more: Partial<Link> = {}): readonly Link[] => [
  linkOf('feed', from, 'camera:c', { ...PAIR, ...more }),
  linkOf('data', 'gear:a', 'camera:c'),
  ...JOINED,
];
export const SUN = {
  panelWp: 6,
  tiltDeg: 60,
  shade: 0,
  batteryWh: 80,
  depthOfDischarge: 0.8,
  isLithium: true,
  drawnHoursPerDay: 1,
  panelPrice: null,
  batteryPrice: null,
  mainsMonths: [],
};
export const bySun = (more: Partial<typeof SUN> = {}): Partial<Camera> => ({
  feed: { way: 'solar', charge: null, sun: { ...SUN, ...more } },
});
export const solarCard = { ways: ['solar'] as const, dayW: 1.5, nightW: 2, standbyW: 0.05 };
export const onAir = (ap: string): readonly Link[] => [
  linkOf('air', `gear:${ap}`, 'camera:c', { medium: 'wifi', lengthM: 0 }),
  linkOf('up', 'gear:a', 'gear:far'),
  linkOf('up2', 'gear:a', 'gear:near'),
  ...JOINED,
];
export const standing: Partial<Camera> = {
  position: { xM: 0, yM: 3 },
  feed: { way: 'mains', sun: null, charge: null },
  need: { ...NEED, draws: [{ destinationId: 'hub', use: 'live' }] },
};
export const airCard = { ways: ['mains'] as const };
export const tapped = (site: Site, ...more: Parameters<typeof apply>[1][]): Site =>
  apply(site, probed('c', report()), record('t', 'c'), ...more);
export const beside = (site: Site, more: Partial<Camera> = {}): Site => ({
  ...site,
  cameras: [...site.cameras, camera('d', { modelId: 'chosen', ...more })],
});

/** What a lane says of one camera at a station, its findings by their rules. */
export function stationOf(site: Site, station: string, cameraId = 'c') {
  const lane = lanesOf(site, indexEvidence(site.journal)).find((one) => one.cameraId === cameraId);
  const found = lane?.stations.find((one) => one.station === station);
  if (!lane || !found) throw new Error(`no ${station} of ${cameraId}`);
  return { ...found, next: lane.next, rules: found.findings.map(({ rule }) => rule) };
}
