import { expect, test } from '@jest/globals';
import { refusalOf } from '../core/document/site-fit.ts';
import { SITE_VERSION } from '../core/document/version.ts';
import file from './alder-mill.cleartap.json' with { type: 'json' };
import { alderMill, alderMillSecrets } from './alder-mill.ts';
import { MILL_HOSTS } from './alder-mill-network.ts';
import { ALDER_MILL_FLEET } from './fleet.ts';

const AT = '2026-11-25T09:00:00.000Z';
const site = alderMill(AT);

test('the demo is a site file of this version, and begins when it is opened', () => {
  expect(file.version).toBe(SITE_VERSION);
  expect(refusalOf(site, site, 'all')).toBeNull();
  expect(new Set(site.journal.map(({ at }) => at))).toEqual(new Set([AT]));
});

test('its cameras are planned where the simulated ones stand, with the accounts that these have', () => {
  const hung = site.cameras.filter(({ host }) => host !== '');
  expect(hung.length).toBeGreaterThan(2);
  for (const { name, host, ports, account } of hung) {
    const one = ALDER_MILL_FLEET.find((personality) => personality.name === name);
    expect([name, host, ports.rtsp, account?.user]).toEqual([name, one?.host, one?.port, one?.account?.user]);
    expect(account && alderMillSecrets()[account.secretRef]).toBe(one?.account?.password);
  }
  for (const [id, host] of Object.entries(MILL_HOSTS))
    expect([id, site.destinations.find((destination) => destination.id === id)?.host]).toEqual([id, host]);
});
