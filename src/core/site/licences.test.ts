import { expect, test } from '@jest/globals';
import { SPARE, siteOf } from '../../../tests/support/planned-sites.ts';
import { apply, camera, record } from '../../../tests/support/sites.ts';
import type { Site } from '../document/site.ts';
import { licenceCount, licencesUsed } from './licences.ts';

test('seats used are one number: cameras that are drawn, by a tap or by their need, each with the seats of its model', () => {
  const base = siteOf();
  const twin = { ...SPARE, id: 'twin', seats: 2 };
  const site: Site = {
    ...base,
    models: [...base.models, twin],
    cameras: [...base.cameras, camera('d', { modelId: 'twin' }), camera('e')],
  };
  const tapped = apply(site, record('t', 'd'), record('t2', 'd', 'd-sub'));
  expect(licencesUsed(tapped, 'loft')).toBe(1 + 2);
  const packs = [{ seats: 1, price: 37 }];
  expect(licenceCount(tapped, { id: 'loft', seats: { included: 2, packs } })).toMatchObject({
    used: 3,
    included: 2,
    purchase: { cost: 37 },
  });
  expect(licenceCount(tapped, { id: 'loft', seats: null })).toBeNull();
});
