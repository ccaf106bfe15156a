import { expect, test } from '@jest/globals';
import { ADDRESS_CASES } from '../../../tests/support/address-sites.ts';
import { ONVIF_CASES } from '../../../tests/support/onvif-readings.ts';
import {
  airCard,
  apOf,
  beside,
  byPair,
  byPassive,
  bySun,
  FEED,
  JOINED,
  lens,
  linkOf,
  MOUNTING,
  onAir,
  onPair,
  passiveOf,
  SPARE,
  siteOf,
  solarCard,
  standing,
  supplyOf,
  switchOf,
  tapped,
} from '../../../tests/support/planned-sites.ts';
import { PREPARE_CASES } from '../../../tests/support/prepare-sites.ts';
import { apply, camera, probed, record, report, smallReport, stamps } from '../../../tests/support/sites.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Gear } from '../document/chapters/gear/gear.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import type { Site } from '../document/site.ts';
import { applyCommand } from '../document/site-commands.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { STATIONS } from '../stations/registry.ts';
import { lanesOf } from './lane.ts';
import { isMended, mendsOf } from './mends.ts';

/** Each rule with a mend, and a site on which it finds something of camera `c`. */
/** Tapped by its main stream, where its recorder takes the small one alone. */
const smallFor = (more: Partial<Destination>): Site =>
  apply(
    tapped(siteOf({ destinations: (all) => all.map((one) => ({ ...one, ...more })) })),
    probed('c', smallReport(), 'rtsp://10.77.4.21/live/sub', 'c-sub'),
  );

