import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import Papa from 'papaparse';
import { addressed, HOUSE, MAC } from '../../../tests/support/address-sites.ts';
import { runs } from '../../../tests/support/runs.ts';
import { camera } from '../../../tests/support/sites.ts';
import { bytesOf } from '../base/bytes.ts';
import { leaseChanges } from '../evidence/lease-changes.ts';
import { asDnsmasq, asKea, asLeaseCsv, asRouterSheet, reservationsOf } from '../handover/router-files.ts';
import { hostNameOf } from '../net/host-name.ts';
import { MAX_LEASE_BYTES, readLeaseFile } from './lease-file.ts';

const read = (text: string) => readLeaseFile(bytesOf(text));
const entriesOf = (text: string) => {
  const found = read(text);
  if (!found.ok) throw new Error(found.error.message);
  return found.value.entries.map(({ kind, mac, ip, name }) => ({ kind, mac, ip, name }));
};
const reserved = { kind: 'reservation', mac: MAC, ip: '10.77.4.21', name: 'sluice-rail' };

test.each([
  { why: 'a line of dnsmasq', text: `dhcp-host=${MAC},10.77.4.21,sluice-rail\n` },
  {
    why: 'its parts in another order, with a time',
    text: `# hosts\ndhcp-host=sluice-rail,00-00-5E-00-53-21,12h,10.77.4.21 # the gate\n`,
  },
  { why: 'a tag and an identity', text: `dhcp-host=${MAC},set:cams,id:01:02,10.77.4.21,sluice-rail,infinite\r\n` },
  {
    why: 'Kea with comments',
    text: `{ // server\n "Dhcp4": { # all\n "subnet4": [ { "subnet": "10.77.4.0/24", "reservations": [ { "hw-address": "${MAC}", /* its plug */ "ip-address": "10.77.4.21", "hostname": "sluice-rail" } ] } ] } }`,
  },
  {
    why: 'Kea with reservations of all subnets',
    text: `{"Dhcp4":{"reservations":[{"hw-address":"${MAC}","ip-address":"10.77.4.21","hostname":"sluice-rail"}]}}`,
  },
  { why: 'a table', text: `Hostname,MAC address,IP address\nsluice-rail,${MAC},10.77.4.21\n` },
  { why: 'a table with semicolons', text: `ip;mac;name\r\n10.77.4.21;${MAC};sluice-rail\r\n` },
  { why: 'blanks about the sign', text: `dhcp-host = ${MAC}, 10.77.4.21, sluice-rail, 4w\n` },
  { why: 'a file of hosts alone', text: `# gate\n${MAC},10.77.4.21,sluice-rail,2w # the gate\n` },
  {
    why: 'Kea that begins with a comment, and a comma too many',
    text: `# reservations\n{"Dhcp4":{"reservations":[{"hw-address":"${MAC}","ip-address":"10.77.4.21","hostname":"sluice-rail",},],},}\n`,
  },
  {
    why: 'a table that says what divides it',
    text: `sep=;\r\nDevice name;Fixed IP;Physical Address\r\nsluice-rail;10.77.4.21;${MAC}\r\n`,
  },
])('a reservation is read: $why', ({ text }) => expect(entriesOf(text)).toEqual([reserved]));

test.each([
  {
    why: 'of dnsmasq',
    text: `1796000000 ${MAC} 10.77.4.21 sluice-rail 01:00:00\nduid 00:01\n1796000000 1 fd00::2 x *\n`,
  },
  {
    why: 'of Kea',
    text: `address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state\n10.77.4.21,${MAC},,3600,1796000000,1,0,0,sluice-rail,0\n`,
  },
  {
    why: 'as Kea answers',
    text: `[{"result":0,"arguments":{"leases":[{"hw-address":"${MAC}","ip-address":"10.77.4.21","hostname":"sluice-rail"}]}}]`,
  },
])('a lease is read: $why', ({ text }) => expect(entriesOf(text)).toEqual([{ ...reserved, kind: 'lease' }]));

test('of leases that are written on and on the last line of each address counts', () => {
  const line = (ip: string, mac: string, lifetime: number, name: string, state: number) =>
    `${ip},${mac},,${lifetime},1796000000,1,0,0,${name},${state}`;
  const text = [
    'address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state',
    line('10.77.4.21', '00:00:5e:00:53:99', 3600, 'before', 0),
    line('10.77.4.22', '00:00:5e:00:53:22', 3600, 'gone', 0),
    line('10.77.4.23', '', 3600, '', 1), // declined
    line('10.77.4.21', MAC, 3600, 'sluice-rail', 0),
    line('10.77.4.22', '00:00:5e:00:53:22', 0, 'gone', 0), // released
    line('10.77.4.24', '00:00:5e:00:53:24', 3600, 'ended', 2),
  ].join('\n');
  expect(entriesOf(text)).toEqual([{ ...reserved, kind: 'lease' }]);
});

