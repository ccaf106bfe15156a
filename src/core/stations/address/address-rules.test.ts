import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addressed, HOUSE, seenAt, swept, YARD } from '../../../../tests/support/address-sites.ts';
import { tapped } from '../../../../tests/support/planned-sites.ts';
import { runs } from '../../../../tests/support/runs.ts';
import { apply } from '../../../../tests/support/sites.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { UNPLANNED } from '../../document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../../document/chapters/cameras/devices.ts';
import { emptySite } from '../../document/empty-site.ts';
import type { Site } from '../../document/site.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { sweepRecords } from '../../evidence/measured-records.ts';
import { type Facts, findingsOf, judgeRow, judgeRows } from '../../findings/rule.ts';
import { checkPlan, type Keeping, type PlanIssue } from '../../net/address-plan.ts';
import { parseCidr, parseIpv4, sayIpv4 } from '../../net/ipv4.ts';
import { openingsOf, passageBetween } from '../../site/reach.ts';
import { viewOf } from '../../site/site-view.ts';
import type { AddressFacts, Way } from './address-facts.ts';
import { judgeAddress } from './address-judgement.ts';
import { ADDRESS_RULES } from './address-rules.ts';
import { ADDRESS } from './index.ts';
import { networkFindings } from './network-judgement.ts';

const WAY: Way = {
  destination: 'Loft store',
  from: 'House',
  to: 'Yard',
  isSame: false,
  allowed: 'listed',
  port: 554,
  looksByItself: false,
};

/** A camera that is addressed as it should be. */
const GOOD: Facts<AddressFacts> = {
  host: '10.77.4.21',
  notation: 'plain',
  kind: 'private',
  hasNetworks: true,
  networks: 'House 10.77.4.0/24',
  network: 'House',
  isInNetwork: true,
  misplaced: undefined,
  isGateway: false,
  sharedWith: [],
  isSharedForSure: false,
  sameStreamAs: [],
  keeping: 'reservation',
  isInPool: false,
  pool: '10.77.4.100 to 10.77.4.199',
  dhcpServers: 1,
  port: 554,
  cardPort: 554,
  macText: '00:00:5e:00:53:21',
  mac: '00:00:5e:00:53:21',
  isMacGood: true,
  isLocalMac: false,
  isGroupMac: false,
  macSharedWith: [],
  isOldPhone: false,
  seen: 'in-place',
  seenAt: ['10.77.4.21'],
  seenMac: '00:00:5e:00:53:21',
  isSweepWhole: true,
  seenAlsoAt: [],
  linkLocalSeen: [],
  drawnBy: ['Loft store'],
  ways: [{ ...WAY, to: 'House', isSame: true }],
  openFrom: [],
  internet: 'none',
  losesWithoutInternet: [],
  ntp: '10.77.4.1',
  ntpReach: 'reachable',
  ntpPlace: 'in House',
  forwards: [],
  recorderForwards: [],
  outside: 'public',
  lookIn: 'tunnel',
  opensByItself: false,
};

const ruleOf = (id: string) => {
  const rule = ADDRESS_RULES.find((one) => one.id === id);
  if (!rule) throw new Error(`no rule ${id}`);
  return rule;
};

test('nothing is said of a camera that is addressed as it should be', () =>
  expect(findingsOf(judgeRows(ADDRESS_RULES, GOOD))).toEqual([]));

