import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  airCard,
  apOf,
  byPair,
  byPassive,
  bySun,
  FEED,
  JOINED,
  linkOf,
  onAir,
  onPair,
  passiveOf,
  SPARE,
  siteOf,
  solarCard,
  standing,
  stationOf,
  supplyOf,
  switchOf,
} from '../../../../tests/support/planned-sites.ts';
import { runs } from '../../../../tests/support/runs.ts';
import { camera, unplanned } from '../../../../tests/support/sites.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Site } from '../../document/site.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { mendsOf } from '../../lanes/mends.ts';
import { sharesAir, wallsBetween } from '../../radio/radio.ts';
import { viewOf } from '../../site/site-view.ts';
import { powerJudgeOf } from './index.ts';

const SILENT = { poeClass: null, dayW: null, nightW: null, standbyW: null } as const;
const power = (site: Site, id = 'c') => stationOf(site, 'power', id);
const judgeOf = (site: Site) => powerJudgeOf(viewOf(site, indexEvidence(site.journal)));

/** Cameras `c`, `c1`, `c2` … of one model, each on its own cable of the first gear. */
function many(count: number, site: Site): Site {
  const [first] = site.cameras;
  if (!first) throw new Error('a camera');
  const more = Array.from({ length: count - 1 }, (_, at) => `c${at + 1}`);
  return {
    ...site,
    cameras: [first, ...more.map((id) => ({ ...camera(id), modelId: first.modelId, feed: first.feed }))],
    links: [...site.links, ...more.map((id) => ({ ...FEED, id: `feed-${id}`, to: `camera:${id}` }))],
  };
}

describe('what is not known is never shown as fine, and the lane says what to enter', () => {
  test.each([
    {
      why: 'eight cameras without watts on 40 W',
      site: many(8, siteOf({ power: SILENT, gear: [switchOf('a', { budgetW: 40 })] })),
    },
    {
      why: 'class 4 without watts on a switch of type 1',
      site: siteOf({ power: { ...SILENT, poeClass: 4 }, gear: [switchOf('a', { pseType: 1 })] }),
    },
    {
      why: '600 m of 0.2 mm² without watts',
      site: siteOf({
        power: SILENT,
        camera: byPair,
        gear: [switchOf('a'), supplyOf('s', 12)],
        links: onPair('gear:s', { lengthM: 600, areaMm2: 0.2 }),
      }),
    },
    {
      why: 'the watts of its night',
      site: siteOf({ power: { ...SILENT, dayW: 4 }, gear: [switchOf('a')] }),
    },
    {
      why: 'radio without signal or place',
      site: siteOf({
        camera: { ...standing, position: null },
        power: airCard,
        gear: [switchOf('a'), { ...apOf('far', '2.4', 4), position: null }],
        links: onAir('far').filter(({ id }) => id !== 'up2'),
      }),
    },
    {
      why: 'sun with nothing entered',
      site: siteOf({ camera: { feed: { way: 'solar', sun: null, charge: null } }, power: solarCard, latitudeDeg: 45 }),
    },
    {
      why: 'what it takes waiting',
      site: siteOf({ camera: bySun({ panelWp: 60 }), power: { ...solarCard, standbyW: null }, latitudeDeg: 45 }),
    },
    {
      why: 'a passive feed into an unknown range',
      site: siteOf({ camera: byPassive, power: { maxVolts: null }, gear: [passiveOf('a', 48)] }),
    },
  ])('$why', ({ site }) => {
    const found = power(site);
    expect(found.verdict).toBe('unknown');
    expect(`${found.next} ${found.findings.map(({ title }) => title)}`).toMatch(/Enter |not known/);
  });

  test('what is asked for is what is missing: the model first, then its panel, and watts only where they are not known', () => {
    const toSun = { way: 'solar', sun: null, charge: null } as const;
    const missing = (site: Site) => power(site).findings.find(({ rule }) => rule === 'power.not-known')?.because;
    const bare = siteOf({ camera: { feed: toSun, modelId: null }, latitudeDeg: 45 });
    expect(missing(bare)).toBe('Missing: its model card, at Choose; its solar panel and its battery.');
    expect(missing(siteOf({ camera: { feed: toSun }, power: solarCard, latitudeDeg: 45 }))).toBe(
      'Missing: its solar panel and its battery.',
    );
    const entered = siteOf({ camera: { ...bySun({ panelWp: 60 }), modelId: null }, latitudeDeg: 45 });
    expect(missing(entered)).toBe('Missing: its model card, at Choose.');
  });

  test('with all of it entered, the same places fit', () => {
    expect(power(many(8, siteOf({ gear: [switchOf('a', { budgetW: 140, poePorts: 8 })] }))).verdict).toBe('ok');
    expect(power(siteOf({ camera: bySun({ panelWp: 60 }), power: solarCard, latitudeDeg: 45 })).verdict).toBe('ok');
  });

  test('one camera without a model leaves the budget of its switch open, and asks nothing of its neighbour', () => {
    const site = many(2, siteOf());
    const bare = { ...site, cameras: site.cameras.map((one) => (one.id === 'c1' ? { ...one, modelId: null } : one)) };
    expect(power(bare)).toMatchObject({ verdict: 'unknown', isDone: true });
    expect(judgeOf(bare).budgetOf(switchOf('a') as Extract<Gear, { kind: 'switch' }>).budget.verdict).toBe('unknown');
  });
});

