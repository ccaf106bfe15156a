import { expect, test } from '@jest/globals';
import { apply, stamps } from '../../../tests/support/sites.ts';
import { alderMill } from '../../standins/alder-mill.ts';
import { ASSUMPTIONS, assumed } from '../assumptions/assumptions.ts';
import { knownAs } from '../evidence/best-known.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { planSvg } from '../handover/plan-svg.ts';
import { createLaneReckoner, lanesOf } from '../lanes/lane.ts';
import { viewWedge } from '../optics/view-wedge.ts';
import { sunMends } from '../power/sun-mends.ts';
import { viewOf } from '../site/site-view.ts';
import { wedgeInputsOf } from '../site/wedges.ts';
import { PowerJudge } from '../stations/power/power-judgement.ts';
import { BENCH_ITEMS, benchItemsFor } from './chapters/journal/bench-items.ts';
import { NO_EDITS, noteEdit, undoEdit } from './edit-history.ts';
import { planOf, type Site } from './site.ts';
import type { SiteCommand } from './site-commands.ts';
import { applyCommand } from './site-commands.ts';
import { readSite, readSiteFile, writeSiteFile } from './site-file.ts';

const mill = alderMill('2026-11-25T09:00:00.000Z');
const laneOf = (site: Site, id: string) =>
  lanesOf(site, indexEvidence(site.journal)).find(({ cameraId }) => cameraId === id);
const [need, feed] = [mill.cameras[0]?.need ?? null, mill.cameras[0]?.feed ?? null];
const picture = {
  name: 'plan.png',
  dataUrl: 'data:image/jpeg;base64,AAAA',
  widthPx: 800,
  heightPx: 520,
  metresPerPx: 0.05,
  isScaled: false,
};

