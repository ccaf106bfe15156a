import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MILL, millEdit } from '../../../tests/support/mill-edits.ts';
import { runs } from '../../../tests/support/runs.ts';
import { stamps } from '../../../tests/support/sites.ts';
import { applyCommand } from '../document/site-commands.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { lanesOf } from './lane.ts';

/** A figure that is not there, or that has digits which nobody measured. */
const NO_WORDS = /NaN|Infinity|undefined|\bnull\b|\[object|nothing V|no everything|\b0\.0 m\b|\d\.\d{4}| {2}/;

test('whatever is missing or changed, findings speak in whole sentences and figures that somebody would say', () =>
  fc.assert(
    fc.property(fc.array(millEdit, { minLength: 1, maxLength: 8 }), (edits) => {
      const site = edits.reduce((now, next) => applyCommand(now, next, stamps('2026-11-25T10:00:00.000Z')), MILL);
      for (const { findings } of lanesOf(site, indexEvidence(site.journal)))
        for (const { rule, title, because, do: steps } of findings)
          for (const words of [title, because, ...steps])
            expect([rule, words]).toEqual([rule, expect.not.stringMatching(NO_WORDS)]);
    }),
    runs(120),
  ));
