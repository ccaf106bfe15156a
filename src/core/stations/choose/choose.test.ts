import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../../tests/support/runs.ts';
import { alderMill } from '../../../standins/alder-mill.ts';
import type { Mounting } from '../../document/chapters/cameras/mounting.ts';
import type { Need } from '../../document/chapters/cameras/need.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { emptyModel } from '../../document/chapters/models/model-fields.ts';
import { type Lens, wholeLenses } from '../../optics/lens.ts';
import { lensView } from '../../optics/lens-view.ts';
import { draw } from '../../optics/projection.ts';
import { judgeIngress } from '../../site/judgements.ts';
import { sayNeed, usualMounting } from '../../site/needs.ts';
import { judgeChoice } from './choice-verdict.ts';
import { chooseFacts } from './choose-facts.ts';
import { weigh } from './criteria.ts';
import { dearerWorthIt } from './dearer.ts';

const site = alderMill('2026-11-25T09:00:00.000Z');
const orchard = site.cameras.find(({ id }) => id === 'orchard-track');
if (!orchard?.need) throw new Error('Orchard track has no need');
const need: Need = orchard.need;
const mounting = orchard.mounting as Mounting;
const cards = orchard.candidates.map((id) => site.models.find((model) => model.id === id) as Model);
const facts = cards.map((card) => chooseFacts(need, card, mounting, site));

test('Orchard track: text and light set the three apart, and only the zoom serves', () => {
  expect(facts.map((one) => judgeChoice(one).verdict)).toEqual(['will-not-work', 'ok', 'will-not-work']);
  const rows = weigh(facts);
  expect(rows.slice(0, 3).map(({ id, decides }) => [id, decides])).toEqual([
    ['choose.detail', true],
    ['choose.text', true],
    ['choose.light', true],
  ]);
  // 2560 px behind 78.0° at 3.2 m high, 13° down: z = 9.5·cos 13° + 1.6·sin 13° = 9.616 m; 2560/(2·9.616·tan 39.0°) = 164.
  expect(rows[0]?.answers.map(({ said }) => said)).toEqual(['164 px/m', '494 px/m', '98 px/m']);
  expect(rows[1]?.answers.map(({ verdict }) => verdict)).toEqual(['will-not-work', 'ok', 'will-not-work']);
  const firstAlike = rows.findIndex(({ decides }) => !decides);
  expect(rows.slice(firstAlike).every(({ decides }) => !decides)).toBe(true);
});

test('a zoom goes in as far as the zone stays in the picture, unless it was set', () => {
  expect(facts[1]?.viewWidthM).toBeGreaterThanOrEqual(need.widthM);
  const wide = chooseFacts(need, cards[1] as Model, { ...mounting, zoom: 1 }, site);
  expect(wide.zoom).toBe(1);
  expect(wide.pxPerM).toBeCloseTo(facts[0]?.pxPerM ?? 0, 6);
});

test('the dearer lens is worth it where only it reads the text, and its price is said', () => {
  expect(dearerWorthIt(facts)).toMatchObject({ kind: 'worth-it', index: 1, title: 'Pellam B4 Z is worth it here' });
  // (146 + 15) − (98 + 15) = 48; 1.5 W × 8.76 × 0.3 × (1 + 1.02 + … + 1.02⁴ = 5.204) = 20.5.
  expect(dearerWorthIt(facts)?.because).toMatch(/28 px against 9 px.*€ 69 more over 5 years/);
});

test('without a text to read the cheaper lens serves, and the dearer one buys only room', () => {
  const plain = [cards[0], cards[1]].map((card) =>
    chooseFacts({ ...need, text: null, atNight: false }, card as Model, mounting, site),
  );
  expect(dearerWorthIt(plain)).toMatchObject({ kind: 'cheapest-serves', index: 0 });
  const atNight = [cards[0], cards[1]].map((card) =>
    chooseFacts({ ...need, text: null }, card as Model, mounting, site),
  );
  expect(dearerWorthIt(atNight)).toMatchObject({ kind: 'buys-nothing', index: 0 });
  expect(dearerWorthIt(plain.slice(0, 1))).toBeNull();
});

