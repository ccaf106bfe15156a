import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { AT, probed, report, stamps } from '../../../tests/support/sites.ts';
import { alderMill } from '../../standins/alder-mill.ts';
import { createEvidenceIndexer, indexEvidence } from '../document/best-known.ts';
import { readingOf } from '../document/chapters/journal/reading.ts';
import { NO_EDITS, noteEdit, redoEdit, undoEdit } from '../document/edit-history.ts';
import type { Site } from '../document/site.ts';
import { applyCommand, type SiteCommand } from '../document/site-commands.ts';
import { airSubject, cameraSubject, gearSubject } from '../document/subject.ts';
import { createLaneReckoner, lanesOf } from './lane.ts';

// What is remembered by argument must be what is worked out anew: a copy shares no object with the site, so that nothing
// that was remembered is found for it.
const anew = (site: Site) => {
  const copy = structuredClone(site);
  return lanesOf(copy, indexEvidence(copy.journal));
};

const mill = alderMill(AT);
const one = <T>(items: readonly T[]): fc.Arbitrary<T> => fc.constantFrom(...items);
const cameras = one(mill.cameras);
const URL = 'rtsp://10.77.4.21/live/main';

/** Commands that touch what verdicts rest on, each of a thing that the demo has. */
const command: fc.Arbitrary<SiteCommand> = fc.oneof(
  fc
    .tuple(cameras, one(mill.models))
    .map(([{ id }, model]): SiteCommand => ({ kind: 'chooseModel', cameraId: id, modelId: model.id })),
  fc
    .tuple(one(mill.models), fc.option(fc.integer({ min: 1, max: 4 })))
    .map(([model, sessions]): SiteCommand => ({ kind: 'putModel', model: { ...model, sessions } })),
  fc.tuple(one(mill.models), fc.option(fc.integer({ min: 1, max: 40 }))).map(
    ([model, dayW]): SiteCommand => ({
      kind: 'putModel',
      model: { ...model, power: { ...model.power, dayW, nightW: dayW } },
    }),
  ),
  fc.tuple(cameras, cameras).map(([{ id }, { need }]): SiteCommand => ({ kind: 'setNeed', cameraId: id, need })),
  fc.tuple(cameras, fc.integer({ min: 0, max: 60 })).map(
    ([{ id, mounting }, tiltDownDeg]): SiteCommand => ({
      kind: 'setMounting',
      cameraId: id,
      mounting: mounting && { ...mounting, tiltDownDeg },
    }),
  ),
  fc.tuple(cameras, cameras).map(([{ id }, { feed }]): SiteCommand => ({ kind: 'setFeed', cameraId: id, feed })),
  fc.tuple(one(mill.gear), fc.integer({ min: 5, max: 90 })).map(
    ([gear, budgetW]): SiteCommand => ({
      kind: 'putGear',
      gear: gear.kind === 'switch' ? { ...gear, budgetW } : { ...gear, name: `${gear.name} ${budgetW}` },
    }),
  ),
  fc
    .tuple(one(mill.links), fc.integer({ min: 1, max: 150 }))
    .map(([link, lengthM]): SiteCommand => ({ kind: 'putLink', link: { ...link, route: null, lengthM } })),
  fc
    .tuple(one(mill.links), one(mill.gear))
    .map(([link, { id }]): SiteCommand => ({ kind: 'putLink', link: { ...link, from: gearSubject(id) } })),
  fc
    .tuple(cameras, fc.integer({ min: 0, max: 40 }))
    .map(([{ id }, xM]): SiteCommand => ({ kind: 'place', subject: cameraSubject(id), position: { xM, yM: 10 } })),
  fc
    .integer({ min: -60, max: 66 })
    .map((latitudeDeg): SiteCommand => ({ kind: 'setSky', sky: { ...mill.sky, latitudeDeg } })),
  fc
    .integer({ min: 1, max: 9 })
    .map((tenths): SiteCommand => ({ kind: 'setAssumption', id: 'optics.dark-ground', value: tenths / 10 })),
  fc.tuple(one(mill.destinations), fc.integer({ min: 1, max: 90 })).map(
    ([destination, retentionDays]): SiteCommand => ({
      kind: 'changeDestination',
      destination: { ...destination, retentionDays, codecs: retentionDays % 2 ? ['H264'] : [] },
    }),
  ),
  fc.tuple(cameras, one(mill.destinations), fc.uuid()).map(
    ([{ id, streams }, destination, tap]): SiteCommand => ({
      kind: 'addTap',
      judged: '',
      tap: {
        id: tap,
        cameraId: id,
        streamId: streams[0]?.id ?? '',
        destinationId: destination.id,
        use: 'record',
        protocol: 'rtsp',
        schedule: { mode: 'continuous' },
      },
    }),
  ),
  fc
    .tuple(cameras, fc.integer({ min: 200, max: 9000 }), fc.boolean())
    .map(
      ([{ id, streams }, kbps, fails]): SiteCommand =>
        probed(id, report(fails ? { cause: 'not-found' } : { kbps }), URL, streams[0]?.id),
    ),
  fc
    .tuple(cameras, fc.integer({ min: -90, max: -40 }))
    .map(([{ id }, dbm]) =>
      readingOf(cameraSubject(id), airSubject('gear:hall-ap', cameraSubject(id)), 'signalDbm', dbm > -50 ? null : dbm),
    ),
  fc
    .tuple(cameras, fc.constantFrom('10.77.4.21', '10.77.4.99', ''))
    .map(([{ id }, host]): SiteCommand => ({ kind: 'setAddress', cameraId: id, host, port: 554 })),
);

