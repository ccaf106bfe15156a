import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import ipaddr from 'ipaddr.js';
import { cidrInfo } from '../reference/subnets.ts';
import { parseArpTable } from './arp-table.ts';
import { classify, holds, networkOf, parseCidr, parseIpv4, sayCidr, sayIpv4 } from './ipv4.ts';
import { parseMac } from './mac.ts';
import { countOf, parseScanRange } from './scan-range.ts';

// Numbers and masks of every kind are held by the vectors (tests/vectors/subnet.json); here is what they leave out.

test.each([
  { text: '10.77.4.0/24', count: 254 },
  { text: '10.77.4.9/24', count: 254 },
  { text: ' 10.77.4.0/22 ', count: 1022 },
  { text: '10.77.4.21', count: 1 },
  { text: '10.77.4.10-99', count: 90 },
  { text: '10.77.4.250 - 10.77.5.4', count: 11 },
  { text: '127.0.0.0/30', count: 2 },
  { text: '10.0.0.4/31', count: 2 },
])('a range as people write it: $text', ({ text, count }) => {
  const read = parseScanRange(text);
  expect(read.ok && countOf(read.value)).toBe(count);
});

test.each([
  { text: '', code: 'range.empty' },
  { text: '10.77.0.0/21', code: 'range.too-large' },
  { text: '10.0.0.0-10.255.255.255', code: 'range.too-large' },
  { text: '010.77.4.0/24', code: 'range.notation' },
  { text: '0x0a.77.4.1', code: 'range.notation' },
  { text: '173880341', code: 'range.notation' },
  { text: '10.1', code: 'range.notation' },
  { text: 'fd00::/64', code: 'range.ipv6' },
  { text: 'fe80::1', code: 'range.ipv6' },
  { text: '10.77.4.99-10', code: 'range.backwards' },
  { text: '8.8.8.0/24', code: 'range.not-private' },
  { text: '224.0.0.0/28', code: 'range.not-private' },
  { text: '10.77.4.300', code: 'range.not-an-address' },
  { text: 'mill.local', code: 'range.not-an-address' },
  { text: '10.77.4.0/33', code: 'range.not-an-address' },
  { text: '1-2-3', code: 'range.not-an-address' },
  { text: 'x'.repeat(1_000_000), code: 'range.not-an-address' },
])('a range is refused in words: $code', ({ text, code }) => {
  const read = parseScanRange(text);
  expect(read).toMatchObject({ ok: false, error: { code } });
  expect(!read.ok && read.error.message.length).toBeGreaterThan(20);
});

test('any text gives a bounded range or a reason', () =>
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9./x-]{0,30}$/)), (text) => {
      const read = parseScanRange(text);
      if (!read.ok) return expect(read.error.message).not.toBe('');
      expect(countOf(read.value)).toBeGreaterThanOrEqual(1);
      expect(countOf(read.value)).toBeLessThanOrEqual(1022);
    }),
  ));

test('an address and its text are one', () =>
  fc.assert(
    fc.property(fc.nat({ max: 2 ** 32 - 1 }), fc.integer({ min: 0, max: 32 }), (address, prefix) => {
      expect(parseIpv4(sayIpv4(address))).toBe(address);
      const cidr = { network: networkOf(address, prefix), prefix };
      expect(holds(cidr, address)).toBe(true);
      expect(parseCidr(sayCidr(cidr))).toEqual(cidr);
      expect(parseIpv4(cidrInfo(cidr).network)).toBe(cidr.network);
      expect(classify(address)).not.toBe('');
    }),
  ));

test('an address is read as a library reads it strictly', () =>
  fc.assert(
    fc.property(
      fc.oneof(
        fc.ipV4(),
        fc.stringMatching(/^[0-9.x]{0,18}$/),
        fc.array(fc.integer({ min: 0, max: 300 }), { minLength: 3, maxLength: 5 }).map((parts) => parts.join('.')),
        fc.ipV6(),
      ),
      (text) => {
        const strict = ipaddr.IPv4.isValidFourPartDecimal(text);
        const value = strict ? ipaddr.IPv4.parse(text).octets.reduce((sum, octet) => sum * 256 + octet, 0) : null;
        expect(parseIpv4(text)).toBe(value);
      },
    ),
  ));

test.each([
  { text: '00-00-5E-00-53-21', mac: '00:00:5e:00:53:21' },
  { text: '0:0:5e:0:53:1', mac: '00:00:5e:00:53:01' },
  { text: '0000.5e00.5321', mac: '00:00:5e:00:53:21' },
  { text: '00005E005321', mac: '00:00:5e:00:53:21' },
  { text: ' 00:00:5e:00:53:21 ', mac: '00:00:5e:00:53:21' },
  { text: '00:00-5e:00:53:21', mac: null },
  { text: '00:00:5e:00:53', mac: null },
  { text: '00:00:5e:00:53:21:00', mac: null },
  { text: 'OO:00:5e:00:53:21', mac: null },
  { text: '000:00:5e:00:53:21', mac: null },
  { text: '0'.repeat(1_000_000), mac: null },
])('a MAC address in every notation: $text', ({ text, mac }) => expect(parseMac(text)?.mac ?? null).toBe(mac));

test.each([
  {
    why: 'as Linux has it',
    text: 'IP address       HW type     Flags       HW address            Mask     Device\n10.77.4.21       0x1         0x2         00:00:5e:00:53:21     *        eth0\n10.77.4.22       0x1         0x0         00:00:00:00:00:00     *        eth0\n',
  },
  {
    why: 'with brackets',
    text: '? (10.77.4.21) at 0:0:5e:0:53:21 on en0 ifscope [ethernet]\n? (10.77.4.22) at (incomplete) on en0\n',
  },
  {
    why: 'with dashes',
    text: 'Interface: 10.77.4.5 --- 0xb\r\n  10.77.4.21           00-00-5e-00-53-21     dynamic\r\n',
  },
])('a table of neighbours: $why', ({ text }) =>
  expect([...parseArpTable(text)]).toEqual([['10.77.4.21', '00:00:5e:00:53:21']]),
);

test('a table of neighbours of any size is read within its bounds', () => {
  const text = Array.from(
    { length: 200_000 },
    (_, at) => `10.${at % 256}.${Math.floor(at / 256) % 256}.9 00:00:5e:00:53:21`,
  ).join('\n');
  expect(parseArpTable(text).size).toBeLessThanOrEqual(10_000);
});