test('a price or a card that is not known is said, and never taken for cheap', () => {
  const [plain, zoom] = facts;
  if (!plain || !zoom) throw new Error('two candidates');
  expect(dearerWorthIt([plain, { ...zoom, allInCost: undefined }])).toMatchObject({
    kind: 'not-known',
    index: 1,
    title: expect.stringMatching(/price is not known/),
  });
  const blank = chooseFacts(need, { ...emptyModel('m', 'Nobody', 'Knows'), price: 20 }, mounting, site);
  expect(dearerWorthIt([blank, zoom])).toMatchObject({
    kind: 'not-known',
    title: expect.stringMatching(/too little is known of Nobody Knows/),
  });
});

test('where none serves, it says at what all fail', () => {
  const tiny = facts.map((one) => ({ ...one, textPxPerM: 40 }));
  expect(dearerWorthIt(tiny)).toMatchObject({
    kind: 'none-serves',
    index: null,
    because: 'All fail at: read 60 mm characters.',
  });
});

test('an empty card is judged as not known in everything, never as fine', () => {
  const empty = chooseFacts(
    { ...need, turns: true, sound: 'talk' },
    emptyModel('m', 'Nobody', 'Knows'),
    mounting,
    site,
  );
  for (const { id, answers } of weigh([empty]))
    if (id !== 'choose.account-features-lost') expect([id, answers[0]?.verdict]).toEqual([id, 'unknown']);
  expect(judgeChoice(empty).verdict).toBe('unknown');
});

test('a view wider than the formula is good for is a guess, and says so', () => {
  const card = cards[0] as Model;
  const wide = { ...card, lenses: card.lenses.map((lens) => ({ ...lens, focalWideMm: 2, focalTeleMm: 2 })) };
  const modest: Need = { ...need, level: 'detect', text: null };
  const [row] = weigh([chooseFacts(modest, wide, mounting, site)]).filter(({ id }) => id === 'choose.detail');
  expect(row?.answers[0]?.said).toMatch(/^≈ /);
  expect(judgeChoice(chooseFacts(modest, wide, mounting, site)).verdict).toBe('tight');
  const taped = {
    ...wide,
    lenses: wide.lenses.map((lens) => ({ ...lens, projection: 'equidistant' as const, measuredHfovDeg: 112 })),
  };
  const [known] = weigh([chooseFacts(modest, taped, mounting, site)]).filter(({ id }) => id === 'choose.detail');
  expect(known?.answers[0]).toMatchObject({ said: expect.not.stringMatching(/≈/), verdict: 'ok' });
});

test('what is not asked for is not in the table', () => {
  const modest: Need = { ...need, level: null, text: null, atNight: false, outdoors: false, draws: [] };
  const ids = weigh([chooseFacts(modest, cards[0] as Model, mounting, site)]).map(({ id }) => id);
  for (const question of [
    'detail',
    'text',
    'light',
    'weather',
    'sessions',
    'codec-not-taken',
    'no-sub-stream',
    'no-sound',
    'does-not-turn',
  ])
    expect(ids).not.toContain(`choose.${question}`);
});

test('a recorder wants the main stream, a viewer takes the small one', () => {
  const card = cards[0] as Model; // main H.265, sub H.264
  const drawn = (draws: Need['draws']) => chooseFacts({ ...need, draws }, card, mounting, site).missedBy;
  expect(drawn([{ destinationId: 'kitchen-tablet', use: 'live' }])).toEqual([]);
  expect(drawn([{ destinationId: 'kitchen-tablet', use: 'record' }])).toEqual([
    { name: 'Kitchen tablet', takes: ['H264'] },
  ]);
});