const CASES: readonly { readonly id: string; readonly when: Facts<AddressFacts>; readonly says: RegExp }[] = [
  { id: 'address.notation', when: { host: '010.77.4.21', notation: 'odd' }, says: /010\.77/ },
  { id: 'address.name', when: { host: 'sluice.local', notation: 'name' }, says: /sluice\.local/ },
  { id: 'address.link-local', when: { host: '169.254.7.7', kind: 'link-local' }, says: /169\.254/ },
  { id: 'address.public', when: { host: '8.8.8.8', kind: 'public' }, says: /not a private address/ },
  { id: 'address.outside', when: { host: '192.168.1.9', isInNetwork: false }, says: /outside House/ },
  { id: 'address.no-host', when: { misplaced: 'is-broadcast-address' }, says: /in House is reserved/ },
  { id: 'address.gateways', when: { isGateway: true, misplaced: undefined }, says: /gateway/ },
  { id: 'address.shared', when: { sharedWith: ['Boot room'] }, says: /one device/ },
  { id: 'address.shared', when: { sharedWith: ['Boot room'], isSharedForSure: true }, says: /Two devices/ },
  { id: 'address.same-stream', when: { sameStreamAs: ['Boot room'] }, says: /path/ },
  { id: 'address.port', when: { port: 8554 }, says: /another port/ },
  { id: 'address.kept', when: { keeping: 'dynamic' }, says: /until the lease/ },
  { id: 'address.static-in-dhcp-range', when: { keeping: 'static', isInPool: true }, says: /assigned to others/ },
  { id: 'address.two-servers', when: { dhcpServers: 2 }, says: /2 of them/ },
  { id: 'address.mac-missing', when: { macText: undefined, mac: undefined }, says: /none is entered/ },
  { id: 'address.mac-malformed', when: { macText: 'OO:1', mac: undefined, isMacGood: false }, says: /OO:1/ },
  { id: 'address.mac-group', when: { isGroupMac: true }, says: /odd octet/ },
  { id: 'address.mac-shared', when: { macSharedWith: ['Boot room'] }, says: /Both have/ },
  { id: 'address.mac-random', when: { isLocalMac: true }, says: /locally administered/ },
  { id: 'address.nothing-stays', when: { seen: 'unproven', macText: undefined, mac: undefined }, says: /is recorded/ },
  {
    id: 'address.moved',
    when: { seen: 'moved', seenAt: ['10.77.4.50'] },
    says: /Loft store still pulls from 10\.77\.4\.21: 1 tap/,
  },
  { id: 'address.missing', when: { seen: 'missing' }, says: /Nothing responds at 10\.77\.4\.21/ },
  { id: 'address.other-device', when: { seen: 'other-at-address', seenMac: '00:00:5e:00:53:99' }, says: /53:99/ },
  { id: 'address.seen-twice', when: { seen: 'double', seenAt: ['10.77.4.21', '10.77.4.22'] }, says: /10\.77\.4\.22/ },
  { id: 'address.says-elsewhere', when: { seenAlsoAt: ['192.168.0.90'] }, says: /192\.168\.0\.90/ },
  { id: 'address.link-local-seen', when: { seen: 'missing', linkLocalSeen: ['169.254.1.1'] }, says: /169\.254\.1\.1/ },
  {
    id: 'address.firewall',
    when: { ways: [{ ...WAY, allowed: 'none' }] },
    says: /may not connect to Yard, and needs port 554/,
  },
  { id: 'address.firewall', when: { ways: [{ ...WAY, allowed: null }] }, says: /in House/ },
  { id: 'address.discovery-across', when: { ways: [{ ...WAY, looksByItself: true }] }, says: /does not cross/ },
  { id: 'address.open-to-others', when: { openFrom: ['Guests'] }, says: /pulls its stream/ },
  { id: 'address.internet', when: { internet: 'all' }, says: /any connection to the internet/ },
  { id: 'address.loses-cut-off', when: { losesWithoutInternet: ['notices'] }, says: /notices/ },
  {
    id: 'address.time',
    when: { ntp: 'time.example.net', ntpReach: 'blocked', ntpPlace: 'outside' },
    says: /time\.example\.net is outside, and House may not/,
  },
  { id: 'address.time', when: { ntpReach: 'unknown', ntpPlace: 'in Yard' }, says: /in Yard/ },
  { id: 'address.no-dhcp-server', when: { dhcpServers: 0 }, says: /No DHCP server is in House/ },
  { id: 'address.port-forward-recorder', when: { recorderForwards: ['Loft store: 8443 to 443'] }, says: /8443 to 443/ },
  { id: 'address.port-forward-in-vain', when: { forwards: ['8554 to 554'], outside: 'ds-lite' }, says: /DS-Lite/ },
  { id: 'address.port-forward-in-vain', when: { lookIn: 'forward', outside: 'private' }, says: /another router/ },
  {
    id: 'address.other-device',
    when: { seen: 'unproven', seenPerhapsOther: true, seenMac: '02:00:5e:00:53:99' },
    says: /02:00:5e:00:53:99 answers/,
  },
  { id: 'address.firewall', when: { ways: [{ ...WAY, from: null, allowed: null }] }, says: /network of Loft store/ },
  {
    id: 'address.firewall',
    when: { ways: [{ ...WAY, to: null, allowed: null }] },
    says: /camera’s network is not known/,
  },
  { id: 'address.gateways', when: { isGateway: undefined }, says: /the router’s own/ },
  {
    id: 'address.static-in-dhcp-range',
    when: { keeping: 'static', isInPool: undefined },
    says: /DHCP range of House is not entered/,
  },
  { id: 'address.remote-access', when: { lookIn: undefined }, says: /Remote access is not decided/ },
  { id: 'address.remote-access', when: { lookIn: 'forward', outside: undefined }, says: /no port forward is entered/ },
  { id: 'address.port-forward', when: { forwards: ['8554 to 554'] }, says: /8554 to 554/ },
  { id: 'address.port-forward-in-vain', when: { lookIn: 'forward', outside: 'shared-cgnat' }, says: /shares/ },
  { id: 'address.upnp', when: { opensByItself: true }, says: /by themselves/ },
];