test('commas and comments inside texts stay', () => {
  const name = 'a,]b#c//d';
  const text = `{"Dhcp4":{"reservations":[{"hw-address":"${MAC}","ip-address":"10.77.4.21","hostname":"${name}",}]}}`;
  expect(entriesOf(text)).toEqual([{ ...reserved, name }]);
});

test.each([
  { why: 'another encoding', bytes: new Uint8Array([0x64, 0x68, 0xe9, 0x0a]), code: 'lease.encoding' },
  { why: 'two bytes a sign without a mark', bytes: new Uint8Array([0x64, 0, 0x68, 0]), code: 'lease.encoding' },
  { why: '50 MB', bytes: new Uint8Array(50 * 1024 * 1024), code: 'lease.too-large' },
  { why: 'half of a JSON', bytes: bytesOf('{"Dhcp4": {'), code: 'lease.not-json' },
  { why: 'a letter to the customer', bytes: bytesOf('Dear owner,\nthe cameras are in.\n'), code: 'lease.empty' },
  { why: 'nothing', bytes: new Uint8Array(0), code: 'lease.empty' },
])('a file is refused in words: $why', ({ bytes, code }) => {
  const found = readLeaseFile(bytes);
  expect(found).toMatchObject({ ok: false, error: { code } });
  expect(!found.ok && found.error.message.length).toBeGreaterThan(30);
});

test('UTF-16 with its mark is text too', () => {
  const text = `dhcp-host=${MAC},10.77.4.21,sluice-rail\n`;
  const bytes = new Uint8Array(2 + 2 * text.length);
  bytes.set([0xff, 0xfe]);
  for (let at = 0; at < text.length; at++) bytes[2 + 2 * at] = text.charCodeAt(at);
  const found = readLeaseFile(bytes);
  expect(found.ok && found.value.entries).toHaveLength(1);
});

test('a million lines are gone through, and no more is kept than a site can have', () => {
  const line = '1 00:00:5e:0';
  const found = read(`${'#\n'.repeat(900_000)}${`${line}\n`.repeat(100_000)}`);
  expect(found.ok && found.value.problemCount).toBe(100_000);
  expect(found.ok && found.value.problems.length).toBeLessThanOrEqual(20);
});

test('of more reservations than a site can have those that are left out are counted', () => {
  const many = read(
    Array.from(
      { length: 60_000 },
      (_, at) =>
        `dhcp-host=00:00:5e:00:${(at >> 8).toString(16).padStart(2, '0').slice(-2)}:${(at & 255).toString(16).padStart(2, '0')},10.${at >> 16}.${(at >> 8) & 255}.${at & 255}`,
    ).join('\n'),
  );
  expect(many.ok && many.value.entries.length).toBe(5000);
  expect(many.ok && many.value.leftOut).toBe(55_000);
  expect(MAX_LEASE_BYTES).toBeGreaterThan(60_000 * 40);
});

test('what cannot be read is named with its line, and the rest is kept', () => {
  const found = read(
    `dhcp-host=nonsense\ndhcp-host=${MAC},10.77.4.21\ndhcp-host=${MAC}\n1796000000 ${MAC} 10.77.4.999 x *\n`,
  );
  expect(found.ok && found.value.entries.map(({ line }) => line)).toEqual([2]);
  expect(found.ok && found.value.problems.map(({ line }) => line)).toEqual([1, 3, 4]);
});

test('any bytes give entries or a reason', () =>
  fc.assert(
    fc.property(
      fc.oneof(
        fc.uint8Array({ maxLength: 500 }),
        fc.string({ unit: 'grapheme', maxLength: 300 }).map((text) => bytesOf(`mac,ip\n${text}`)),
        fc.string({ maxLength: 200 }).map((text) => bytesOf(`dhcp-host=${text}\n{${text}`)),
        fc.json().map((text) => bytesOf(`{"Dhcp4":{"reservations":${text}}}`)),
        fc.string({ maxLength: 100 }).map((text) => bytesOf(`{"a": "${text}" /* ${text}`)),
      ),
      (bytes) => {
        const found = readLeaseFile(bytes);
        if (!found.ok) expect(found.error.message).not.toBe('');
        else for (const { name } of found.value.entries) expect(name.length).toBeLessThanOrEqual(80);
      },
    ),
  ));

