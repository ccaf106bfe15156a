import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addressed, HOUSE, MAC, seenAt, swept, YARD } from '../../../tests/support/address-sites.ts';
import { runs } from '../../../tests/support/runs.ts';
import { apply, camera, stamps } from '../../../tests/support/sites.ts';
import { bindCommands, cameraOfHost } from '../evidence/camera-of-host.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { lastSweepOf, wasAsked } from '../evidence/scans.ts';
import { matchSeen } from '../evidence/seen-cameras.ts';
import { checkPlan } from '../net/address-plan.ts';
import { parseIpv4 } from '../net/ipv4.ts';
import { rulerOf } from '../places/network/ruler.ts';
import { unknownHost } from '../scan/seen.ts';
import { movesAsCommands, nextFree, proposeAddresses, takenAddresses } from '../site/free-addresses.ts';
import { networkAt, readNetwork } from '../site/networks.ts';
import type { Camera } from './chapters/cameras/camera.ts';
import { condensed } from './chapters/journal/condense.ts';
import { emptySite } from './empty-site.ts';
import { applyCommand } from './site-commands.ts';
import { refusalOf } from './site-fit.ts';

const known = (mac: string, serial = '', endpoint = ''): Camera['identity'] => ({ mac, serial, endpoint });
const siteWith = (...cameras: readonly Camera[]) => ({ ...emptySite('s', 'S'), networks: [HOUSE, YARD], cameras });

test.each([
  {
    why: 'its ONVIF identity, in whatever case',
    identity: known('', '', 'urn:uuid:AB'),
    seen: { endpoints: ['urn:uuid:ab'] },
    by: 'endpoint',
  },
  { why: 'its serial number', identity: known('', 'S-1'), seen: { serial: 's-1' }, by: 'serial' },
  {
    why: 'its MAC address, in whatever notation',
    identity: known('00-00-5E-00-53-21'),
    seen: { mac: MAC },
    by: 'mac',
  },
])('a camera that moved is known again by $why', ({ identity, seen, by }) => {
  const site = siteWith(camera('c', { host: '10.77.4.21', identity }));
  const matched = matchSeen(site, [seenAt('10.77.4.50', seen)]);
  expect(matched.hosts[0]).toMatchObject({ state: 'moved', by });
  expect(matched.cameras[0]).toMatchObject({ state: 'moved' });
});

test('an address alone proves nothing', () => {
  const bare = siteWith(camera('c', { host: '10.77.4.21' }));
  expect(matchSeen(bare, [seenAt('10.77.4.21', { mac: MAC })]).hosts[0]).toMatchObject({ state: 'unproven', by: null });
  const other = siteWith(camera('c', { host: '10.77.4.21', identity: known('00:00:5e:00:53:99') }));
  const matched = matchSeen(other, [seenAt('10.77.4.21', { mac: MAC })]);
  expect(matched.hosts[0]).toMatchObject({ state: 'other-at-address', cameras: [] });
  expect(matched.cameras[0]?.state).toBe('other-at-address');
  // one that makes itself a new MAC address is no other for that
  const random = siteWith(camera('c', { host: '10.77.4.21', identity: known('02:00:5e:00:53:99') }));
  expect(matchSeen(random, [seenAt('10.77.4.21', { mac: MAC })]).cameras[0]?.state).toBe('unproven');
});

test('one device at two addresses, and channels of one box at one', () => {
  const site = siteWith(camera('c', { host: '10.77.4.21', identity: known(MAC) }));
  const twice = matchSeen(site, [seenAt('10.77.4.21', { mac: MAC }), seenAt('10.77.4.22', { mac: MAC })]);
  expect(twice.hosts.map(({ state }) => state)).toEqual(['double', 'double']);
  const box = siteWith(
    ...['a', 'b'].map((id, at) =>
      camera(id, { kind: 'channel', channel: at + 1, host: '10.77.4.40', identity: known(MAC) }),
    ),
  );
  const one = matchSeen(box, [seenAt('10.77.4.41', { mac: MAC })]);
  expect(one.hosts[0]?.cameras.map(({ id }) => id)).toEqual(['a', 'b']);
});

test('who is a destination or the gateway is told apart from what nobody knows', () => {
  const site = addressed();
  const matched = matchSeen(site, ['10.77.4.1', '10.77.4.10', '10.77.4.99'].map(unknownHost));
  expect(matched.hosts.map(({ state }) => state)).toEqual(['gateway', 'destination', 'new']);
});

test('the smallest network that holds an address is its own', () => {
  const wide = { ...HOUSE, id: 'wide', cidr: '10.77.0.0/16' };
  expect(networkAt([wide, HOUSE], '10.77.4.9')?.network.id).toBe('house');
  expect(networkAt([wide, HOUSE], '10.77.8.9')?.network.id).toBe('wide');
  expect(networkAt([HOUSE], 'sluice.local')).toBeNull();
});