test.each(CASES)('$id finds what is wrong, with its evidence', ({ id, when, says }) => {
  const row = judgeRow(ruleOf(id), { ...GOOD, ...when });
  expect(row?.finding?.because).toMatch(says);
  expect(row?.finding?.do.length).toBeGreaterThan(0);
});

test.each([...new Set(CASES.map(({ id }) => id))])('%s says nothing where its facts are missing', (id) => {
  const row = judgeRow(ruleOf(id), {});
  // not asked at all, or not known: never fine
  expect(row === null || row.verdict === 'unknown').toBe(true);
  expect(row?.finding ?? null).toBeNull();
});

test.each([
  { why: 'its gateway', networks: [{ ...HOUSE, gateway: null }], rule: 'address.gateways' },
  { why: 'its pool', networks: [{ ...HOUSE, pool: null }], rule: 'address.static-in-dhcp-range' },
  { why: 'how somebody looks in', networks: [HOUSE], rule: 'address.remote-access' },
])('a network of which nobody said $why is not called fine', ({ networks, rule }) => {
  const site = addressed({ camera: { keeping: 'static' }, networks });
  const [camera] = site.cameras;
  if (!camera) throw new Error('a camera');
  const { verdict, findings } = ADDRESS.judge(camera, viewOf(site, indexEvidence([])));
  expect(verdict).toBe('unknown');
  expect(findings.map((finding) => finding.rule)).toContain(rule);
});

test('no pool is needed where nobody hands out addresses', () => {
  const site = addressed({ camera: { keeping: 'static' }, networks: [{ ...HOUSE, pool: null, dhcpServers: 0 }] });
  expect(factsOf(site).isInPool).toBe(false);
});

test('every rule of the station has a case', () =>
  expect([...new Set(CASES.map(({ id }) => id))].sort()).toEqual(ADDRESS_RULES.map(({ id }) => id).sort()));

describe('a network', () => {
  test.each([
    { rule: 'network.addresses', change: { cidr: 'ten to twenty' }, says: /ten to twenty/ },
    {
      rule: 'network.public',
      change: { cidr: '11.0.0.0/24', gateway: null, pool: null },
      says: /somebody on the internet/,
    },
    { rule: 'network.gateway', change: { gateway: '10.77.5.1' }, says: /10\.77\.5\.1/ },
    { rule: 'network.gateway', change: { gateway: '10.77.4.255' }, says: /10\.77\.4\.255/ },
    { rule: 'network.dhcp-range', change: { pool: { from: '10.77.4.200', to: '10.77.5.20' } }, says: /10\.77\.5\.20/ },
    { rule: 'network.dhcp-range', change: { pool: { from: '10.77.4.99', to: '10.77.4.20' } }, says: /10\.77\.4\.99/ },
    {
      rule: 'network.dhcp-range-holds-gateway',
      change: { pool: { from: '10.77.4.1', to: '10.77.4.99' } },
      says: /10\.77\.4\.1 lies/,
    },
    { rule: 'network.overlap', change: { cidr: '10.77.0.0/16' }, says: /masks is wrong/ },
    { rule: 'network.two-servers', change: { dhcpServers: 2 }, says: /second router/ },
  ])('$rule: $says', ({ rule, change, says }) => {
    const found = networkFindings([{ ...HOUSE, ...change }, YARD]).filter(({ networkId }) => networkId === 'house');
    expect(found.map(({ finding }) => finding.rule)).toContain(rule);
    expect(found.find(({ finding }) => finding.rule === rule)?.finding.because).toMatch(says);
  });
  test('nothing is said of one that is described as it should be', () =>
    expect(networkFindings([HOUSE, YARD])).toEqual([]));
});