const CASES: readonly { readonly rule: string; readonly site: Site }[] = [
  { rule: 'choose.detail', site: siteOf({ model: lens({ widthPx: 320, heightPx: 180 }), need: { text: null } }) },
  { rule: 'choose.text', site: siteOf({ model: lens({ widthPx: 800, heightPx: 450 }) }) },
  { rule: 'choose.target-out-of-view', site: siteOf({ camera: { mounting: { ...MOUNTING, tiltDownDeg: 70 } } }) },
  { rule: 'choose.zone-near', site: siteOf({ camera: { mounting: { ...MOUNTING, tiltDownDeg: 2 } } }) },
  {
    rule: 'choose.face-near',
    // Hung low and tilted: it shows the doormat, and a coat.
    site: siteOf({
      need: { level: 'identify', text: null, distanceM: 2, widthM: 1, nearM: 1, atNight: false },
      camera: { mounting: { heightM: 1.2, tiltDownDeg: 8, headingDeg: 0, zoom: 1 } },
    }),
  },
  {
    rule: 'choose.too-steep-for-faces',
    site: siteOf({
      need: { level: 'recognise', text: null, distanceM: 4, nearM: 4, widthM: 2 },
      camera: { mounting: { ...MOUNTING, heightM: 4.4, tiltDownDeg: 34 } },
    }),
  },
  { rule: 'choose.zone-width', site: siteOf({ model: lens({ focalWideMm: 16, focalTeleMm: 16 }) }) },
  {
    rule: 'choose.lenses-leave-gap',
    site: siteOf({
      model: { lenses: [-60, 60].map((axisDeg) => ({ ...(SPARE.lenses[0] as Model['lenses'][number]), axisDeg })) },
      need: { text: null, level: 'detect' },
    }),
  },
  { rule: 'choose.light', site: siteOf({ model: { light: { kind: 'infrared', reachM: 6, angleDeg: 110 } } }) },
  {
    rule: 'choose.light-narrower-than-view',
    site: siteOf({ model: { light: { kind: 'infrared', reachM: 60, angleDeg: 30 } } }),
  },
  { rule: 'choose.local-stream', site: siteOf({ model: { localStream: 'account-only' } }) },
  { rule: 'choose.codec-not-taken', site: siteOf({ model: { codecs: ['H265'] } }) },
  { rule: 'choose.sessions', site: siteOf({ model: { sessions: 1 } }) },
  { rule: 'choose.no-sub-stream', site: siteOf({ model: { subs: [] } }) },
  { rule: 'choose.weather', site: siteOf({ model: { ingress: 20 } }) },
  { rule: 'choose.no-sound', site: siteOf({ model: { sound: 'none' } }) },
  { rule: 'choose.does-not-turn', site: siteOf({ model: { panRangeDeg: 0 } }) },
  { rule: 'power.source-not-offered', site: siteOf({ power: { ways: ['dc'] } }) },
  {
    rule: 'power.gear-supplies-nothing',
    site: siteOf({
      gear: [switchOf('a', { poePorts: 0, budgetW: 0 }), switchOf('b')],
      links: [FEED, ...JOINED, linkOf('up', 'gear:a', 'gear:b')],
    }),
  },
  {
    rule: 'power.supply-volts-high',
    site: siteOf({
      camera: byPair,
      gear: [switchOf('a'), supplyOf('s', 48), supplyOf('r', 24)],
      links: onPair('gear:s'),
    }),
  },
  {
    rule: 'power.supply-volts-low',
    site: siteOf({
      camera: byPair,
      gear: [switchOf('a'), supplyOf('s', 9), supplyOf('r', 24)],
      links: onPair('gear:s'),
    }),
  },
  {
    rule: 'power.switch-budget',
    site: siteOf({
      gear: [switchOf('a', { budgetW: 10 }), switchOf('b')],
      links: [FEED, ...JOINED, linkOf('up', 'gear:a', 'gear:b')],
    }),
  },
  {
    rule: 'power.no-port-left',
    site: beside(
      siteOf({
        gear: [switchOf('a', { poePorts: 1 }), switchOf('b')],
        links: [FEED, linkOf('feed-d', 'gear:a', 'camera:d'), ...JOINED, linkOf('up', 'gear:a', 'gear:b')],
      }),
      { feed: { way: 'poe', sun: null, charge: null } },
    ),
  },
  {
    rule: 'power.class-above-switch',
    site: siteOf({
      power: { poeClass: 6, dayW: 40, nightW: 45 },
      gear: [switchOf('a'), switchOf('b', { pseType: 4, budgetW: 300 })],
      links: [FEED, ...JOINED, linkOf('up', 'gear:a', 'gear:b')],
    }),
  },
  { rule: 'power.copper-clad', site: siteOf({ links: [{ ...FEED, isCopperClad: true }, ...JOINED] }) },
  {
    rule: 'power.passive-volts-wrong',
    site: siteOf({
      camera: byPassive,
      gear: [switchOf('a'), passiveOf('i', 48), passiveOf('j', 24)],
      links: [
        linkOf('feed', 'gear:i', 'camera:c'),
        linkOf('up', 'gear:a', 'gear:i'),
        linkOf('up2', 'gear:a', 'gear:j'),
        ...JOINED,
      ],
    }),
  },
  {
    rule: 'power.run',
    site: siteOf({
      camera: byPair,
      gear: [switchOf('a'), supplyOf('s', 12)],
      links: onPair('gear:s', { areaMm2: 0.2, lengthM: 12 }),
    }),
  },
  {
    rule: 'power.supply-too-small',
    site: siteOf({
      camera: byPair,
      gear: [switchOf('a'), supplyOf('s', 12, 0.1), supplyOf('r', 12, 5)],
      links: onPair('gear:s'),
    }),
  },
  {
    rule: 'power.winter',
    site: siteOf({
      camera: bySun({ panelWp: 3 }),
      power: solarCard,
      latitudeDeg: 51.5,
      gear: [switchOf('a')],
      links: JOINED,
    }),
  },
  {
    rule: 'power.few-dark-days',
    site: siteOf({ camera: bySun({ panelWp: 60, batteryWh: 10 }), power: solarCard, latitudeDeg: 40, links: JOINED }),
  },
  {
    rule: 'power.old-phone-unlimited',
    site: siteOf({
      camera: {
        ...byPair,
        kind: 'handset',
        feed: { way: 'dc', sun: null, charge: { limitPercent: null } },
      },
      gear: [switchOf('a'), supplyOf('s', 24)],
      links: onPair('gear:s'),
    }),
  },
  {
    rule: 'air.band-not-spoken',
    site: siteOf({
      camera: standing,
      power: airCard,
      gear: [switchOf('a'), apOf('far', '5', 4), apOf('near', '2.4', 3)],
      links: onAir('far'),
    }),
  },
  {
    rule: 'air.signal',
    site: siteOf({
      camera: standing,
      power: airCard,
      gear: [switchOf('a'), apOf('far', '2.4', 900), apOf('near', '2.4', 3)],
      links: onAir('far'),
    }),
  },
  {
    rule: 'air.airtime',
    site: apply(
      beside(
        siteOf({
          camera: standing,
          power: airCard,
          gear: [switchOf('a'), { ...apOf('far', '2.4', 4), radio: 'g' } as Gear, apOf('near', '2.4', 3)],
          links: [...onAir('far'), linkOf('air-d', 'gear:far', 'camera:d', { medium: 'wifi', lengthM: 0 })],
        }),
        { position: { xM: 1, yM: 3 }, feed: { way: 'mains', sun: null, charge: null } },
      ),
      probed('d', report({ kbps: 14_000 })),
      record('t', 'd'),
    ),
  },
  { rule: 'link.not-joined', site: siteOf({ links: [FEED, ...JOINED.slice(0, 1)] }) },
  { rule: 'tap.picture-too-large', site: smallFor({ largest: { widthPx: 704, heightPx: 576 } }) },
  { rule: 'tap.rate-too-high', site: smallFor({ mostKbps: 500 }) },
  { rule: 'tap.too-many-frames', site: smallFor({ mostFps: 12 }) },
  { rule: 'tap.codec-not-taken', site: tapped(siteOf(), probed('c', report({ codec: 'H265' }))) },
  {
    rule: 'tap.pictures-without-savings',
    site: tapped(
      siteOf({ destinations: (all) => all.map((one) => ({ ...one, codecs: ['H264', 'JPEG'] })) }),
      probed('c', report({ codec: 'JPEG' })),
      probed('c', report(), 'rtsp://10.77.4.21/live/sub', 'c-sub'),
    ),
  },
  {
    rule: 'storage.retention',
    site: tapped(
      siteOf({
        destinations: (all) =>
          all.map((one) => (one.storage ? { ...one, storage: { ...one.storage, diskTB: 0.05 } } : one)),
      }),
    ),
  },
  {
    rule: 'probe.not-found',
    site: apply(
      beside(siteOf(), { streams: camera('d').streams.map((stream) => ({ ...stream, path: '/video.h264' })) }),
      probed('d', report(), 'rtsp://10.77.4.21/video.h264'),
      probed('c', report({ cause: 'not-found' })),
    ),
  },
  ...(
    [
      ['closed', 'encrypted', { line: 'tls' }],
      ['not-rtsp', 'tunnel', { line: 'tunnel' }],
      ['refused', 'other-port', { port: 8554 }],
      ['not-found', 'path-elsewhere', { path: '/cam/1' }],
    ] as const
  ).map(([cause, reason, found]) => ({
    rule: `probe.${cause}`,
    site: apply(siteOf(), probed('c', report({ cause, diagnosis: { reason, experiments: [], found } }))),
  })),
  ...PREPARE_CASES,
  ...ADDRESS_CASES,
  ...ONVIF_CASES,
];