const hosts = fc.integer({ min: 0, max: 255 }).map((last) => `10.77.4.${last}`);
test('a proposal is one that the plan check has nothing against, whatever stands where', () =>
  fc.assert(
    fc.property(
      fc.array(fc.record({ host: fc.oneof(hosts, fc.constant('')), isStatic: fc.boolean() }), { maxLength: 20 }),
      fc.array(hosts, { maxLength: 10 }),
      fc.record({ from: fc.integer({ min: 1, max: 120 }), long: fc.integer({ min: 0, max: 130 }) }),
      (given, strangers, { from, long }) => {
        const network = { ...HOUSE, pool: { from: `10.77.4.${from}`, to: `10.77.4.${Math.min(254, from + long)}` } };
        const cameras = given.map(({ host, isStatic }, at) =>
          camera(`c${at}`, {
            host,
            keeping: isStatic ? 'static' : null,
            identity: known(`00:00:5e:00:54:${at.toString(16).padStart(2, '0')}`),
          }),
        );
        const site = { ...siteWith(...cameras), networks: [network] };
        const read = readNetwork(network);
        const seen = strangers.map(unknownHost);
        const moves = proposeAddresses(site, read, seen);
        if (!moves || !read.plan) return;
        expect(moves).toHaveLength(cameras.length);
        const commands = movesAsCommands(moves);
        const after =
          commands.length === 0 ? site : applyCommand(site, { kind: 'many', what: 'tidy', commands }, stamps());
        expect(refusalOf(site, after)).toBeNull();
        expect(
          checkPlan(
            read.plan,
            after.cameras.map(({ name, host, identity, keeping }) => ({
              name,
              ip: host,
              mac: identity.mac,
              how: keeping ?? 'dynamic',
            })),
          ),
        ).toEqual([]);
        for (const { host } of after.cameras) {
          const address = parseIpv4(host) ?? 0;
          expect(address >= (read.plan.pool?.from ?? 0) && address <= (read.plan.pool?.to ?? -1)).toBe(false);
          // nobody is put where a stranger answers
          expect(
            strangers.filter((stranger) => stranger === host && !cameras.some((one) => one.host === stranger)),
          ).toEqual([]);
        }
      },
    ),
    runs(150),
  ));

test('the next free address is outside the pool, and nobody’s', () => {
  const site = siteWith(camera('c', { host: '10.77.4.200' }));
  const read = readNetwork(HOUSE);
  const taken = takenAddresses(site, read, [unknownHost('10.77.4.201')]);
  expect(nextFree(read, taken)).toBe('10.77.4.202');
  const all = new Set(Array.from({ length: 256 }, (_, at) => (parseIpv4('10.77.4.0') ?? 0) + at));
  expect(nextFree(read, all)).toBeNull();
});

test('a camera is made of what an answer says of itself; a planned one takes what stays', () => {
  let count = 0;
  const newId = (kind: string) => `${kind}-${count++}`;
  const site = siteWith(camera('c', { host: '' }));
  const host = seenAt('10.77.4.50', {
    mac: MAC,
    endpoints: ['urn:uuid:1'],
    name: 'c',
    doors: [{ port: 8554, is: 'rtsp', server: '', title: '', isSlow: false }],
  });
  expect(cameraOfHost(site, host, newId)).toMatchObject({
    name: 'c 2',
    host: '10.77.4.50',
    ports: { rtsp: 8554 },
    identity: { mac: MAC, endpoint: 'urn:uuid:1' },
  });
  const [first] = site.cameras;
  const bound = apply(site, { kind: 'many', what: 'bound', commands: first ? bindCommands(first, host) : [] });
  expect(matchSeen(bound, [host]).hosts[0]?.state).toBe('in-place');
});

test('the last look counts, in all its entries; older ones are condensed to a line', () => {
  const many = Array.from({ length: 250 }, (_, at) => seenAt(`10.77.4.${at}`));
  const first = swept(many.slice(0, 198), true, 'one');
  const site = apply(
    addressed(),
    first,
    swept(many.slice(198), true, 'one'),
    swept([seenAt('10.77.4.9')], false, 'two'),
  );
  expect(lastSweepOf(indexEvidence(site.journal.slice(0, 2)), 'house')?.hosts).toHaveLength(250);
  const last = lastSweepOf(indexEvidence(site.journal), 'house');
  expect(last).toMatchObject({ sweepId: 'two', isWhole: false });
  expect(last?.hosts.map(({ host }) => host)).toEqual(['10.77.4.9']);
  expect(last && [wasAsked(last, '10.77.4.77'), wasAsked(last, '10.77.5.1'), wasAsked(last, 'x')]).toEqual([
    true,
    false,
    false,
  ]);
  const less = condensed(site.journal, () => 'gone');
  expect(lastSweepOf(indexEvidence(less), 'house')?.hosts).toEqual(last?.hosts);
  expect(less.reduce((sum, { facts }) => sum + facts.length, 0)).toBeLessThan(10);
});

test('a ruler has all that is planned and seen, and counts what is wrong', () => {
  const site = addressed({
    camera: { host: '10.77.4.120', keeping: 'static' },
    more: [camera('d', { host: '10.77.4.120' })],
  });
  const ruler = rulerOf(site, readNetwork(HOUSE), [
    seenAt('10.77.4.77', { mac: MAC }),
    unknownHost('10.77.4.88'),
    unknownHost('192.168.1.1'),
  ]);
  expect(ruler?.pins.filter(({ cameras }) => cameras.length > 0).map(({ wrong }) => wrong)).toEqual([
    'used twice',
    'used twice',
  ]);
  expect(ruler?.drops.map(({ state }) => state)).toEqual(['moved', 'new']);
  expect(ruler?.threads).toHaveLength(1);
  expect(ruler?.counts).toMatchObject({ usable: 254, pool: 100, unplanned: 1, wrong: 2 });
  const wide = rulerOf(site, readNetwork({ ...HOUSE, cidr: '10.77.0.0/16' }), []);
  expect(wide).toMatchObject({ isWhole: false });
  expect((wide?.last ?? 0) - (wide?.first ?? 0)).toBe(1023);
  expect(wide?.pins.length).toBeGreaterThan(1);
  expect(rulerOf(site, readNetwork({ ...HOUSE, cidr: 'x' }), [])).toBeNull();
});