const factsOf = (site: Site): Facts<AddressFacts> => {
  const [camera] = site.cameras;
  if (!camera) throw new Error('a camera');
  return judgeAddress(camera, viewOf(site, indexEvidence(site.journal))).facts;
};

test('of an address that nobody entered there is nothing to ask yet: the next step asks for it', () => {
  const site = addressed();
  const [hung] = site.cameras;
  if (!hung) throw new Error('a camera');
  const { open, gates } = ADDRESS.judge({ ...hung, host: '' }, viewOf(site, indexEvidence(site.journal)));
  expect(open).toEqual([]);
  expect(gates.find(({ holds }) => !holds)?.next).toBe('Enter its address');
});

test('without a network nobody says that an address is fine', () => {
  const site = addressed({ networks: [] });
  const [camera] = site.cameras;
  const view = viewOf(site, indexEvidence([]));
  expect(camera && ADDRESS.judge(camera, view).verdict).toBe('unknown');
});

test.each([
  { why: 'never looked for', sweeps: [], seen: undefined },
  { why: 'in its place', sweeps: [swept([seenAt('10.77.4.21', { mac: '00-00-5E-00-53-21' })])], seen: 'in-place' },
  { why: 'moved', sweeps: [swept([seenAt('10.77.4.50', { mac: '00:00:5e:00:53:21' })])], seen: 'moved' },
  { why: 'gone', sweeps: [swept([])], seen: 'missing' },
  { why: 'not proven: no MAC address was seen', sweeps: [swept([seenAt('10.77.4.21')])], seen: 'unproven' },
])('what a look through the network says: $why', ({ sweeps, seen }) =>
  expect(factsOf(apply(addressed(), ...sweeps)).seen).toBe(seen),
);

test('who was not asked for is not missing', () => {
  const of = { networkId: 'house', sweepId: 'part', isWhole: true, calls: 21, seconds: 1, hosts: [] };
  const part = sweepRecords({ ...of, range: '10.77.4.100 to 10.77.4.120' });
  expect(factsOf(apply(addressed(), ...part)).seen).toBeUndefined();
});

// The vectors' plan check is a computation of its own: both must say the same of any plan.
const ISSUE_RULES: Readonly<Partial<Record<PlanIssue, string>>> = {
  'outside-subnet': 'address.outside',
  'is-network-address': 'address.no-host',
  'is-broadcast-address': 'address.no-host',
  'is-gateway': 'address.gateways',
  'static-in-pool': 'address.static-in-dhcp-range',
  'reservation-on-random-mac': 'address.mac-random',
  'duplicate-mac': 'address.mac-shared',
  'duplicate-ip': 'address.shared',
  'link-local': 'address.link-local',
};
const hosts = fc.oneof(
  fc.integer({ min: 0, max: 255 }).map((last) => `10.77.4.${last}`),
  fc.constantFrom('10.77.4.0', '10.77.4.255', '10.77.4.1', '169.254.3.4', '192.168.9.9', '10.77.4.120', '10.77.4.30'),
);
const MAC_A = '00:00:5e:00:53:01';
const MAC_B = '00:00:5e:00:53:02';
const macs = fc.constantFrom(MAC_A, MAC_B, '02:00:5e:00:53:03', '00:00:5e:00:53:04');
const devices = fc.array(
  fc.record({ ip: hosts, mac: macs, how: fc.constantFrom<Keeping>('static', 'reservation', 'dynamic') }),
  {
    minLength: 1,
    maxLength: 6,
  },
);

const plannedAt = (id: string, host: string, mac: string, more: Partial<Camera>): Camera => ({
  ...UNPLANNED,
  id,
  name: id,
  place: '',
  kind: 'camera',
  modelId: null,
  host,
  ports: { rtsp: 554 },
  account: null,
  streams: [],
  identity: { mac, serial: '', endpoint: '' },
  ...more,
});