const COMMANDS: readonly SiteCommand[] = [
  { kind: 'setNeed', cameraId: 'linen-stair', need },
  { kind: 'setMounting', cameraId: 'linen-stair', mounting: { heightM: 2, tiltDownDeg: 5, headingDeg: 0, zoom: null } },
  { kind: 'setCandidates', cameraId: 'linen-stair', candidates: ['pellam-b4', 'marrick-c1'] },
  { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4-z' },
  { kind: 'setFeed', cameraId: 'linen-stair', feed },
  { kind: 'removeGear', gearId: 'wheel-switch' },
  { kind: 'removeLink', linkId: 'bee-air' },
  { kind: 'place', subject: 'destination:mill-hub', position: { xM: 3, yM: 4 } },
  { kind: 'place', subject: 'camera:boot-room', position: null },
  { kind: 'setPlan', plan: { ...mill.plan, walls: [], picture }, what: 'all walls taken away' },
  { kind: 'setSky', sky: { ...mill.sky, latitudeDeg: -35 } },
  { kind: 'setAssumption', id: 'power.performance', said: 'power.performance', value: 0.8 },
  { kind: 'setCosting', costing: { ...mill.costing, years: 8 }, what: 'years changed' },
];

test.each(COMMANDS)('$kind changes the site, tells it in the log, fits the file and can be taken back', (command) => {
  const after = applyCommand(mill, command, stamps());
  expect(after).not.toEqual(mill);
  expect(after.journal).toHaveLength(mill.journal.length + 1);
  expect(after.journal.at(-1)?.text.length).toBeGreaterThan(5);
  expect(readSiteFile(writeSiteFile(after))).toEqual({ ok: true, value: after });
  const undone = undoEdit(after, noteEdit(NO_EDITS, command, mill, after), stamps());
  expect(planOf(undone.site)).toEqual(planOf(mill));
});

test.each([
  { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'none' },
  { kind: 'setNeed', cameraId: 'nobody', need },
  { kind: 'removeLink', linkId: 'none' },
  { kind: 'scalePlan', factor: 2 }, // there is no picture to be scaled
] as const)('$kind about something that is not there is a mistake of the caller', (command) => {
  expect(() => applyCommand(mill, command, stamps())).toThrow(RangeError);
});

test('a cable that is drawn goes along with what it ends at; all other links stay the same objects', () => {
  const moved = apply(mill, { kind: 'place', subject: 'camera:sluice-rail', position: { xM: 10, yM: 14 } });
  const [before, after] = [mill, moved].map((site) => site.links.find(({ id }) => id === 'sluice-cable'));
  expect(after?.route?.at(-1)).toEqual({ xM: 10, yM: 14 });
  expect(after?.route?.slice(0, -1)).toEqual(before?.route?.slice(0, -1));
  const others = moved.links.filter(({ id }) => id !== 'sluice-cable');
  expect(others.every((link) => mill.links.includes(link))).toBe(true);
});

test('when the scale is set, all that was placed keeps its place in the picture', () => {
  const drawn = apply(mill, { kind: 'setPlan', plan: { ...mill.plan, picture }, what: 'picture' });
  const scaled = apply(drawn, { kind: 'scalePlan', factor: 0.5 });
  expect(scaled.plan).toMatchObject({ widthM: 20, heightM: 13, picture: { metresPerPx: 0.025, isScaled: true } });
  const [before, after] = [mill, scaled].map((site) => site.cameras.find(({ id }) => id === 'orchard-track')?.position);
  expect(after).toEqual({ xM: (before?.xM ?? 0) / 2, yM: (before?.yM ?? 0) / 2 });
  expect(scaled.links.find(({ id }) => id === 'sluice-cable')?.route?.[0]).toEqual({ xM: 12.5, yM: 5.25 });
});

test.each([
  { why: 'two points a hair apart, and a kilometre between them', factor: 20_000 },
  { why: 'a house as large as a town', factor: 130 },
  { why: 'a house as small as a hand', factor: 0.01 },
])('a scale that leaves no sheet is refused: $why', ({ factor }) => {
  const drawn = apply(mill, { kind: 'setPlan', plan: { ...mill.plan, picture }, what: 'picture' });
  expect(() => applyCommand(drawn, { kind: 'scalePlan', factor }, stamps())).toThrow(RangeError);
});

test.each([-66, -40, 0, 51.5, 60, 65, 66, 70, 89])(
  'every mend that is offered at %d° can be kept and read again',
  (latitudeDeg) => {
    const setSky = { kind: 'setSky', sky: { ...mill.sky, latitudeDeg } } as const;
    const there = apply(mill, setSky);
    const camera = there.cameras.find(({ id }) => id === 'bee-stand');
    if (!camera?.feed) throw new Error('no feed');
    const index = indexEvidence(there.journal);
    const { sunInput } = new PowerJudge(viewOf(there, index)).judge(camera);
    if (!sunInput) throw new Error('no sun');
    const offered = sunMends({ ...sunInput, drawnHoursPerDay: 24 }, false);
    expect(offered.length).toBeGreaterThan(0);
    for (const { sun } of offered) {
      const mended = apply(mill, setSky, { kind: 'setFeed', cameraId: camera.id, feed: { ...camera.feed, sun } });
      const read = readSiteFile(writeSiteFile(mended));
      expect(read.ok ? null : read.error.message).toBeNull();
    }
  },
);

test.each([
  { why: 'a latitude of 95°', change: { sky: { ...mill.sky, latitudeDeg: 95 } }, says: /latitudeDeg/ },
  { why: 'eleven months', change: { sky: { ...mill.sky, clearness: [0.5] } }, says: /clearness/ },
  {
    why: 'a picture that is a page',
    change: { plan: { ...mill.plan, picture: { ...picture, dataUrl: 'data:text/html;base64,AAAA' } } },
    says: /dataUrl/,
  },
  {
    why: 'gear of a kind nobody knows',
    change: { gear: [{ id: 'x', kind: 'oven', name: 'x', position: null }] },
    says: /gear\[0\]/,
  },
  { why: 'a link of negative length', change: { links: [{ ...mill.links[0], lengthM: -1 }] }, says: /lengthM/ },
  { why: 'an assumption that is no number', change: { assumptions: { 'link.ok': 'half' } }, says: /assumptions/ },
  { why: 'a link to nothing', change: { links: [{ ...mill.links[0], to: 'camera:gone' }] }, says: /camera:gone/ },
  {
    why: 'a candidate nobody wrote a card of',
    change: { cameras: [{ ...mill.cameras[0], candidates: ['gone'] }] },
    says: /candidates/,
  },
])('a site is refused with its reason: $why', ({ change, says }) => {
  const read = readSite({ ...mill, ...change });
  expect(read.ok ? '' : read.error.message).toMatch(says);
});

test('Alder Mill: every verdict occurs at Choose and Power, and each lane has its next step', () => {
  const lanes = lanesOf(mill, indexEvidence([]));
  const seen = new Set(lanes.flatMap(({ stations }) => stations.slice(0, 2).map(({ verdict }) => verdict)));
  expect([...seen].sort()).toEqual(['ok', 'tight', 'unknown', 'will-not-work']);
  expect(lanes.map(({ cameraId, standsAt }) => [cameraId, standsAt])).toEqual([
    ['sluice-rail', 'tap'],
    ['boot-room', 'tap'],
    ['linen-stair', 'tap'],
    ['orchard-track', 'choose'],
    ['landing-stage', 'prepare'],
    ['bee-stand', 'power'],
    ['bread-oven', 'prepare'],
  ]);
});

test('lanes that an edit does not touch are kept, those on the same switch are judged anew', () => {
  const reckon = createLaneReckoner();
  const index = indexEvidence([]);
  const before = reckon(mill, index);
  const after = reckon(apply(mill, { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4-z' }), index);
  const changed = before.filter((lane, at) => lane !== after[at]).map(({ cameraId }) => cameraId);
  expect(changed).toEqual(expect.arrayContaining(['orchard-track', 'landing-stage']));
  expect(changed).not.toContain('linen-stair');
  expect(after.find(({ cameraId }) => cameraId === 'landing-stage')?.next).toBe('Fix its power and links');
});

test('an assumption that is changed counts at once, and back again', () => {
  const bright = apply(mill, { kind: 'setAssumption', id: 'optics.dark-ground', said: 'optics.dark-ground', value: 1 });
  const cheap = (site: Site) =>
    laneOf(apply(site, { kind: 'chooseModel', cameraId: 'orchard-track', modelId: 'pellam-b4' }), 'orchard-track');
  const rules = (site: Site) => cheap(site)?.findings.map(({ rule }) => rule);
  expect(rules(mill)).toContain('choose.light');
  expect(rules(bright)).not.toContain('choose.light');
  expect(
    apply(bright, { kind: 'setAssumption', id: 'optics.dark-ground', said: 'optics.dark-ground', value: null })
      .assumptions,
  ).toEqual({});
  for (const { id, value, min, max } of ASSUMPTIONS) {
    expect(assumed({}, id)).toBe(value);
    expect(value >= min && value <= max).toBe(true);
  }
});

test('the bench test records what was seen, by whom and when', () => {
  const [item] = BENCH_ITEMS;
  if (!item) throw new Error('no item');
  const site = apply(mill, {
    kind: 'recordBenchTest',
    cameraId: 'bee-stand',
    item,
    seen: '38 Wh, full',
    by: 'at the bench',
  });
  expect(knownAs(indexEvidence(site.journal), 'camera:bee-stand', 'bench.unpacked', 'confirmed')).toMatchObject({
    value: '38 Wh, full',
    source: 'at the bench',
  });
  expect(site.journal.at(-1)).toMatchObject({ kind: 'power', subject: 'camera:bee-stand' });
  expect(benchItemsFor('solar').map(({ id }) => id)).toContain('charged');
  expect(benchItemsFor('poe').map(({ id }) => id)).not.toContain('charged');
});

test('the plan as SVG holds every name, escaped, and every drawn length', () => {
  const sly = { ...mill, gear: mill.gear.map((gear, at) => (at === 0 ? { ...gear, name: '<script>&"' } : gear)) };
  const wedges = new Map(
    sly.cameras.map((camera) => [
      camera.id,
      wedgeInputsOf(sly, camera).flatMap((input) => viewWedge(input, sly.plan.walls)),
    ]),
  );
  const svg = planSvg(sly, wedges);
  expect(svg).not.toContain('<script>');
  for (const { name } of sly.cameras) expect(svg).toContain(`>${name}<`);
  expect(svg).toContain('>24.6 m<');
  expect(svg.match(/<polygon /g)?.length).toBeGreaterThan(6);
  // “Oven charger”, 36 m along a sheet of 40 m: its name would run over the edge, and stands to the left.
  expect(svg).toMatch(/text-anchor="end"[^>]*>Oven charger</);
  expect(svg).not.toMatch(/text-anchor="end"[^>]*>Hall radio</);
});
