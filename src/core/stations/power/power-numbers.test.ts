import { expect, test } from '@jest/globals';
import { ALDER_MILL_MODELS } from '../../../standins/alder-mill.ts';
import type { Feed } from '../../document/chapters/cameras/feed.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import { UNMEASURED_LINK } from '../../document/chapters/links/link-fields.ts';
import type { Model, ModelPower } from '../../document/chapters/models/model-card.ts';
import { emptyModel } from '../../document/chapters/models/model-fields.ts';
import { UNKNOWN_SKY } from '../../document/chapters/sky/sky.ts';
import { cableFeed, feedBudget, poeDemand, runNumbers, sunInputOf, sunYearOf } from './power-numbers.ts';

const model = (power: Partial<ModelPower>): Model => {
  const empty = emptyModel('m', 'Tarrow', 'Eye');
  return { ...empty, power: { ...empty.power, ...power } };
};
const link = (more: Partial<Link>): Link => ({
  ...UNMEASURED_LINK,
  id: 'l',
  from: 'gear:g',
  to: 'camera:c',
  medium: 'pair',
  conductorC: 20,
  lengthM: 10,
  ...more,
});
const DC = { volts: 12, output: 'dc' } as const;
const USB = { volts: 5.1, output: 'usb' } as const;

test.each([
  {
    why: 'as on its model card',
    power: { poeClass: 3, dayW: 4, nightW: 7.5 },
    demand: { class: 3, pdW: 7.5, isWhole: true },
  },
  {
    why: 'the lowest that feeds its night',
    power: { dayW: 4, nightW: 14 },
    demand: { class: 4, pdW: 14, isWhole: true },
  },
  { why: 'its boundary is inclusive', power: { nightW: 12.95 }, demand: { class: 3, pdW: 12.95, isWhole: true } },
  { why: 'beyond every class: the highest', power: { nightW: 90 }, demand: { class: 8, pdW: 90, isWhole: true } },
  { why: 'its night is not known', power: { dayW: 4 }, demand: { class: null, pdW: 4, isWhole: false } },
  { why: 'nothing is known', power: {}, demand: { class: null, pdW: 0, isWhole: false } },
])('class over the cable: $why', ({ power, demand }) => expect(poeDemand(model(power))).toEqual(demand));

test('without a light of its own a camera takes at night what it takes by day', () => {
  const dark = { ...model({ dayW: 4 }), light: { kind: 'none', reachM: 0, angleDeg: 0 } as const };
  expect(poeDemand(dark)).toEqual({ class: 2, pdW: 4, isWhole: true });
});

test('a low-voltage run by hand: 10 m of 0.5 mm², 6 W from 12 V', () => {
  // Loop 2·10·0.017241/0.5 = 0.6896 Ω; V = (12 + √(144 − 4·0.6896·6))/2 = 11.645 V; longest (1.2·10.8)/(2·0.03448·6) = 31.3 m.
  const run = runNumbers(DC, link({ areaMm2: 0.5 }), model({ dayW: 3, nightW: 6, minVolts: 10.8 }), {});
  expect(run).toMatchObject({ verdict: 'ok', loadW: 6, minVolts: 10.8, pickMm2: 0.2 });
  expect(run?.nightVolts).toBeCloseTo(11.645, 3);
  expect(run?.longestM).toBeCloseTo(31.32, 1);
  expect(run?.dayVolts).toBeGreaterThan(run?.nightVolts ?? 12);
});

test('a cable that gets warm resists more', () => {
  const warm = (conductorC: number) =>
    cableFeed(poe, link({ medium: 'network-cable', lengthM: 80, conductorC }), poeDemand(model({ nightW: 12 })), {});
  // Copper at 60 °C against 20 °C: × 1.157.
  expect(warm(60).loopOhm / warm(20).loopOhm).toBeCloseTo(1.157, 3);
  expect(warm(60).loadVolts).toBeLessThan(warm(20).loadVolts ?? 0);
});

test('copper-clad aluminium is a thinner copper, and shortens the longest run by its factor', () => {
  const camera = model({ dayW: 6, minVolts: 10.8 });
  const [solid, clad] = [false, true].map((isCopperClad) =>
    runNumbers(DC, link({ areaMm2: 0.5, isCopperClad }), camera, {}),
  );
  expect(clad?.nightVolts).toBeLessThan(solid?.nightVolts ?? 0);
  expect((solid?.longestM ?? 0) / (clad?.longestM ?? 1)).toBeCloseTo(1.55, 6);
});