test('at an address with many, nobody is hidden behind the channels of a box', () =>
  fc.assert(
    fc.property(
      fc.array(fc.record({ kind: fc.constantFrom('camera', 'channel'), mac: fc.constantFrom('', MAC_A, MAC_B) }), {
        minLength: 1,
        maxLength: 5,
      }),
      fc.constantFrom('', MAC_A),
      fc.nat({ max: 90 }),
      fc.boolean(),
      (others, boxMac, channels, isBoxFirst) => {
        const box = Array.from({ length: channels }, () => ({ kind: 'channel' as const, mac: boxMac }));
        const cameras = (isBoxFirst ? [...box, ...others] : [...others, ...box]).map(({ kind, mac }, at) =>
          plannedAt(`c${at}`, '10.77.4.21', mac, { kind }),
        );
        const view = viewOf({ ...emptySite('s', 'S'), networks: [HOUSE], cameras }, indexEvidence([]));
        for (const camera of cameras) {
          const { facts } = judgeAddress(camera, view);
          const { mac } = camera.identity;
          const all = cameras.filter((other) => !isDeviceOf(camera, other));
          expect((facts.sharedWith?.length ?? 0) > 0).toBe(all.length > 0);
          expect(facts.isSharedForSure).toBe(
            all.some((o) => mac !== '' && o.identity.mac !== '' && o.identity.mac !== mac),
          );
          const twins = all.filter((other) => mac !== '' && other.identity.mac === mac);
          expect((facts.macSharedWith?.length ?? 0) > 0).toBe(twins.length > 0);
        }
      },
    ),
    runs(80),
  ));

test('the station finds what the plan check finds, and nothing else of its kind', () =>
  fc.assert(
    fc.property(devices, (planned) => {
      const cameras = planned.map(({ ip, mac, how }, at) => plannedAt(`c${at}`, ip, mac, { keeping: how }));
      const site = { ...emptySite('s', 'S'), networks: [HOUSE], cameras };
      const view = viewOf(site, indexEvidence([]));
      const found = cameras.flatMap((camera) =>
        ADDRESS.judge(camera, view).findings.map(({ rule }) => `${camera.name} ${rule}`),
      );
      const cidr = parseCidr(HOUSE.cidr);
      if (!cidr) throw new Error('a network');
      const pool = { from: parseIpv4('10.77.4.100') ?? 0, to: parseIpv4('10.77.4.199') ?? 0 };
      const issues = checkPlan(
        { cidr, gateway: parseIpv4('10.77.4.1'), pool },
        planned.map((one, at) => ({ ...one, name: `c${at}` })),
      );
      const wanted = issues.flatMap(({ device, code }) => {
        const rule = ISSUE_RULES[code];
        return rule === undefined ? [] : [`${device} ${rule}`];
      });
      const ofPlan = new Set(Object.values(ISSUE_RULES));
      expect(found.filter((one) => ofPlan.has(one.split(' ')[1] ?? '')).sort()).toEqual([...new Set(wanted)].sort());
    }),
    runs(300),
  ));

test('openings are those between two networks, each once, with the port that is dialled', () => {
  const site = addressed({ camera: { host: '10.77.9.21', ports: { rtsp: 8554 } }, networks: [HOUSE, YARD] });
  expect(openingsOf(site)).toEqual([]); // nobody draws it
  const tap = {
    id: 't',
    cameraId: 'c',
    streamId: 'c-main',
    destinationId: 'loft',
    use: 'record',
    protocol: 'rtsp',
    schedule: { mode: 'continuous' },
  } as const;
  const drawn = apply(
    site,
    { kind: 'addTap', judged: 'fits', tap },
    { kind: 'addTap', judged: 'fits', tap: { ...tap, id: 't2', use: 'live' } },
  );
  const all = openingsOf(drawn);
  expect(all.map(({ from, toAddress, port }) => ({ from, toAddress, port }))).toContainEqual({
    from: 'Loft store',
    toAddress: '10.77.9.21',
    port: 8554,
  });
  expect(new Set(all.map(({ port }) => port)).size).toBe(all.length);
  expect(passageBetween([], 'network:house', 'network:yard')).toBeNull();
  expect(passageBetween([], 'network:house', 'network:house')).toBe('all');
  expect(sayIpv4(parseIpv4('10.77.4.21') ?? 0)).toBe('10.77.4.21');
});