describe('injectors', () => {
  const injector = (watts: number): Gear => ({ ...passiveOf('a', 48), isPassive: false, watts }) as Gear;
  test('three cameras of 20 W on 30 W are too many; one is not', () => {
    const site = siteOf({ power: { poeClass: 4, dayW: 20, nightW: 20 }, gear: [injector(30)] });
    expect(power(many(3, site)).rules).toContain('power.switch-budget');
    expect(power(site).rules).not.toContain('power.switch-budget');
  });
  test('a passive one of 12 W does not feed 20 W', () => {
    const twelve = { ...passiveOf('a', 24), watts: 12 } as Gear;
    const site = siteOf({ camera: byPassive, power: { dayW: 20, nightW: 20 }, gear: [twelve] });
    expect(power(site).rules).toContain('power.switch-budget');
  });
});

describe('powerline', () => {
  const plug = (id: string, syncMbps: number): Gear => ({
    id,
    name: id,
    kind: 'powerline',
    price: null,
    position: null,
    syncMbps,
  });
  const over = (syncs: readonly number[], mbps: number) => {
    const [main = 0, ...ends] = syncs;
    const links = ends.map((_, at) => linkOf(`mains-${at}`, 'gear:p', `gear:p${at}`, { medium: 'powerline' }));
    const site = siteOf({
      gear: [switchOf('a'), plug('p', main), ...ends.map((sync, at) => plug(`p${at}`, sync))],
      links: [
        ...JOINED,
        linkOf('up', 'gear:a', 'gear:p'),
        ...links,
        ...ends.map((_, at) => linkOf(`cable-${at}`, `gear:p${at}`, `camera:${at === 0 ? 'c' : `c${at}`}`)),
      ],
      camera: { need: null, streams: [] },
    });
    const cameras = ends.map((_, at) => ({ ...camera(at === 0 ? 'c' : `c${at}`), need: null }));
    const rated = cameras.flatMap(({ id }) => [{ id, modelId: null, destinationId: 'hub', mbps }]);
    return { site: { ...site, cameras }, links, rated };
  };

  test('three links of one plug share its time: each is as full as all together', () => {
    const { site, links } = over([200, 200, 200, 200], 0);
    const model: Model = { ...SPARE, id: 'm', subs: [], codecs: ['JPEG'], fps: 8 };
    const drawn: Site = {
      ...site,
      models: [model],
      cameras: site.cameras.map((one) => ({
        ...unplanned(one),
        modelId: 'm',
        need: {
          ...(siteOf().cameras[0]?.need as NonNullable<Site['cameras'][number]['need']>),
          draws: [{ destinationId: 'hub', use: 'record' as const }],
        },
      })),
    };
    const judge = judgeOf(drawn);
    const loads = links.map((link) => judge.links.load(link));
    const sum = loads.reduce((all, { mbps }) => all + mbps, 0);
    expect(sum).toBeGreaterThan(80);
    for (const { share, verdict, mediumMbps, capacityMbps } of loads) {
      expect(capacityMbps).toBeCloseTo(80, 9);
      expect(share).toBeCloseTo(sum / 80, 9);
      expect(mediumMbps).toBeCloseTo(sum, 9);
      expect(verdict).toBe('will-not-work');
    }
  });

  test('without plugs nobody knows what it carries, and the camera behind it is told', () => {
    const joined = [linkOf('mains', 'gear:a', 'camera:c', { medium: 'powerline' }), ...JOINED];
    const site = siteOf({ camera: standing, power: airCard, links: joined });
    const found = power(site);
    expect(found.verdict).toBe('unknown');
    expect(found.findings.map(({ title }) => title)).toContain('Load of Switch a to c not known');
  });

  test('a link is as fast as its slower end', () => {
    const { site, links } = over([500, 60], 0);
    expect(links[0] && judgeOf(site).links.load(links[0]).capacityMbps).toBeCloseTo(24, 9);
  });
});

