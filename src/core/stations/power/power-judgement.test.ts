import { expect, test } from '@jest/globals';
import { apply, probed, record, report } from '../../../../tests/support/sites.ts';
import { alderMill } from '../../../standins/alder-mill.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { readingOf } from '../../document/chapters/journal/reading.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Site } from '../../document/site.ts';
import { airSubject } from '../../document/subject.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { findingsOf, judgeRows } from '../../findings/rule.ts';
import { crosses, estimateSignal, freeSpaceLossDb } from '../../radio/radio.ts';
import { pathOf } from '../../site/draws.ts';
import { lengthOf } from '../../site/link-length.ts';
import { viewOf } from '../../site/site-view.ts';
import { PowerJudge } from './power-judgement.ts';
import { POWER_RULES } from './power-rules.ts';

const AT = '2026-11-25T09:00:00.000Z';
const mill = alderMill(AT);
const judgeOf = (site: Site): PowerJudge => {
  const index = indexEvidence(site.journal);
  return new PowerJudge(viewOf(site, index));
};
const cameraOf = (site: Site, id: string): Camera => {
  const camera = site.cameras.find((one) => one.id === id);
  if (!camera) throw new Error(`no camera ${id}`);
  return camera;
};
const foundOf = (site: Site, id: string) =>
  findingsOf(judgeRows(POWER_RULES, judgeOf(site).judge(cameraOf(site, id)).facts));
const rulesOf = (site: Site, id: string): readonly string[] => foundOf(site, id).map(({ rule }) => rule);
const stopsOf = (site: Site, id: string): readonly string[] =>
  foundOf(site, id).flatMap(({ rule, severity }) => (severity === 'stop' ? rule : []));
const linkOf = (site: Site, id: string): Link => {
  const link = site.links.find((one) => one.id === id);
  if (!link) throw new Error(`no link ${id}`);
  return link;
};