/** Two networks and perhaps one for guests, as people describe them: with gaps. */
const described = fc
  .record({
    house: fc.record({
      gateway: fc.constantFrom(null, '10.77.4.1', '10.77.4.254'),
      pool: fc.constantFrom(null, { from: '10.77.4.2', to: '10.77.4.250' }, { from: '10.77.4.20', to: '10.77.4.99' }),
      dhcpServers: fc.constantFrom(null, 0, 1, 2),
    }),
    hasGuests: fc.boolean(),
    isGuestFirst: fc.boolean(),
  })
  .map(({ house, hasGuests, isGuestFirst }) => {
    const own = { ...HOUSE, ...house };
    const guests = { ...YARD, id: 'guests', name: 'Guests', cidr: '10.99.0.0/24', gateway: '10.99.0.1' };
    return hasGuests ? (isGuestFirst ? [guests, own] : [own, guests]) : [own];
  });

test('whatever a mend does: no guest network, no address that may be the router’s, none static where a server assigns', () => {
  const cameras = fc.record({
    host: fc.constantFrom(
      '10.77.4.21',
      '10.77.4.1',
      '10.77.4.255',
      '169.254.3.4',
      '8.8.8.8',
      '192.168.9.9',
      '10.77.4.60',
    ),
    keeping: fc.constantFrom<Keeping | null>('static', 'reservation', 'dynamic', null),
  });
  fc.assert(
    fc.property(described, cameras, (networks, change) => {
      const site = addressed({ camera: change, networks });
      const view = viewOf(site, indexEvidence([]));
      const [before] = site.cameras;
      if (!before) throw new Error('a camera');
      for (const { rule } of ADDRESS.judge(before, view).findings)
        for (const { command } of ADDRESS.mends(before, rule, view)) {
          const after = apply(site, command).cameras.find(({ id }) => id === before.id);
          if (!after || (after.host === before.host && after.keeping === before.keeping)) continue;
          const last = Number(after.host.split('.')[3]);
          const house = networks.find(({ id }) => id === 'house') ?? HOUSE;
          if (after.host !== before.host) {
            expect(after.host).toMatch(/^10\.77\.4\./);
            expect([0, 255]).not.toContain(last);
            if (house.gateway === null) expect([1, 254]).not.toContain(last);
            expect(after.host).not.toBe(house.gateway);
          }
          if (after.keeping === 'static' && before.keeping !== 'static' && /^10\.77\.4\./.test(after.host)) {
            expect(house.pool !== null || house.dhcpServers === 0).toBe(true);
            const [from, to] = [house.pool?.from, house.pool?.to].map((end) => Number(end?.split('.')[3] ?? -1));
            if (house.dhcpServers !== 0) expect(last >= (from ?? 0) && last <= (to ?? 0)).toBe(false);
          }
          if (after.keeping === 'reservation' && before.keeping !== 'reservation')
            expect(house.dhcpServers).not.toBe(0);
        }
    }),
    runs(300),
  );
});

test('a time server is judged by what may be opened to where it is', () => {
  const places = {
    '10.77.4.1': 'house',
    '10.77.9.7': 'yard',
    '192.0.2.9': 'nowhere',
    '9.9.9.9': 'internet',
    'time.example.net': 'internet',
    'ntp.home.arpa': 'unknown',
    'clock.local': 'unknown',
    router: 'unknown',
    'fd00::1': 'unknown',
    '2001:500::1': 'internet',
  } as const;
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.keys(places).map((ntp) => ntp as keyof typeof places)),
      fc.constantFrom('all', 'listed', 'none', null),
      fc.constantFrom('all', 'listed', 'none', null),
      (ntp, toYard, toInternet) => {
        const row = (to: string, allowed: 'all' | 'listed' | 'none' | null) =>
          allowed === null ? [] : [{ from: 'network:house', to, allowed }];
        const site = addressed({
          networks: [{ ...HOUSE, ntp }, YARD],
          reach: { rows: [...row('network:yard', toYard), ...row('internet', toInternet)] },
        });
        const place = places[ntp];
        const allowed =
          place === 'house' ? 'all' : place === 'yard' ? toYard : place === 'internet' ? toInternet : null;
        const wanted =
          allowed === 'all'
            ? 'reachable'
            : allowed === 'none'
              ? 'blocked'
              : allowed === 'listed' && place === 'internet'
                ? 'blocked'
                : 'unknown';
        expect(factsOf(site).ntpReach).toBe(wanted);
      },
    ),
    runs(200),
  );
});