test('a zoom that nobody set keeps both ends and the near edge of the zone', () => {
  const zoom = cards[1] as Model;
  const near = { ...need, widthM: 1, nearM: 4.5 };
  const chosen = chooseFacts(near, zoom, mounting, site);
  const wide = chooseFacts(near, zoom, { ...mounting, zoom: 1 }, site);
  expect(wide.seenFromM).toBeLessThanOrEqual(4.5);
  expect(chosen.seenFromM).toBeLessThanOrEqual(4.5 * (1 + 1e-6));
  expect(chosen.zoom).toBeGreaterThan(1);
  const longer = chooseFacts(near, zoom, { ...mounting, zoom: (chosen.zoom ?? 1) + 0.05 }, site);
  expect(longer.seenFromM).toBeGreaterThan(4.5);
});

test('light is judged along the ray: 7 m do not reach down a slant of 8.8 m', () => {
  const card = { ...(cards[0] as Model), light: { kind: 'infrared' as const, reachM: 14, angleDeg: 120 } };
  const high = chooseFacts({ ...need, distanceM: 6.8 }, card, { ...mounting, heightM: 7.2, tiltDownDeg: 40 }, site);
  expect(high).toMatchObject({ lightReachM: 7, slantM: expect.closeTo(8.8, 1) });
  const row = judgeChoice(high).rows.find(({ rule }) => rule === 'choose.light');
  expect(row?.verdict).toBe('tight'); // 14 m rated
});

test('a light of 95° under two lenses that see 166° together leaves corners dark', () => {
  const twin = site.models.find(({ id }) => id === 'ostrel-twin-8') as Model;
  const card: Model = { ...twin, light: { kind: 'infrared', reachM: 60, angleDeg: 95 } };
  const found = chooseFacts({ ...need, text: null }, card, mounting, site);
  expect(found.spanDeg).toBeCloseTo(166, 0);
  expect(judgeChoice(found).findings.map(({ rule }) => rule)).toContain('choose.light-narrower-than-view');
});

test('a low door station that cuts off the face of who rings is not fine', () => {
  const door: Need = { ...need, level: 'identify', text: null, distanceM: 1.5, widthM: 1, nearM: 0.5, atNight: false };
  const found = chooseFacts(door, cards[0] as Model, { heightM: 1.2, tiltDownDeg: 0, headingDeg: 0, zoom: 1 }, site);
  // Half of its 49° upwards: 0.4 m above it a face enters at 0.4 / tan 24.5°.
  expect(found.faceSeenFromM).toBeCloseTo(0.88, 2);
  expect(judgeChoice(found).rows.find(({ rule }) => rule === 'choose.face-near')?.verdict).toBe('will-not-work');
});

describe('two lenses', () => {
  const lens = (axisDeg: number, focalMm: number): Lens => ({
    label: `at ${axisDeg}`,
    sensorWidthMm: 5.6,
    sensorHeightMm: 3.15,
    focalWideMm: focalMm,
    focalTeleMm: focalMm,
    projection: 'pinhole',
    measuredHfovDeg: null,
    axisDeg,
    widthPx: 2560,
    heightPx: 1440,
  });
  const pair = (lenses: readonly Lens[], panRangeDeg = 0) =>
    chooseFacts(need, { ...(cards[0] as Model), lenses, panRangeDeg }, mounting, site);
  // 2·atan(2.8/4) = 70.0°, 2·atan(2.8/6) = 50.0°, 2·atan(2.8/14) = 22.6°, 2·atan(2.8/2.8) = 90°.

  test('too far apart, they leave a gap, and what stands straight ahead is seen by neither', () => {
    const apart = pair([lens(-40, 4), lens(40, 6)]);
    expect(apart.gapDeg).toBeCloseTo(19.98, 1); // 80 − 35 − 25
    expect(apart.isInView).toBe(false); // the edges of both views lie 5° and 15° beside it
  });

  test('the one that looks straight ahead is judged, be the other as long as it will', () => {
    expect(pair([lens(0, 4), lens(40, 12)])).toMatchObject({ isInView: true, hfovDeg: expect.closeTo(69.98, 1) });
  });

  test('where it stands still, a long lens that sees less than the zone is not what it is judged by', () => {
    // 2·10·tan 11.3° = 4.0 m of the five that are wanted; 90° see them all.
    expect(pair([lens(0, 2.8), lens(0, 14)]).hfovDeg).toBeCloseTo(90, 1);
    expect(pair([lens(0, 2.8), lens(0, 14)], 350).hfovDeg).toBeCloseTo(22.6, 1);
  });

  test('side by side they see what lies between their outer edges, and no more than eighty degrees aside counts', () => {
    const joined = pair([lens(-20, 4), lens(20, 4)]);
    const depthM = (joined.viewWidthM ?? 0) / (2 * Math.tan((54.99 * Math.PI) / 180)); // 20 + 35° to each side
    expect(depthM).toBeCloseTo(9.5 * Math.cos(mounting.tiltDownDeg * (Math.PI / 180)), 0);
    const allRound = pair([lens(-44, 2.8), lens(44, 2.8)]).viewWidthM ?? 0; // 44 + 45 = 89°, counted as 80°
    expect(allRound).toBeCloseTo(2 * depthM * Math.tan((80 * Math.PI) / 180), 0);
  });
});