test('contacts of a USB lead are gone before the wire begins', () => {
  const camera = model({ dayW: 5, minVolts: 4.75 });
  const run = runNumbers(USB, link({ medium: 'usb', lengthM: 1, areaMm2: 0.33 }), camera, {});
  const without = runNumbers(USB, link({ medium: 'usb', lengthM: 1, areaMm2: 0.33 }), camera, {
    'power.usb-contacts': 0,
  });
  // 5 W at 5 V is an ampere: 0.12 Ω take about 0.12 V.
  expect((without?.nightVolts ?? 0) - (run?.nightVolts ?? 0)).toBeCloseTo(0.127, 2);
  expect(run?.longestM).toBeLessThan(without?.longestM ?? 0);
});

test.each([
  {
    why: 'contacts alone take all there is',
    supply: { volts: 4.8, output: 'usb' } as const,
    lengthM: 1,
    longestM: 0,
    pick: null,
  },
  { why: 'no length: the thinnest that is sold', supply: DC, lengthM: 0, longestM: 47, pick: 0.2 },
  { why: 'no size that is sold is thick enough', supply: DC, lengthM: 900, longestM: 47, pick: null },
])('a run at its ends: $why', ({ supply, lengthM, longestM, pick }) => {
  const minVolts = supply.output === 'usb' ? 4.75 : 10.8;
  const run = runNumbers(supply, link({ lengthM, areaMm2: 0.75 }), model({ dayW: 6, minVolts }), {});
  expect(run?.longestM).toBeCloseTo(longestM, 0);
  expect(run?.pickMm2).toBe(pick);
});

test('without watts there is nothing to work out', () => {
  expect(runNumbers(DC, link({}), model({}), {})).toBeNull();
});

const poe: Extract<Gear, { kind: 'switch' }> = {
  id: 'g',
  name: 'Switch',
  position: null,
  kind: 'switch',
  price: null,
  ports: 8,
  poePorts: 8,
  pseType: 2,
  budgetW: 60,
  pseVolts: 50,
  reserves: 'class',
  uplinkMbps: 1000,
};

test('four pairs halve the loop, and a switch by measure reserves less than one by class', () => {
  const cable = link({ medium: 'network-cable', lengthM: 100 });
  const [two, four] = [4, 5].map((poeClass) =>
    cableFeed(poe, cable, poeDemand(model({ poeClass, dayW: 20, nightW: 20 })), {}),
  );
  expect(two?.loopOhm).toBeCloseTo(12.5, 9);
  expect(four?.loopOhm).toBeCloseTo(6.25, 9);
  const fed = [{ link: cable, demand: { class: 3, pdW: 6, isWhole: true } }];
  expect(feedBudget(poe, fed, {}).totalW).toBe(15.4);
  expect(feedBudget({ ...poe, reserves: 'measured' }, fed, {}).totalW).toBeCloseTo(6.19, 1);
  // Class 6 on a switch of type 2 is granted class 4, and starves.
  const big = [{ link: cable, demand: { class: 6, pdW: 45, isWhole: true } }];
  expect(feedBudget(poe, big, {})).toMatchObject({
    verdict: 'will-not-work',
    ports: [{ grantedClass: 4, underPowered: true }],
  });
});

test('a supply that already gives too little is no matter of the wire', () => {
  const camera = model({ dayW: 12, nightW: 19, minVolts: 21 });
  expect(runNumbers(DC, link({ lengthM: 0 }), camera, {})).toMatchObject({
    verdict: 'will-not-work',
    minVolts: 21,
    longestM: 0,
  });
  expect(runNumbers({ ...DC, volts: 24 }, link({ lengthM: 5 }), camera, {})?.verdict).toBe('ok');
});

const sun: Feed = {
  way: 'solar',
  charge: null,
  sun: {
    panelWp: 20,
    tiltDeg: 60,
    shade: 0,
    batteryWh: 60,
    depthOfDischarge: 0.8,
    isLithium: true,
    drawnHoursPerDay: 1,
    panelPrice: null,
    batteryPrice: null,
    mainsMonths: [],
  },
};

test('a year needs a latitude and the watts of the card, and is kept while nothing it rests on changes', () => {
  const card = ALDER_MILL_MODELS.find(({ id }) => id === 'pellam-sol-2') ?? emptyModel('m', '', '');
  expect(sunInputOf(sun, card, UNKNOWN_SKY, null, {})).toBeNull();
  const sky = { ...UNKNOWN_SKY, latitudeDeg: 45 };
  expect(sunInputOf(sun, model({}), sky, null, {})).toBeNull();
  const input = sunInputOf(sun, card, sky, null, {});
  const tapped = sunInputOf(sun, card, sky, 24, {});
  if (!input || !tapped) throw new Error('two inputs');
  expect(tapped.drawnHoursPerDay).toBe(24);
  const year = sunYearOf(input);
  expect(sunYearOf({ ...input })).toBe(year);
  expect(sunYearOf(tapped)).not.toBe(year);
});
