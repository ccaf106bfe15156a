import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  FEED,
  JOINED,
  linkOf,
  NEED,
  SPARE,
  siteOf,
  stationOf,
  supplyOf,
  switchOf,
} from '../../../tests/support/planned-sites.ts';
import { runs } from '../../../tests/support/runs.ts';
import { apply, mill, probed, record, report, smallReport, unplanned } from '../../../tests/support/sites.ts';
import type { Need } from '../document/chapters/cameras/need.ts';
import { BENCH_ITEMS } from '../document/chapters/journal/bench-items.ts';
import type { Site } from '../document/site.ts';
import { benchDone } from '../evidence/bench-test.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { wholeLens } from '../optics/lens.ts';
import { lensView } from '../optics/lens-view.ts';
import { draw } from '../optics/projection.ts';
import { drawsOf } from '../site/draws.ts';
import { aimOf, lookHeightM, usualMounting } from '../site/needs.ts';
import { viewOf } from '../site/site-view.ts';
import { chooseFacts } from './choose/choose-facts.ts';
import { judgeTap } from './tap/tap-judgement.ts';

const kbpsOf = (site: Site, use: string): number | null => {
  const index = indexEvidence(site.journal);
  return drawsOf(viewOf(site, index)).find((one) => one.use === use)?.kbps ?? null;
};

test('what a probe measured counts before the card: a large sensor whose camera gives less no longer fits', () => {
  const card = {
    ...SPARE,
    id: 'chosen',
    lenses: SPARE.lenses.map((one) => ({ ...one, widthPx: 2880, heightPx: 1620 })),
  };
  const asked = siteOf({ need: { level: 'recognise' } });
  const site = { ...asked, models: [card], cameras: asked.cameras.map((one) => ({ ...one, candidates: [] })) };
  expect(stationOf(site, 'choose').rules).not.toContain('choose.detail');
  const seen = apply(site, probed('c', report()));
  expect(stationOf(seen, 'choose').findings).toEqual(
    expect.arrayContaining([expect.objectContaining({ rule: 'choose.gives-other-size', severity: 'fix' })]),
  );
  const need = site.cameras[0]?.need as Need;
  const pxPerM = (one: Site, width: number) =>
    chooseFacts(
      need,
      card,
      one.cameras[0]?.mounting ?? null,
      one,
      width === 2880 ? null : { codec: 'H264', widthPx: width, heightPx: 720, fps: null },
    ).pxPerM ?? 0;
  expect(pxPerM(seen, 1280) / pxPerM(site, 2880)).toBeCloseTo(1280 / 2880, 6);
  expect(stationOf(seen, 'choose').rules).toContain('choose.detail');
});

test('a rate that was measured is the one rate of a stream, at Tap and at Power, tapped or not', () => {
  const site = siteOf();
  const seen = apply(
    site,
    probed('c', report({ kbps: 1120 })),
    probed('c', smallReport(), 'rtsp://10.77.4.21/live/sub', 'c-sub'),
  );
  expect([kbpsOf(seen, 'record'), kbpsOf(seen, 'live')]).toEqual([1120, 256]);
  const tapped = apply(seen, record('t', 'c'));
  const [tap] = tapped.taps;
  if (!tap) throw new Error('no tap');
  expect([kbpsOf(tapped, 'record'), judgeTap(tapped, indexEvidence(tapped.journal), tap).rate?.value]).toEqual([
    1120, 1120,
  ]);
  // Of a camera of which nothing is measured or planned, its card says the rate.
  expect(kbpsOf({ ...site, cameras: site.cameras.map(unplanned) }, 'record')).not.toBeNull();
});

test.each([
  { why: 'a network cable from nothing yet, and no link', more: { links: [] } },
  {
    why: 'fed by the mains, drawn, and no link at all',
    more: {
      links: [],
      camera: { feed: { way: 'mains' as const, sun: null, charge: null }, need: NEED },
      power: { ways: ['mains'] as const },
    },
  },
  { why: 'a cable whose length nobody knows', more: { links: [{ ...FEED, lengthM: null }, ...JOINED] } },
])('$why: not known whether it holds, and it is asked for', ({ more }) => {
  const found = stationOf(
    { ...siteOf(more), cameras: siteOf(more).cameras.map((one) => ({ ...one, host: '' })) },
    'power',
  );
  expect(found.verdict).toBe('unknown');
  expect(found.next).toMatch(/^Link it|^Enter/);
});

test('a lead that was just joined is as long as the plan says, and never ten metres by itself', () => {
  const at = (xM: number) => ({ xM, yM: 0 });
  const lead = linkOf('feed', 'gear:s', 'camera:c', { medium: 'usb', lengthM: null });
  const site = (cameraAt: number | null) =>
    siteOf({
      camera: { feed: { way: 'usb', sun: null, charge: null }, position: cameraAt === null ? null : at(cameraAt) },
      power: { ways: ['usb'], minVolts: 4.5, maxVolts: 5.5, dayW: 2, nightW: 3 },
      gear: [switchOf('a'), { ...supplyOf('s', 5), output: 'usb', position: at(0) } as Site['gear'][number]],
      links: [lead, linkOf('data', 'gear:a', 'camera:c'), ...JOINED],
    });
  expect(stationOf(site(null), 'power').rules).not.toContain('power.run');
  expect(stationOf(site(null), 'power').verdict).toBe('unknown');
  expect(stationOf(site(1), 'power').verdict).toBe('ok');
  expect(stationOf(site(30), 'power').rules).toContain('power.run');
});