test.each([
  { code: 67, verdict: 'ok' },
  { code: 65, verdict: 'ok' },
  { code: 54, verdict: 'tight' },
  { code: 55, verdict: 'tight' },
  { code: 44, verdict: 'will-not-work' },
  { code: 45, verdict: 'will-not-work' },
  { code: 53, verdict: 'will-not-work' },
  { code: 20, verdict: 'will-not-work' },
])('IP$code outdoors: $verdict', ({ code, verdict }) => expect(judgeIngress(code)).toBe(verdict));

test('a need in a line; without a mounting it is aimed at the target from three metres', () => {
  expect(sayNeed(need)).toBe('Recognise a person, read 60 mm characters at 9.5 m, 5 m wide, day and night');
  expect(sayNeed({ ...need, level: null, text: null, atNight: false })).toBe('See at 9.5 m, 5 m wide, by day');
  // atan((3 − 1.6) / 9.5) = 8.4°
  expect(usualMounting(need, {})).toEqual({ heightM: 3, tiltDownDeg: 8, headingDeg: 0, zoom: null });
});

test('detail is judged where the zone has least, found by walking along it in small steps', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('pinhole' as const, 'equidistant' as const),
      fc.double({ min: 2, max: 20, noNaN: true }),
      fc.double({ min: 0, max: 12, noNaN: true }),
      fc.double({ min: -20, max: 20, noNaN: true }),
      (projection, distanceM, widthM, axisDeg) => {
        const card = cards[0] as Model;
        const lenses = card.lenses.slice(0, 1).map((one) => ({ ...one, projection, measuredHfovDeg: 100, axisDeg }));
        const asked = { ...need, distanceM, widthM, text: null, level: 'recognise' as const };
        const hung = { ...mounting, zoom: 1 };
        const model = { ...card, lenses, panRangeDeg: 0 };
        const found = chooseFacts(asked, model, hung, site);
        const [lens] = wholeLenses(model);
        if (!lens || found.pxPerM === undefined || !found.isInView) return;
        const view = lensView(lens, 1);
        let least = Number.POSITIVE_INFINITY;
        for (let step = -100; step <= 100; step++) {
          const drawn = draw(
            view,
            { mountHeightM: hung.heightM, tiltDownDeg: hung.tiltDownDeg },
            {
              aheadM: distanceM,
              rightM: (step / 200) * widthM,
              heightM: 1.6,
            },
          );
          if (drawn.isInView) least = Math.min(least, drawn.acrossPxPerM);
        }
        // its rim lies up to half a step of this walk further out
        expect(found.pxPerM / least).toBeGreaterThan(0.97);
        expect(found.pxPerM / least).toBeLessThan(1.02);
        const seesAll = [-1, 1].every(
          (side) =>
            draw(
              view,
              { mountHeightM: hung.heightM, tiltDownDeg: hung.tiltDownDeg },
              { aheadM: distanceM, rightM: (side * widthM) / 2, heightM: 1.6 },
            ).isInView,
        );
        if (seesAll) expect(found.pxPerM / least).toBeLessThan(1.01);
      },
    ),
    runs(200),
  );
});