describe('out to a router and back', () => {
  const site = addressed({
    more: [
      camera('d', {
        name: 'Weir = gate',
        host: '10.77.4.30',
        keeping: 'reservation',
        identity: { mac: '00:00:5e:00:53:30', serial: '', endpoint: '' },
      }),
      camera('e', {
        name: '=1+1',
        host: '10.77.4.31',
        keeping: 'reservation',
        identity: { mac: '', serial: '', endpoint: '' },
      }),
      camera('f', {
        name: 'Shed',
        host: '10.77.4.32',
        keeping: 'static',
        identity: { mac: '00:00:5e:00:53:32', serial: '', endpoint: '' },
      }),
    ],
  });
  const { ready, missing } = reservationsOf(site, HOUSE);
  const back = ready.map(({ mac, ip, name }) => ({ kind: 'reservation', mac, ip, name }));

  test('those that can be entered are ready, and the others say what is missing', () => {
    expect(ready.map(({ ip }) => ip)).toEqual(['10.77.4.21', '10.77.4.30']);
    expect(missing).toEqual([{ camera: '=1+1', why: 'its MAC address is not known' }]);
  });
  test.each([
    { format: 'dnsmasq', text: asDnsmasq(ready) },
    { format: 'Kea', text: asKea(ready, HOUSE) },
    { format: 'CSV', text: asLeaseCsv(ready) },
  ])('what is written as $format is read as it was', ({ text }) => expect(entriesOf(text)).toEqual(back));
  test('whatever cameras are called, their reservations come back as they went', () => {
    const odd = fc.oneof(
      fc.constantFrom('101', '3d', '12h', 'infinite', 'ignore', '00005E005399', 'aa bb cc dd ee ff', '-', '10.77.4.9'),
      fc.string({ unit: 'grapheme', maxLength: 40 }),
    );
    fc.assert(
      fc.property(fc.array(odd, { minLength: 1, maxLength: 12 }), (names) => {
        const cameras = names.map((name, at) =>
          camera(`n${at}`, {
            name,
            host: `10.77.4.${40 + at}`,
            keeping: 'reservation',
            identity: { mac: `00:00:5e:00:54:${(16 + at).toString(16)}`, serial: '', endpoint: '' },
          }),
        );
        const { ready: all } = reservationsOf({ cameras, networks: [HOUSE] }, HOUSE);
        expect(all).toHaveLength(names.length);
        const wanted = all.map(({ mac, ip, name }) => ({ kind: 'reservation', mac, ip, name }));
        for (const text of [asDnsmasq(all), asKea(all, HOUSE), asLeaseCsv(all)])
          expect(entriesOf(text)).toEqual(wanted);
      }),
      runs(100),
    );
  });
  test.each([
    { why: 'the router itself', more: { host: '10.77.4.1' }, says: /router/ },
    { why: 'all of the network', more: { host: '10.77.4.255' }, says: /no host address/ },
    {
      why: 'who makes its MAC address up',
      more: { identity: { mac: '02:00:5e:00:53:21', serial: '', endpoint: '' } },
      says: /random/,
    },
  ])('nothing is reserved for $why', ({ more, says }) => {
    const found = reservationsOf(addressed({ camera: more }), HOUSE);
    expect(found.ready).toEqual([]);
    expect(found.missing[0]?.why).toMatch(says);
  });
  test('others read it too: JSON by JSON, a table by a reader of tables', () => {
    expect(JSON.parse(asKea(ready, HOUSE)).Dhcp4.subnet4[0].reservations).toHaveLength(2);
    expect(
      Papa.parse<{ mac: string }>(asLeaseCsv(ready), { header: true, skipEmptyLines: true }).data.map(({ mac }) => mac),
    ).toEqual(ready.map(({ mac }) => mac));
  });
  test('a sheet to type from names each, and what is not ready', () => {
    const sheet = asRouterSheet({ ready, missing }, HOUSE, 'Mill');
    expect(sheet).toContain('00:00:5e:00:53:30  10.77.4.30');
    expect(sheet).toContain('=1+1: its MAC address is not known');
  });
  test('what a file would change is said before, and nothing of what is so already', () => {
    const found = read(
      `dhcp-host=${MAC},10.77.4.99,c\ndhcp-host=00:00:5e:00:53:30,10.77.4.30\ndhcp-host=00:00:5e:00:53:31,10.77.4.31\ndhcp-host=00:00:5e:00:53:ee,10.77.4.77\n`,
    );
    const changes = leaseChanges(site, found.ok ? found.value.entries : []);
    expect(changes.map(({ camera: one, by, said }) => [one?.id ?? null, by, said])).toEqual([
      ['c', 'mac', ['address 10.77.4.21 → 10.77.4.99']],
      ['d', 'mac', []],
      ['e', 'address', ['MAC address 00:00:5e:00:53:31']],
      [null, null, []],
    ]);
  });
  test.each([
    ['Sluice rail', 'sluice-rail'],
    ['Überlauf №2', 'uberlauf-no2'],
    ['--', 'camera'],
    ['x'.repeat(100), 'x'.repeat(63)],
  ])('a name as host names are: %s', (name, host) => expect(hostNameOf(name)).toBe(host));
});

test.each([
  { why: 'dnsmasq', text: `dhcp-host=${MAC},10.77.4.21,gate\n`.repeat(9000) },
  { why: 'a table', text: `mac,ip,name\n${`${MAC},10.77.4.21,gate\n`.repeat(9000)}` },
])('a long file of $why tells how far it is read', ({ text }) => {
  const told: number[] = [];
  readLeaseFile(bytesOf(text), (share) => told.push(Math.round(share * 9)));
  expect(told).toEqual([2, 4, 6, 8]);
});
