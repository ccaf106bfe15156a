import { eachOf, type Migration } from './migrate.ts';

// As version 3 began: what these were called and what they held does not follow what the document became since.

const SKY_3 = {
  latitudeDeg: null,
  clearness: [0.33, 0.37, 0.41, 0.44, 0.46, 0.48, 0.49, 0.47, 0.44, 0.4, 0.35, 0.33],
};
const PLAN_3 = { widthM: 40, heightM: 26, picture: null, walls: [] };
const COSTING_3 = { currency: '€', years: 5, energyPrice: 0.3, priceRise: 0.02, options: [] };

/** A card of which only the name is known; what the older card said comes over it. */
const MODEL_3 = {
  hardwareRev: '',
  localStream: null,
  sessions: null,
  lenses: [],
  codecs: [],
  fps: null,
  subs: null,
  panRangeDeg: null,
  tiltRangeDeg: null,
  light: null,
  ingress: null,
  sound: null,
  power: {
    ways: [],
    poeClass: null,
    minVolts: null,
    maxVolts: null,
    dayW: null,
    nightW: null,
    standbyW: null,
    batteryWh: null,
    supplyInBox: null,
  },
  wired: null,
  bands: [],
  cardMaxGB: null,
  lostWithoutAccount: [],
  price: null,
  seats: 1,
  notes: '',
};
const UNPLANNED_3 = { need: null, mounting: null, position: null, candidates: [], feed: null };

/** 3: choosing, feeding and drawing the site: needs, gear, links, plan, costs, and model cards that say more. */
export const to3: Migration = (document) => ({
  ...document,
  version: 3,
  sky: SKY_3,
  plan: PLAN_3,
  gear: [],
  links: [],
  costing: COSTING_3,
  assumptions: {},
  models: eachOf(document.models, (model) => ({ ...MODEL_3, ...model })),
  cameras: eachOf(document.cameras, (camera) => ({ ...camera, ...UNPLANNED_3 })),
  destinations: eachOf(document.destinations, (destination) => ({ ...destination, position: null })),
});