test('after any sequence of edits, undone and done again, what was kept is what is worked out anew', () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(command, fc.nat(5)), { minLength: 1, maxLength: 12 }), (steps) => {
      const reckon = createLaneReckoner();
      const index = createEvidenceIndexer();
      let site = mill;
      let history = NO_EDITS;
      for (const [at, [next, turn]] of steps.entries()) {
        const stamp = stamps(`2026-11-25T10:00:00.${String(at).padStart(3, '0')}Z`);
        if (turn === 0) ({ site, history } = undoEdit(site, history, stamp));
        else if (turn === 1) ({ site, history } = redoEdit(site, history, stamp));
        else {
          const after = applyCommand(site, next, stamp);
          history = noteEdit(history, next, site, after);
          site = after;
        }
        expect(reckon(site, index(site.journal))).toEqual(anew(site));
      }
    }),
    { numRuns: 60 },
  ));

test('a lane that nothing touched is the same object; of a camera without a need too, its card counts at once', () => {
  const reckon = createLaneReckoner();
  const tap = (id: string): SiteCommand => ({
    kind: 'addTap',
    judged: '',
    tap: {
      id,
      cameraId: 'linen-stair',
      streamId: 'linen-stair-main',
      destinationId: 'mill-hub',
      use: 'live',
      protocol: 'rtsp',
      schedule: { mode: 'continuous' },
    },
  });
  const site = [tap('a'), tap('b'), tap('c')].reduce(
    (now, next, at) => applyCommand(now, next, stamps(`2026-11-25T11:00:0${at}.000Z`)),
    mill,
  );
  const rulesOf = (now: Site) =>
    reckon(now, indexEvidence(now.journal))
      .find(({ cameraId }) => cameraId === 'linen-stair')
      ?.findings.map(({ rule }) => rule);
  expect(rulesOf(site)).toContain('tap.sessions');
  const before = reckon(site, indexEvidence(site.journal));
  const card = site.models.find(({ id }) => id === 'marrick-c1');
  if (!card) throw new Error('no card');
  const roomy = applyCommand(
    site,
    { kind: 'putModel', model: { ...card, sessions: 8 } },
    stamps('2026-11-25T12:00:00.000Z'),
  );
  expect(rulesOf(roomy)).not.toContain('tap.sessions');
  const after = reckon(roomy, indexEvidence(roomy.journal));
  expect(after.filter((lane, at) => lane !== before[at]).map(({ cameraId }) => cameraId)).toEqual(['linen-stair']);
});