test('what was done counts where it was done: a sound probe, a sheet that was entered, whatever stands before them', () => {
  const bad = siteOf({ gear: [switchOf('a', { budgetW: 4 })] });
  const entered = apply(bad, probed('c', report()), record('t', 'c'), {
    kind: 'recordHandOver',
    tapId: 't',
    url: 'rtsp://10.77.4.21/live/main',
    by: 'hand',
    refs: [],
  });
  expect(stationOf(entered, 'power').verdict).toBe('will-not-work');
  expect([stationOf(entered, 'tap').verdict, stationOf(entered, 'hand-over').verdict]).toEqual(['ok', 'ok']);
  const alone = apply(mill(), probed('sluice', report()));
  expect(stationOf(alone, 'tap', 'sluice')).toMatchObject({ verdict: 'ok', next: 'Choose where it goes' });
});

test('the bench’s “the stream plays to a probe” is ticked by a probe, and not by one that failed', () => {
  const picture = BENCH_ITEMS.find(({ byProbe }) => byProbe);
  const done = (site: Site) =>
    picture && site.cameras[0] && benchDone(indexEvidence(site.journal), site.cameras[0], picture);
  expect(done(apply(siteOf(), probed('c', report({ cause: 'not-found' }))))).toBeNull();
  expect(done(apply(siteOf(), probed('c', report())))).toMatchObject({ how: 'measured' });
});

test('indoors its light reaches as far as it is rated; outdoors dark ground takes its share', () => {
  const reach = (outdoors: boolean) => chooseFacts({ ...NEED, outdoors }, SPARE, null, siteOf()).lightReachM;
  expect([reach(false), reach(true)]).toEqual([60, 30]);
});

test('the usual aim keeps the target in view, and the near edge too wherever any aim would keep both', () => {
  const lens = wholeLens(SPARE.lenses[0] ?? ({} as never));
  if (!lens) throw new Error('no lens');
  fc.assert(
    fc.property(
      fc.record({
        distanceM: fc.double({ min: 2, max: 30, noNaN: true }),
        near: fc.double({ min: 0.1, max: 1, noNaN: true }),
        focalWideMm: fc.double({ min: 2.8, max: 12, noNaN: true }),
      }),
      ({ distanceM, near, focalWideMm }) => {
        const card = { ...SPARE, lenses: [{ ...lens, focalWideMm, focalTeleMm: focalWideMm }] };
        const need: Need = { ...NEED, distanceM, nearM: distanceM * near };
        const view = lensView({ ...lens, focalWideMm, focalTeleMm: focalWideMm }, 1);
        const both = (tiltDownDeg: number, rimDeg = 0): boolean => {
          const aim = aimOf({ heightM: 3, tiltDownDeg, headingDeg: 0, zoom: null });
          const spots = [
            { aheadM: distanceM, rightM: 0, heightM: lookHeightM(need, {}) },
            { aheadM: need.nearM, rightM: 0, heightM: 0 },
          ];
          // By angles alone, another way than the projection: within half the view of the axis, less a rim.
          return spots.every(
            ({ aheadM, heightM }) =>
              Math.abs((Math.atan2(3 - heightM, aheadM) * 180) / Math.PI - tiltDownDeg) <= view.vfovDeg / 2 - rimDeg &&
              draw(view, aim, { aheadM, rightM: 0, heightM }).isInView,
          );
        };
        const usual = usualMounting(need, {}, card);
        const target = draw(view, aimOf(usual), { aheadM: distanceM, rightM: 0, heightM: lookHeightM(need, {}) });
        expect(target.isInView).toBe(true);
        // Whole degrees are set, and a rim is kept: what another aim serves with two degrees to spare, the usual one serves.
        if (Array.from({ length: 91 }, (_, tilt) => tilt).some((tilt) => both(tilt, 2)))
          expect(both(usual.tiltDownDeg)).toBe(true);
      },
    ),
    runs(200),
  );
});

test('a target that comes nearer takes nothing of what was said: the zone begins where it did when it goes back', () => {
  const site = siteOf({ need: { distanceM: 8, nearM: 6 } });
  const need = site.cameras[0]?.need as Need;
  const near = chooseFacts({ ...need, distanceM: 3 }, SPARE, null, site);
  expect([near.zoneFromM, chooseFacts({ ...need, distanceM: 8 }, SPARE, null, site).zoneFromM]).toEqual([3, 6]);
});

test('the view that a data sheet prints is enough to compute with: sensor and focal length may stay unknown', () => {
  const [whole] = SPARE.lenses;
  if (!whole) throw new Error('no lens');
  const known = wholeLens(whole);
  if (!known) throw new Error('not whole');
  const { hfovDeg, vfovDeg, focalPx } = lensView(known, 1);
  const printed = wholeLens({
    ...whole,
    sensorWidthMm: null,
    sensorHeightMm: null,
    focalWideMm: null,
    focalTeleMm: null,
    measuredHfovDeg: hfovDeg,
  });
  const view = printed && lensView(printed, 1);
  expect(view?.hfovDeg).toBeCloseTo(hfovDeg, 6);
  expect(view?.focalPx).toBeCloseTo(focalPx, 4);
  expect(view?.vfovDeg).toBeCloseTo(vfovDeg, 0);
  expect(wholeLens({ ...whole, sensorWidthMm: null })).toBeNull();
  expect(wholeLens({ ...whole, widthPx: null })).toBeNull();
});