test('choosing the zoom for Orchard track puts Wheel switch over its budget, for both that hang on it; moving one mends it', () => {
  const chosen = apply(mill, { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4-z' });
  // Class 4 reserves 30 W, class 3 reserves 15.4 W: 45.4 of 32 W.
  expect(judgeOf(chosen).judge(cameraOf(chosen, 'orchard-track')).budget).toMatchObject({
    totalW: 45.4,
    verdict: 'will-not-work',
  });
  expect(stopsOf(chosen, 'orchard-track')).toContain('power.switch-budget');
  expect(stopsOf(chosen, 'landing-stage')).toContain('power.switch-budget');
  const moved = apply(chosen, {
    kind: 'putLink',
    link: { ...linkOf(chosen, 'orchard-cable'), from: 'gear:loft-switch' },
  });
  expect(stopsOf(moved, 'orchard-track')).not.toContain('power.switch-budget');
  expect(stopsOf(moved, 'landing-stage')).not.toContain('power.switch-budget');
});

test('a longer drawn route lowers the voltage at its end, until the run starves', () => {
  const route = (...xs: readonly number[]) => ({
    ...linkOf(mill, 'stair-pair'),
    route: xs.map((xM) => ({ xM, yM: 5 })),
  });
  const voltsOf = (link: Link): number => {
    const site = apply(mill, { kind: 'putLink', link });
    return judgeOf(site).judge(cameraOf(site, 'linen-stair')).run?.nightVolts ?? 0;
  };
  const [short, middle, long] = [route(0, 10), route(0, 20), route(0, 20, 0)].map(voltsOf);
  expect(short).toBeGreaterThan(middle ?? 0);
  expect(middle).toBeGreaterThan(long ?? 0);
  expect(long).toBeLessThan(10.8);
  const starved = apply(mill, { kind: 'putLink', link: route(0, 20, 0) });
  expect(rulesOf(starved, 'linen-stair')).toEqual(['power.run']);
});

test('a drawn route counts before a typed length, with its extra; one point is no route', () => {
  const link = {
    route: [
      { xM: 0, yM: 0 },
      { xM: 3, yM: 4 },
      { xM: 3, yM: 10 },
    ],
    lengthM: 99,
    extraM: 2,
  };
  const places: Record<string, { xM: number; yM: number }> = { a: { xM: 0, yM: 0 }, b: { xM: 3, yM: 4 } };
  const lengthOfLink = (more: object) =>
    lengthOf({ ...link, from: 'a', to: 'b', ...more }, (at) => places[at] ?? null, {});
  expect(lengthOfLink({})).toEqual({ lengthM: 13, how: 'drawn' });
  expect(lengthOfLink({ route: [{ xM: 0, yM: 0 }] })).toEqual({ lengthM: 99, how: 'typed' });
  expect(lengthOfLink({ route: null })).toEqual({ lengthM: 99, how: 'typed' });
  // Nobody typed it: five metres straight, a fifth for corners, and what is beside it.
  expect(lengthOfLink({ route: null, lengthM: null })).toEqual({ lengthM: 8, how: 'straight' });
  expect(lengthOfLink({ route: null, lengthM: null, to: 'c' })).toBeNull();
});

test('Bee stand fails from November to January; a larger panel carries it', () => {
  expect(judgeOf(mill).judge(cameraOf(mill, 'bee-stand')).sunYear?.shortMonths).toEqual([1, 11, 12]);
  const { feed } = cameraOf(mill, 'bee-stand');
  if (!feed?.sun) throw new Error('no sun');
  const mended = apply(mill, {
    kind: 'setFeed',
    cameraId: 'bee-stand',
    feed: { ...feed, sun: { ...feed.sun, panelWp: 17 } },
  });
  expect(judgeOf(mended).judge(cameraOf(mended, 'bee-stand')).sunYear).toMatchObject({
    shortMonths: [],
    verdict: 'ok',
  });
  expect(rulesOf(mended, 'bee-stand')).not.toContain('power.winter');
});

test('a tap that draws a battery camera all day counts before the planned hours', () => {
  const tapped = apply(mill, {
    ...record('tap-b', 'bee-stand'),
    tap: {
      id: 'tap-b',
      cameraId: 'bee-stand',
      streamId: 'bee-stand-main',
      destinationId: 'loft-store',
      use: 'record',
      protocol: 'rtsp',
      schedule: { mode: 'continuous' },
    },
  } as Parameters<typeof apply>[1]);
  const judge = judgeOf(tapped);
  expect(judge.tappedHours(cameraOf(tapped, 'bee-stand'))).toBe(24);
  expect(rulesOf(tapped, 'bee-stand')).toContain('power.battery-streams-all-day');
});

test('measured rates replace planned ones on every link that the stream crosses', () => {
  const tap = {
    id: 'tap-1',
    cameraId: 'sluice-rail',
    streamId: 'sluice-rail-main',
    destinationId: 'loft-store',
    use: 'record',
    protocol: 'rtsp',
    schedule: { mode: 'continuous' },
  } as const;
  const planned = apply(mill, { kind: 'addTap', judged: 'fits', tap });
  const measured = apply(planned, probed('sluice-rail', report({ kbps: 9000 })));
  const loadOf = (site: Site): number => judgeOf(site).links.load(linkOf(site, 'sluice-cable')).mbps;
  const recordedOf = (site: Site) => judgeOf(site).links.drawsFrom('sluice-rail')[0];
  expect(recordedOf(planned)).toMatchObject({ destinationId: 'loft-store', how: 'assumed' });
  expect(recordedOf(measured)).toMatchObject({ how: 'measured', mbps: 9 * 1.074 });
  expect(loadOf(measured) - loadOf(planned)).toBeCloseTo(9 * 1.074 - (recordedOf(planned)?.mbps ?? 0), 9);
  expect(loadOf(measured)).not.toBeCloseTo(loadOf(planned), 1);
});

test('a recorder that takes H.264 alone is planned with H.264, whatever the card names first', () => {
  const rateFor = (codecs: readonly string[]): number => {
    const destinations = mill.destinations.map((one) => (one.id === 'loft-store' ? { ...one, codecs } : one));
    const draws = judgeOf({ ...mill, destinations }).links.drawsFrom('landing-stage');
    return draws.find(({ destinationId }) => destinationId === 'loft-store')?.mbps ?? 0;
  };
  // Its card names H.265 first: about two thirds of the rate.
  expect(rateFor(['H264'])).toBeGreaterThan(rateFor(['H265', 'H264']) * 1.3);
});

test('pictures take the links from camera to destination, or none when the way is broken', () => {
  expect(pathOf(mill.links, 'bread-oven', 'kitchen-tablet')?.map(({ id }) => id)).toEqual([
    'oven-air',
    'yard-mains',
    'yard-cable',
    'hall-cable',
    'tablet-air',
  ]);
  const cut = apply(mill, { kind: 'removeLink', linkId: 'yard-mains' });
  expect(pathOf(cut.links, 'bread-oven', 'kitchen-tablet')).toBeNull();
  expect(rulesOf(cut, 'bread-oven')).toContain('link.not-joined');
  // A pair of low voltage carries no picture.
  expect(
    pathOf([{ ...linkOf(mill, 'stair-pair'), to: 'destination:mill-hub', from: 'camera:x' }], 'x', 'mill-hub'),
  ).toBeNull();
});

test('at the edge of a radio cell one camera takes the air of many', () => {
  const airOf = (rssiDbm: number): number => {
    const air = airSubject('gear:hall-ap', 'camera:boot-room');
    const site = apply(mill, readingOf('camera:boot-room', air, 'signalDbm', rssiDbm));
    return judgeOf(site).links.airtimeOn(linkOf(site, 'boot-air'));
  };
  // 72.2 against 14.4 Mbit/s on the air.
  expect(airOf(-70) / airOf(-60)).toBeCloseTo(72.2 / 14.4, 6);
});

test('a radio link is as fast as its slower end, and is heard as its weaker one', () => {
  const linkWith = (change: Partial<Model>, eirpDbm = 20) => {
    const boot = mill.cameras.find(({ id }) => id === 'boot-room');
    const gear = mill.gear.map((one) =>
      one.kind === 'access-point' ? { ...one, radio: 'n20', band: '2.4' as const, eirpDbm } : one,
    );
    const models = mill.models.map((one) => (one.id === boot?.modelId ? { ...one, ...change } : one));
    const site = { ...mill, gear, models };
    return judgeOf(site).links.radio(linkOf(site, 'boot-air'));
  };
  const asAp = linkWith({ radio: null, radioDbm: null });
  // 54 · 0.45 = 24.3 against 72.2 · 0.5 = 36.1; of another band it says nothing
  expect(linkWith({ radio: 'g' })).toMatchObject({ efficiency: 0.45 });
  expect(linkWith({ radio: 'ac80' })).toMatchObject({ phyMbps: asAp.phyMbps, efficiency: asAp.efficiency });
  expect((linkWith({ radioDbm: 14 }).rssiDbm ?? 0) - (asAp.rssiDbm ?? 0)).toBeCloseTo(-6, 9);
  expect(linkWith({ radioDbm: 23 }).rssiDbm).toBeCloseTo(asAp.rssiDbm ?? 0, 9);
});

test('walls and distance make the signal: 60 dB over 10 m at 2.44 GHz, 20 dB for a wall of stone', () => {
  expect(freeSpaceLossDb(10, 2440)).toBeCloseTo(60.2, 1);
  expect(freeSpaceLossDb(40, 5500)).toBeCloseTo(79.3, 1);
  const stone = [{ id: 'w', name: '', from: { xM: 5, yM: -5 }, to: { xM: 5, yM: 5 }, material: 'stone' as const }];
  const ap = { band: '2.4', eirpDbm: 20 } as const;
  const [here, there] = [
    { xM: 0, yM: 0 },
    { xM: 10, yM: 0 },
  ];
  const free = estimateSignal(ap, here, there, [], {});
  expect(free.rssiDbm).toBeCloseTo(-40.2, 1);
  expect(estimateSignal(ap, here, there, stone, {}).rssiDbm).toBeCloseTo(free.rssiDbm - 20, 9);
  expect(estimateSignal(ap, here, there, stone, { 'air.wall-stone': 12 }).rssiDbm).toBeCloseTo(free.rssiDbm - 12, 9);
});

test.each([
  { why: 'across', c: [5, -1, 5, 1], is: true },
  { why: 'short of it', c: [5, 1, 5, 3], is: false },
  { why: 'beyond its end', c: [11, -1, 11, 1], is: false },
  { why: 'touching with an end', c: [5, 0, 5, 4], is: true },
  { why: 'parallel', c: [0, 1, 10, 1], is: false },
])('a wall is crossed: $why', ({ c: [x1 = 0, y1 = 0, x2 = 0, y2 = 0], is }) => {
  expect(crosses({ xM: 0, yM: 0 }, { xM: 10, yM: 0 }, { xM: x1, yM: y1 }, { xM: x2, yM: y2 })).toBe(is);
});

test('a passive injector is judged by its voltage, not by classes', () => {
  const injector = {
    id: 'inj',
    name: 'Old injector',
    position: null,
    kind: 'injector',
    price: null,
    isPassive: true,
    volts: 24,
    watts: 24,
  } as const;
  const site = apply(
    mill,
    { kind: 'putGear', gear: injector },
    { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4' },
    { kind: 'putLink', link: { ...linkOf(mill, 'orchard-cable'), from: 'gear:inj' } },
    { kind: 'setFeed', cameraId: 'orchard-track', feed: { way: 'passive', sun: null, charge: null } },
  );
  expect(rulesOf(site, 'orchard-track')).toEqual(
    expect.arrayContaining(['power.passive-volts-wrong', 'power.source-not-offered']),
  );
});

test('a router does not feed over the cable; a supply of 24 V burns a camera of 12 V, however long the run', () => {
  const router = {
    id: 'r',
    name: 'Hall router',
    position: null,
    kind: 'router',
    price: null,
    uploadMbps: null,
  } as const;
  const routed = apply(
    mill,
    { kind: 'putGear', gear: router },
    { kind: 'putLink', link: { ...linkOf(mill, 'sluice-cable'), from: 'gear:r' } },
  );
  expect(rulesOf(routed, 'sluice-rail')).toContain('power.gear-supplies-nothing');
  const supply = mill.gear.find(({ id }) => id === 'stair-supply');
  if (supply?.kind !== 'supply') throw new Error('no supply');
  const high = apply(mill, { kind: 'putGear', gear: { ...supply, volts: 24 } });
  expect(rulesOf(high, 'linen-stair')).toContain('power.supply-volts-high');
});

test('a supply or an injector below what a camera needs is told by its voltage, and no wire is blamed', () => {
  const supply = mill.gear.find(({ id }) => id === 'stair-supply');
  if (supply?.kind !== 'supply') throw new Error('no supply');
  const low = apply(mill, { kind: 'putGear', gear: { ...supply, volts: 9 } });
  expect(rulesOf(low, 'linen-stair')).toEqual(['power.supply-volts-low']);
  const injector = {
    id: 'inj',
    name: 'Old injector',
    position: null,
    kind: 'injector',
    price: null,
    isPassive: true,
  } as const;
  const passive = apply(
    mill,
    { kind: 'putGear', gear: { ...injector, volts: 18, watts: 24 } },
    { kind: 'putLink', link: { ...linkOf(mill, 'sluice-cable'), from: 'gear:inj' } },
    { kind: 'setFeed', cameraId: 'sluice-rail', feed: { way: 'passive', sun: null, charge: null } },
  );
  // Its head takes 21 to 28 V.
  expect(rulesOf(passive, 'sluice-rail')).toContain('power.passive-volts-wrong');
  expect(rulesOf(passive, 'sluice-rail')).not.toContain('power.run');
});

test('an access point that hangs on a switch takes of its budget and of its ports', () => {
  const gear = (id: string) => mill.gear.find((one) => one.id === id);
  const [loft, hall] = [gear('loft-switch'), gear('hall-ap')];
  if (loft?.kind !== 'switch' || hall?.kind !== 'access-point') throw new Error('no gear');
  const { fed, budget } = judgeOf(mill).budgetOf(loft);
  expect(fed.map(({ name }) => name)).toEqual(['Sluice rail', 'Hall radio']);
  expect(budget.totalW).toBeCloseTo(30 + 15.4, 9); // class 4 and class 3
  const mains = apply(mill, { kind: 'putGear', gear: { ...hall, poeClass: null } });
  expect(judgeOf(mains).budgetOf(loft).budget.totalW).toBe(30);
});

test('access points on one channel share its air; a hop between them counts once', () => {
  const onChannel = (channel: number | null): Site => {
    const oven = mill.gear.find(({ id }) => id === 'bakehouse-ap');
    if (oven?.kind !== 'access-point') throw new Error('no access point');
    return apply(mill, { kind: 'putGear', gear: { ...oven, channel } });
  };
  const airOf = (site: Site, id: string): number => judgeOf(site).links.airtimeOf(`gear:${id}`);
  const [hall, oven] = ['hall-ap', 'bakehouse-ap'].map((id) => airOf(mill, id));
  const shared = onChannel(6);
  expect(airOf(shared, 'hall-ap')).toBeCloseTo((hall ?? 0) + (oven ?? 0), 9);
  expect(airOf(shared, 'bakehouse-ap')).toBeCloseTo(airOf(shared, 'hall-ap'), 9);
  expect(judgeOf(shared).judge(cameraOf(shared, 'boot-room')).facts.airtimeSharers).toContain('Bread oven');
  expect(airOf(onChannel(null), 'hall-ap')).toBe(hall);
  const hop = apply(shared, {
    kind: 'putLink',
    link: { ...linkOf(shared, 'boot-air'), id: 'hop', from: 'gear:hall-ap', to: 'gear:bakehouse-ap' },
  });
  expect(
    judgeOf(hop)
      .links.airOf('gear:hall-ap')
      .filter(({ link }) => link.id === 'hop'),
  ).toHaveLength(1);
});

test('what the need asks for and no tap draws yet counts beside what is tapped', () => {
  const usesOf = (site: Site): readonly string[] =>
    judgeOf(site)
      .links.drawsFrom('landing-stage')
      .map(({ destinationId, use }) => `${destinationId} ${use}`)
      .sort();
  expect(usesOf(mill)).toEqual(['loft-store record', 'mill-hub live']);
  const schedule = { mode: 'continuous' } as const;
  const tap = { id: 't', cameraId: 'landing-stage', streamId: 'x', protocol: 'rtsp', schedule } as const;
  const tapped = { ...mill, taps: [...mill.taps, { ...tap, destinationId: 'loft-store', use: 'record' as const }] };
  expect(usesOf(tapped)).toEqual(['loft-store record', 'mill-hub live']);
});

test('a camera that takes a seat for each lens is drawn once for each', () => {
  const rateOf = (seats: number): number => {
    const models = mill.models.map((model) => (model.id === 'ostrel-twin-8' ? { ...model, seats } : model));
    return judgeOf({ ...mill, models }).links.drawsFrom('landing-stage')[0]?.mbps ?? 0;
  };
  expect(rateOf(2)).toBeCloseTo(2 * rateOf(1), 9);
});

test('a link with a rate that nobody knows is not known, unless what is known is already too much', () => {
  const trunk = mill.links.find(({ from, to }) => from === 'gear:loft-switch' && to === 'gear:wheel-switch');
  if (!trunk) throw new Error('no trunk');
  const verdictOf = (capacityMbps: number) => {
    const site = apply(mill, { kind: 'putLink', link: { ...trunk, capacityMbps } });
    return judgeOf(site).links.load(linkOf(site, trunk.id));
  };
  expect(verdictOf(100)).toMatchObject({ verdict: 'unknown', unknown: expect.any(Number) });
  expect(verdictOf(1)).toMatchObject({ verdict: 'will-not-work' });
});

test('removing gear takes its links along; an unknown end of a link is refused', () => {
  const without = apply(mill, { kind: 'removeGear', gearId: 'wheel-switch' });
  expect(without.links.filter(({ from, to }) => [from, to].includes('gear:wheel-switch'))).toEqual([]);
  expect(() =>
    apply(mill, { kind: 'putLink', link: { ...linkOf(mill, 'orchard-cable'), from: 'gear:nothing' } }),
  ).toThrow(RangeError);
});