test('a network is private where every address of it is', () => {
  const kinds = (cidr: string) =>
    networkFindings([{ ...HOUSE, cidr, gateway: null, pool: null }]).some(
      ({ finding }) => finding.rule === 'network.public',
    );
  fc.assert(
    fc.property(
      fc.integer({ min: 8, max: 30 }),
      fc.constantFrom(
        '10.0.0.0',
        '172.16.0.0',
        '172.31.255.0',
        '192.168.0.0',
        '192.168.255.0',
        '172.15.0.0',
        '11.0.0.0',
        '198.18.0.0',
      ),
      (prefix, at) => {
        const block = parseCidr(`${at}/${prefix}`);
        if (!block) throw new Error('a block');
        const first = block.network;
        const last = first + 2 ** (32 - prefix) - 1;
        // by the two ends of each private block of RFC 1918
        const isWithin = [
          ['10.0.0.0', '10.255.255.255'],
          ['172.16.0.0', '172.31.255.255'],
          ['192.168.0.0', '192.168.255.255'],
        ].some(([from, to]) => first >= (parseIpv4(from ?? '') ?? 0) && last <= (parseIpv4(to ?? '') ?? 0));
        expect(kinds(`${at}/${prefix}`)).toBe(!isWithin);
      },
    ),
    runs(100),
  );
});

test('over UDP the media comes from the camera, to ports of its client; what no model says of ONVIF is not known', () => {
  const site = tapped(addressed({ camera: { host: '10.77.9.21', modelId: null }, networks: [HOUSE, YARD] }));
  const onvif = {
    ...site,
    destinations: site.destinations.map((one) => ({ ...one, protocols: ['rtsp', 'onvif'] as const })),
  };
  const told = (transport: 'tcp' | 'udp') =>
    openingsOf(onvif, () => transport).map(
      ({ protocol, from, port, isKnown }) => `${protocol} ${from} ${port} ${isKnown}`,
    );
  const [destination] = onvif.destinations.filter(({ id }) => id === onvif.taps[0]?.destinationId);
  const [one] = onvif.cameras;
  expect(told('udp')).toEqual([
    `tcp ${destination?.name} 554 true`,
    `udp ${one?.name} null true`,
    `udp ${destination?.name} null true`,
    `tcp ${destination?.name} 80 false`,
  ]);
  expect(told('tcp')).toEqual([`tcp ${destination?.name} 554 true`, `tcp ${destination?.name} 80 false`]);
});

test('a channel of a recorder has the recorder’s address, and is no second device there', () => {
  const of = (kind: Camera['kind']) => factsOf(addressed({ camera: { host: '10.77.4.10', kind } }));
  expect(of('channel').sharedWith).toEqual([]);
  const other = of('camera');
  expect(other.sharedWith).toHaveLength(1);
  expect(other.isSharedForSure).toBe(false);
});

test.each([
  { why: 'both are of makers', own: MAC_A, seen: MAC_B, rule: 'address.other-device', verdict: 'will-not-work' },
  { why: 'one is made up', own: MAC_A, seen: '02:00:5e:00:53:03', rule: 'address.other-device', verdict: 'unknown' },
  {
    why: 'the other is made up',
    own: '02:00:5e:00:53:03',
    seen: MAC_B,
    rule: 'address.other-device',
    verdict: 'unknown',
  },
  { why: 'they are the same', own: MAC_A, seen: MAC_A, rule: 'address.other-device', verdict: 'ok' },
])('two MAC addresses at one static address: $why', ({ own, seen, rule, verdict }) => {
  const site = apply(
    addressed({ camera: { keeping: 'static', identity: { mac: own, serial: '', endpoint: '' } } }),
    swept([seenAt('10.77.4.21', { mac: seen })]),
  );
  expect(judgeRow(ruleOf(rule), factsOf(site))?.verdict).toBe(verdict);
});

test('a serial number is the same however it is written', () => {
  const site = apply(
    addressed({ camera: { identity: { mac: '', serial: 'ab-12 34/CD', endpoint: '' } } }),
    swept([seenAt('10.77.4.60', { serial: 'AB1234CD' })]),
  );
  expect(factsOf(site).seen).toBe('moved');
});
