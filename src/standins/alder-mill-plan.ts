import type { Point, Wall, WallMaterial } from '../core/base/plan-geometry.ts';
import { type Costing, EMPTY_COSTING } from '../core/document/chapters/costing/costing.ts';
import type { Gear } from '../core/document/chapters/gear/gear.ts';
import { type Link, UNMEASURED_LINK } from '../core/document/chapters/links/link.ts';
import { type DrawnPlan, EMPTY_PLAN } from '../core/document/chapters/plan/drawn-plan.ts';
import { type Sky, UNKNOWN_SKY } from '../core/document/chapters/sky/sky.ts';

const at = (xM: number, yM: number): Point => ({ xM, yM });

/** A run of wall through points. */
const walls = (id: string, material: WallMaterial, ...points: readonly Point[]): readonly Wall[] =>
  points.slice(1).map((to, index) => ({ id: `${id}-${index + 1}`, name: '', from: points[index] ?? to, to, material }));

/** The mill with its stone walls, the bakehouse across the yard, the hedge of the orchard. */
export const ALDER_MILL_PLAN: DrawnPlan = {
  ...EMPTY_PLAN,
  northDeg: 15,
  walls: [
    ...walls('mill', 'stone', at(14, 8), at(28, 8), at(28, 18), at(14, 18), at(14, 8)),
    ...walls('wheel', 'stone', at(19, 8), at(19, 18)),
    ...walls('hall', 'brick', at(19, 13), at(28, 13)),
    ...walls('kitchen', 'plaster', at(23.5, 13), at(23.5, 18)),
    ...walls('bakehouse', 'brick', at(32, 4), at(37, 4), at(37, 9), at(32, 9), at(32, 4)),
    ...walls('hedge', 'fence', at(2, 24), at(38, 24)),
  ],
};

export const ALDER_MILL_SKY: Sky = { ...UNKNOWN_SKY, latitudeDeg: 51.5 };

export const ALDER_MILL_GEAR: readonly Gear[] = [
  {
    id: 'loft-switch',
    name: 'Loft switch',
    kind: 'switch',
    price: 128,
    position: at(25, 10.5),
    ports: 16,
    poePorts: 8,
    pseType: 2,
    budgetW: 80,
    pseVolts: 52,
    reserves: 'class',
    uplinkMbps: 1000,
  },
  {
    id: 'wheel-switch',
    name: 'Wheel switch',
    kind: 'switch',
    price: 54,
    position: at(16.5, 11.5),
    ports: 5,
    poePorts: 4,
    pseType: 2,
    budgetW: 32,
    pseVolts: 52,
    reserves: 'class',
    uplinkMbps: 100,
  },
  {
    id: 'hall-ap',
    name: 'Hall radio',
    kind: 'access-point',
    price: 72,
    position: at(21.5, 15),
    band: '2.4',
    radio: 'n20',
    eirpDbm: 20,
    channel: 6,
    poeClass: 3,
  },
  {
    id: 'bakehouse-ap',
    name: 'Bakehouse radio',
    kind: 'access-point',
    price: 48,
    position: at(33, 8),
    band: '2.4',
    radio: 'n20',
    eirpDbm: 17,
    channel: 11,
    poeClass: null,
  },
  { id: 'yard-plug', name: 'Yard plug', kind: 'powerline', price: 36, position: at(27, 12.4), syncMbps: 200 },
  {
    id: 'stair-supply',
    name: 'Stair supply',
    kind: 'supply',
    price: 14,
    position: at(26.5, 17),
    output: 'dc',
    volts: 12,
    amps: 1,
  },
  {
    id: 'boot-charger',
    name: 'Boot room charger',
    kind: 'supply',
    price: 9,
    position: at(15, 13),
    output: 'usb',
    volts: 5.1,
    amps: 2,
  },
  {
    id: 'oven-charger',
    name: 'Oven charger',
    kind: 'supply',
    price: 9,
    position: at(36, 6.4),
    output: 'usb',
    volts: 5.1,
    amps: 2,
  },
];

const link = (id: string, from: string, to: string, medium: Link['medium'], more: Partial<Link> = {}): Link => ({
  id,
  from,
  to,
  medium,
  ...UNMEASURED_LINK,
  lengthM: 5,
  ...more,
});