describe('what hangs beside it', () => {
  test('an access point of class 4 on a switch of type 1 gets no power, and the cameras on both are told', () => {
    const site = siteOf({
      camera: standing,
      power: airCard,
      gear: [switchOf('a', { pseType: 1 }), { ...apOf('far', '2.4', 4), poeClass: 4 } as Gear, apOf('near', '2.4', 3)],
      links: onAir('far'),
    });
    expect(power(site).rules).toContain('power.gear-unfed');
    const fed = siteOf({
      gear: [switchOf('a', { pseType: 1 }), { ...apOf('far', '2.4', 4), poeClass: 4 } as Gear],
      links: [FEED, ...JOINED, linkOf('up', 'gear:a', 'gear:far')],
    });
    expect(power(fed).findings).toMatchObject([{ rule: 'power.gear-unfed', severity: 'stop' }]);
    const larger = {
      ...fed,
      gear: fed.gear.map((one) => (one.kind === 'switch' ? { ...one, pseType: 2 as const } : one)),
    };
    expect(power(larger).rules).not.toContain('power.gear-unfed');
  });

  test('a camera is not offered a switch whose type grants it a class that finds no room there', () => {
    const site = siteOf({
      power: { poeClass: 4, dayW: 9, nightW: 9 },
      gear: [switchOf('a', { pseType: 1, budgetW: 12 }), switchOf('b', { budgetW: 20 })],
      links: [FEED, ...JOINED, linkOf('ab', 'gear:a', 'gear:b')],
    });
    const offers = (of: Site) =>
      mendsOf(of, indexEvidence(of.journal), 'c', 'power.switch-budget').map(({ text }) => text);
    expect(power(site).rules).toContain('power.switch-budget');
    expect(offers(site)).toEqual([]); // class 3 would leave 4.6 W; it is granted class 4 there, and 30 W
    const larger = { ...site, gear: [...site.gear.slice(0, 1), switchOf('b', { budgetW: 40 })] };
    expect(offers(larger)).toEqual(['Move it to Switch b: 10.0 W stay free']);
  });

  test('nine cables on five ports', () => {
    const site = many(7, siteOf({ gear: [switchOf('a', { ports: 5, poePorts: 5, budgetW: 300 })] }));
    expect(power(site).findings.map(({ title }) => title)).toContain('Switch a: 5 ports');
    expect(power(many(3, siteOf({ gear: [switchOf('a', { ports: 5 })] }))).rules).not.toContain('link.switch-ports');
  });

  test('a card whose class gives less than its own watts contradicts itself, whatever switch it hangs on', () => {
    const { rules } = power(siteOf({ power: { poeClass: 2, dayW: 9, nightW: 9 } }));
    expect(rules).toContain('power.class-contradicts-watts');
    expect(rules).not.toContain('power.class-above-switch');
  });
});

test.each([
  { a: 6, b: 7, band: '2.4', radio: 'n20', is: true },
  { a: 1, b: 6, band: '2.4', radio: 'n20', is: false },
  { a: 36, b: 40, band: '5', radio: 'ac80', is: true },
  { a: 48, b: 52, band: '5', radio: 'ax80', is: false },
  { a: 149, b: 161, band: '5', radio: 'ac80', is: true },
  { a: 6, b: null, band: '2.4', radio: 'n20', is: false },
] as const)('channels $a and $b of $band GHz share air: $is', ({ a, b, band, radio, is }) => {
  expect(sharesAir({ band, radio, channel: a }, { band, radio, channel: b })).toBe(is);
});

