import { expect, test } from '@jest/globals';
import { apply, mill } from '../../../tests/support/sites.ts';
import { UNKNOWN_NETWORK } from './chapters/networks/network-fields.ts';
import { fromOutside } from './from-outside.ts';
import { readSiteFile, writeSiteFile } from './site-file.ts';

test('of a file no reference and no permission counts; all else is as it was', () => {
  const network = { id: 'lan', name: 'LAN', cidr: '10.77.4.0/24', ...UNKNOWN_NETWORK, permit: 'the owner' };
  const site = apply(mill(), { kind: 'putNetwork', network });
  const before = site.cameras.map(({ account }) => account?.secretRef);
  let count = 0;
  const taken = fromOutside(site, () => `fresh-${count++}`);
  expect(taken.cameras.map(({ account }) => account?.secretRef)).toEqual(['fresh-0', 'fresh-1']);
  expect(taken.networks.map(({ permit }) => permit)).toEqual(['']);
  const back = fromOutside(taken, () => before.shift() ?? '');
  expect({ ...back, networks: site.networks }).toEqual(site);
});

test('channels that share an account share one afterwards', () => {
  const site = mill();
  const shared = {
    ...site,
    cameras: site.cameras.map((one) => ({ ...one, account: { user: 'op', secretRef: 'box' } })),
  };
  let count = 0;
  const taken = fromOutside(shared, () => `fresh-${count++}`);
  expect(new Set(taken.cameras.map(({ account }) => account?.secretRef))).toEqual(new Set(['fresh-0']));
});

test('a name is one line: a file of this version that says otherwise is refused, one of before is opened without', () => {
  const site = mill();
  const text = writeSiteFile({ ...site, cameras: site.cameras.map((one) => ({ ...one, name: 'Gate\n=cmd' })) });
  expect(readSiteFile(text)).toMatchObject({ ok: false, error: { message: expect.stringContaining('name') } });
  const old = readSiteFile(text.replace(/"version": ?\d+/, '"version": 10'));
  expect(old.ok && old.value.cameras[0]?.name).toBe('Gate =cmd');
});