export const ALDER_MILL_LINKS: readonly Link[] = [
  link('sluice-cable', 'gear:loft-switch', 'camera:sluice-rail', 'network-cable', {
    route: [at(25, 10.5), at(25, 8.3), at(14.3, 8.3), at(14.3, 14)],
    extraM: 6,
  }),
  link('landing-cable', 'gear:wheel-switch', 'camera:landing-stage', 'network-cable', {
    route: [at(16.5, 11.5), at(14.3, 11.5), at(14.3, 10)],
    extraM: 4,
  }),
  link('orchard-cable', 'gear:wheel-switch', 'camera:orchard-track', 'network-cable', {
    route: [at(16.5, 11.5), at(16.5, 17.7), at(24, 17.7)],
    extraM: 5,
  }),
  link('stair-pair', 'gear:stair-supply', 'camera:linen-stair', 'pair', { lengthM: 12, areaMm2: 0.33, conductorC: 30 }),
  link('stair-cable', 'gear:loft-switch', 'camera:linen-stair', 'network-cable', { lengthM: 9 }),
  link('boot-lead', 'gear:boot-charger', 'camera:boot-room', 'usb', { lengthM: 2, areaMm2: 0.5 }),
  link('boot-air', 'gear:hall-ap', 'camera:boot-room', 'wifi', { lengthM: 0 }),
  link('bee-air', 'gear:hall-ap', 'camera:bee-stand', 'wifi', { lengthM: 0 }),
  link('oven-lead', 'gear:oven-charger', 'camera:bread-oven', 'usb', { lengthM: 3, areaMm2: 0.33 }),
  link('oven-air', 'gear:bakehouse-ap', 'camera:bread-oven', 'wifi', { lengthM: 0 }),
  link('yard-cable', 'gear:loft-switch', 'gear:yard-plug', 'network-cable', { lengthM: 4 }),
  link('yard-mains', 'gear:yard-plug', 'gear:bakehouse-ap', 'powerline', { lengthM: 18 }),
  link('wheel-uplink', 'gear:loft-switch', 'gear:wheel-switch', 'network-cable', { lengthM: 22 }),
  link('hall-cable', 'gear:loft-switch', 'gear:hall-ap', 'network-cable', { lengthM: 14 }),
  link('store-cable', 'gear:loft-switch', 'destination:loft-store', 'network-cable', {
    lengthM: 2,
    capacityMbps: 1000,
  }),
  link('hub-cable', 'gear:loft-switch', 'destination:mill-hub', 'network-cable', { lengthM: 7, capacityMbps: 100 }),
  link('screen-cable', 'gear:loft-switch', 'destination:reception-screen', 'network-cable', {
    lengthM: 16,
    capacityMbps: 100,
  }),
  link('tablet-air', 'gear:hall-ap', 'destination:kitchen-tablet', 'wifi', { lengthM: 0 }),
];

/** The three schools, with invented prices. */
export const ALDER_MILL_COSTING: Costing = {
  ...EMPTY_COSTING,
  perMetre: { 'network-cable': 0.6, pair: 0.9, usb: 2.5, fibre: null },
  options: [
    {
      id: 'box',
      name: 'Marrick R8 and its cameras',
      school: 'recorder-box',
      destinationId: null,
      lines: [
        { label: 'Recorder Marrick R8', price: 310, count: 1, everyYears: null, of: null },
        { label: 'Disk, 4 TB', price: 110, count: 1, everyYears: 5, of: null },
        { label: 'Cameras of its make', price: 95, count: 7, everyYears: null, of: null },
      ],
      includedSeats: 8,
      packs: [],
      subscriptionPerMonth: 0,
      loadW: 22,
    },
    {
      id: 'software',
      name: 'Software on the Loft store',
      school: 'software',
      destinationId: 'loft-store',
      lines: [
        { label: 'Disk, 4 TB', price: 110, count: 2, everyYears: 5, of: null },
        { label: 'Cameras, of several makes', price: 108, count: 7, everyYears: null, of: null },
        { label: 'Cards in cameras, 128 GB', price: 22, count: 3, everyYears: 3, of: null },
      ],
      includedSeats: 6,
      packs: [
        { seats: 1, price: 37 },
        { seats: 3, price: 96 },
        { seats: 10, price: 270 },
      ],
      subscriptionPerMonth: 0,
      loadW: 5,
    },
    {
      id: 'both',
      name: 'The box, and its channels in the software',
      school: 'both',
      destinationId: 'loft-store',
      lines: [
        { label: 'Recorder Marrick R8', price: 310, count: 1, everyYears: null, of: null },
        { label: 'Disk, 4 TB', price: 110, count: 2, everyYears: 5, of: null },
        { label: 'Cameras of its make', price: 95, count: 7, everyYears: null, of: null },
      ],
      includedSeats: 6,
      packs: [
        { seats: 1, price: 37 },
        { seats: 3, price: 96 },
        { seats: 10, price: 270 },
      ],
      subscriptionPerMonth: 4,
      loadW: 34,
    },
  ],
};
