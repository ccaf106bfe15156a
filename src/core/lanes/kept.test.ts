import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MILL, millEdit } from '../../../tests/support/mill-edits.ts';
import { runs } from '../../../tests/support/runs.ts';
import { expectSame } from '../../../tests/support/same.ts';
import { stamps } from '../../../tests/support/sites.ts';
import { NO_EDITS, noteEdit, redoEdit, undoEdit } from '../document/edit-history.ts';
import type { Site } from '../document/site.ts';
import { applyCommand, type SiteCommand } from '../document/site-commands.ts';
import { createEvidenceIndexer, indexEvidence } from '../evidence/evidence-index.ts';
import { createLaneReckoner, lanesOf } from './lane.ts';

// What is remembered by argument must be what is worked out anew: a copy shares no object with the site, so that nothing
// that was remembered is found for it.
const anew = (site: Site) => {
  const copy = structuredClone(site);
  return lanesOf(copy, indexEvidence(copy.journal));
};

test('after any sequence of edits, undone and done again, what was kept is what is worked out anew', () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(millEdit, fc.nat(5)), { minLength: 1, maxLength: 12 }), fc.nat(), (steps, any) => {
      const reckon = createLaneReckoner();
      const index = createEvidenceIndexer();
      let site = MILL;
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
        const judged = reckon(site, index(site.journal));
        // What was kept wrongly stays wrong: it is seen at the end, and at one step on the way.
        if (at === steps.length - 1 || at === any % steps.length) expectSame(judged, anew(site));
      }
    }),
    runs(40),
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
    MILL,
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