test('a channel that nobody looked at may be the busy one beside it: not known, unless even that fits', () => {
  const busy = (channel: number | null, other: Partial<Gear> = {}) => {
    const site = siteOf({
      camera: standing,
      power: airCard,
      gear: [
        switchOf('a'),
        { ...apOf('far', '2.4', 4), channel } as Gear,
        { ...apOf('near', '2.4', 3), ...other } as Gear,
      ],
      links: [...onAir('far'), linkOf('air-d', 'gear:near', 'camera:d', { medium: 'wifi', lengthM: 0 })],
    });
    const beside = {
      ...unplanned(camera('d')),
      modelId: 'chosen',
      position: { xM: 1, yM: 3 },
      need: site.cameras[0]?.need ?? null,
    };
    const loud: Model = { ...SPARE, id: 'chosen', subs: [], codecs: ['JPEG'], fps: 4 };
    return judgeOf({ ...site, models: [loud], cameras: [...site.cameras, beside] }).links.airVerdictOf('gear:far');
  };
  const apart = busy(1);
  expect(['ok', 'tight']).toContain(apart);
  expect(busy(null)).toBe('unknown');
  expect(busy(null, { band: '5', radio: 'ac80' })).toBe(apart);
});

test('at 2.4 GHz channels share air just where their 20 MHz overlap', () => {
  const channel = fc.integer({ min: 1, max: 13 });
  fc.assert(
    fc.property(channel, channel, (a, b) => {
      // Middle of channel n: 2407 + 5·n MHz; each occupies ten to both sides, and 22 with its skirts: 25 apart is clear.
      const overlap = Math.abs(2407 + 5 * a - (2407 + 5 * b)) < 22;
      expect(sharesAir({ band: '2.4', radio: 'g', channel: a }, { band: '2.4', radio: 'n20', channel: b })).toBe(
        overlap,
      );
    }),
  );
});

test('airtime of a channel is what its links take one after the other', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -90, max: -30 }), { minLength: 1, maxLength: 5 }), (signals) => {
      // 802.11n, 20 MHz: a second of air carries 72.2 or, at the edge, 14.4 Mbit/s, half of it payload.
      const seconds = signals.map((dBm) => 0.178 / ((dBm < -67 ? 14.4 : 72.2) * 0.5));
      const air = judgeOnAir(signals).airtimeOf('gear:far');
      expect(air / seconds.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 1);
    }),
    runs(30),
  );
});

/** Cameras with a small stream each, heard at these strengths by one access point. */
function judgeOnAir(signals: readonly number[]) {
  const site = siteOf({
    camera: standing,
    power: airCard,
    gear: [switchOf('a'), apOf('far', '2.4', 4)],
    links: [...JOINED, linkOf('up', 'gear:a', 'gear:far')],
  });
  const [first] = site.cameras;
  if (!first) throw new Error('a camera');
  const ids = signals.map((_, at) => `w${at}`);
  const cameras = ids.map((id) => ({ ...unplanned(camera(id)), modelId: first.modelId, need: first.need }));
  const links = ids.map((id) => linkOf(`air-${id}`, 'gear:far', `camera:${id}`, { medium: 'wifi', lengthM: 0 }));
  const journal = ids.map((id, at) => ({
    id: `read-${id}`,
    at: '2026-11-25T09:00:00.000Z',
    kind: 'power' as const,
    subject: `camera:${id}`,
    text: 'Signal read',
    refs: [],
    source: 'person',
    facts: [
      {
        subject: `air:gear:far:camera:${id}`,
        quantity: 'signalDbm' as const,
        value: signals[at] ?? 0,
        how: 'measured' as const,
      },
    ],
    revokes: [],
    isPast: false,
  }));
  return judgeOf({ ...site, cameras, links: [...site.links, ...links], journal } as unknown as Site).links;
}

test('a wall drawn in two pieces is gone through once at its joint; two walls behind each other are two', () => {
  const wall = (id: string, x1: number, y1: number, x2: number, y2: number) => ({
    id,
    name: '',
    from: { xM: x1, yM: y1 },
    to: { xM: x2, yM: y2 },
    material: 'stone' as const,
  });
  const [from, to] = [
    { xM: 0, yM: 0 },
    { xM: 10, yM: 0 },
  ];
  expect(wallsBetween([wall('a', 5, -5, 5, 0), wall('b', 5, 0, 5, 5)], from, to)).toHaveLength(1);
  expect(wallsBetween([wall('a', 5, -5, 5, 5), wall('b', 6, -5, 6, 5)], from, to)).toHaveLength(2);
  expect(wallsBetween([wall('a', 5, -5, 5, 1), wall('b', 5, -1, 5, 5)], from, to)).toHaveLength(2);
});
