import { expect, test } from '@jest/globals';
import { siteOf } from '../../../tests/support/planned-sites.ts';
import { apply, camera, record } from '../../../tests/support/sites.ts';
import type { Site } from '../document/site.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { packOf } from './pack.ts';

test('all sheets of a destination stand in the order of its channels', () => {
  const base = siteOf();
  const site: Site = {
    ...base,
    cameras: [camera('x', { channel: 2 }), camera('y', { channel: null }), camera('z', { channel: 1 })],
  };
  const tapped = apply(site, record('tx', 'x'), record('ty', 'y'), record('tz', 'z'));
  const pack = packOf(tapped, indexEvidence(tapped.journal), 'loft');
  expect(pack.map(({ channel, sheet }) => [channel, sheet.camera])).toEqual([
    [1, 'z'],
    [2, 'x'],
    [3, 'y'],
  ]);
  expect(packOf(tapped, indexEvidence(tapped.journal), 'hub')).toEqual([]);
});