test.each(CASES)('$rule: each mend takes the finding away, and nothing gets worse anywhere', ({ rule, site }) => {
  const index = indexEvidence(site.journal);
  const before = lanesOf(site, index);
  expect(before[0]?.findings.map((finding) => finding.rule)).toContain(rule);
  const mends = mendsOf(site, index, 'c', rule);
  expect(mends.length).toBeGreaterThan(0);
  for (const { text, command } of mends) {
    expect(text.length).toBeGreaterThan(4);
    const mended = applyCommand(site, command, stamps());
    const after = lanesOf(mended, indexEvidence(mended.journal));
    expect(after[0]?.findings.map((finding) => finding.rule)).not.toContain(rule);
    const stops = (lanes: typeof before) =>
      lanes.flatMap(({ findings }) => findings.filter(({ severity }) => severity === 'stop'));
    expect(stops(after).length).toBeLessThanOrEqual(stops(before).length);
  }
});

test('at least twenty-five rules have a mend, and each of them has a case above', () => {
  const withMends = STATIONS.flatMap(({ rules }) => rules.filter((rule) => 'mends' in rule).map(({ id }) => id));
  expect(withMends.length).toBeGreaterThanOrEqual(25);
  const found = ['closed', 'not-rtsp', 'refused', 'not-found'].map((cause) => `probe.${cause}`);
  expect([...new Set(CASES.map(({ rule }) => rule))].sort()).toEqual([...withMends, ...found].sort());
});

test('a mend that would make something worse elsewhere is not one', () => {
  const site = siteOf({ gear: [switchOf('a', { budgetW: 10 }), switchOf('b')], links: [FEED, ...JOINED] });
  const index = indexEvidence(site.journal);
  const before = lanesOf(site, index);
  // Moved to a switch that no link joins to a destination, the camera is fed, and nobody sees it.
  const moved = applyCommand(site, { kind: 'putLink', link: { ...FEED, from: 'gear:b' } }, stamps());
  expect(isMended(before, lanesOf(moved, index), 'c', 'power.switch-budget')).toBe(false);
  expect(mendsOf(site, index, 'c', 'power.switch-budget')).toEqual([]);
});
