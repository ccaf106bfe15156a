import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bytesFromHex } from '../base/bytes.ts';
import { JitterMeter } from './jitter.ts';
import { ReceptionCounter } from './reception.ts';
import { parseRtpPacket } from './rtp-packet.ts';
import { findSenderReport, takenUnixMs, writeSenderReport } from './sender-report.ts';

const bytes = (hex: string): Uint8Array => {
  const read = bytesFromHex(hex.replaceAll(' ', ''));
  if (!read.ok) throw new Error(hex);
  return read.value;
};

// RFC 3550 §5.1: V=2 P X CC | M PT | sequence number | timestamp | SSRC | CSRC… | extension | payload | padding
test.each([
  { why: 'plain', hex: '80 e0 0001 00000bb8 deadbeef 41', marker: true, payloadType: 96, payload: [0x41] },
  {
    why: 'with two CSRCs',
    hex: '82 60 0001 00000bb8 deadbeef 00000001 00000002 41',
    marker: false,
    payloadType: 96,
    payload: [0x41],
  },
  {
    why: 'with a header extension',
    hex: '90 60 0001 00000bb8 deadbeef bede 0001 01020304 41',
    marker: false,
    payloadType: 96,
    payload: [0x41],
  },
  {
    why: 'with padding',
    hex: 'a0 60 0001 00000bb8 deadbeef 41 000003',
    marker: false,
    payloadType: 96,
    payload: [0x41],
  },
])('reads a packet: $why', ({ hex, marker, payloadType, payload }) => {
  const parsed = parseRtpPacket(bytes(hex));
  expect(parsed).toMatchObject({
    ok: true,
    value: { marker, payloadType, sequenceNumber: 1, rtpTimestamp: 3000, ssrc: 0xdeadbeef },
  });
  expect(parsed.ok && [...parsed.value.payload]).toEqual(payload);
});

test.each([
  { why: 'version 1', hex: '40 60 0001 00000bb8 deadbeef', code: 'rtp.version' },
  { why: 'padding longer than the packet', hex: 'a0 60 0001 00000bb8 deadbeef 41 ff', code: 'rtp.padding' },
  { why: 'padding of nothing', hex: 'a0 60 0001 00000bb8 deadbeef 41 00', code: 'rtp.padding' },
  { why: 'an extension that is not there', hex: '90 60 0001 00000bb8 deadbeef bede 0009', code: 'rtp.truncated' },
])('refuses $why', ({ hex, code }) => expect(parseRtpPacket(bytes(hex))).toMatchObject({ ok: false, error: { code } }));

test('cut off at every byte, a header is refused by name', () => {
  const packet = bytes('90 60 0001 00000bb8 deadbeef bede 0001 01020304');
  for (let length = 0; length < packet.length; length++)
    expect(parseRtpPacket(packet.subarray(0, length))).toMatchObject({ ok: false, error: { code: 'rtp.truncated' } });
});

test('any loss, repetition and start: what never arrived is counted exactly', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 65_535 }),
      fc.array(fc.constantFrom('sent', 'sent', 'sent', 'lost', 'twice'), { minLength: 1, maxLength: 400 }),
      (first, fates) => {
        const counter = new ReceptionCounter(0);
        let lastArrived = -1;
        let firstArrived = -1;
        let twice = 0;
        for (const [index, fate] of fates.entries()) {
          if (fate === 'lost') continue;
          if (firstArrived < 0) firstArrived = index;
          lastArrived = index;
          counter.push((first + index) % 65_536);
          if (fate === 'twice') {
            counter.push((first + index) % 65_536);
            twice += 1;
          }
        }
        const lost = fates.slice(Math.max(0, firstArrived), lastArrived + 1).filter((fate) => fate === 'lost').length;
        expect(counter.counts.neverArrived).toBe(lost);
        expect(counter.counts.duplicates).toBe(twice);
      },
    ),
  );
});

test('a packet that comes late is not lost, and not a repetition', () => {
  const counter = new ReceptionCounter(0);
  expect([10, 12, 11, 13].map((seq) => counter.push(seq))).toEqual(['newest', 'newest', 'behind', 'newest']);
  expect(counter.counts).toMatchObject({ neverArrived: 0, late: 1, duplicates: 0 });
});

test('jitter of an even stream is nothing, of one late packet a sixteenth of its lateness', () => {
  const even = new JitterMeter(90_000);
  for (let frame = 0; frame < 30; frame++) even.push(frame * 6000, (frame * 1000) / 15);
  expect(even.value.jitterMs).toBeLessThan(0.01);
  const late = new JitterMeter(90_000);
  late.push(0, 0);
  late.push(9000, 116); // 16 ms late: J = 16 ÷ 16 = 1 ms
  expect(late.value.jitterMs).toBeCloseTo(1, 5);
});

// RFC 5905 §6: 2026-11-25 08:46:55.5 UTC is 1 795 596 415.5 s after 1970.
const report = { ssrc: 7, unixMs: 1_795_596_415_500, rtpTimestamp: 123_456, packetCount: 9 };

test.each([
  { why: 'no time at all', unixMs: -2_208_988_800_000 },
  { why: 'the time since it started', unixMs: -2_208_988_800_000 + 3_600_500 },
])('a sender report with $why has no clock, and is answered all the same', ({ unixMs }) => {
  const read = findSenderReport(writeSenderReport({ ...report, unixMs, octetCount: 1 }));
  expect(read).toMatchObject({ unixMs: null, rtpTimestamp: 123_456 });
  expect(takenUnixMs({ ...report, unixMs: null, ntpMiddle: 0 }, 1, 90_000)).toBeNull();
  // Seconds in the upper half, fractions in the lower: 3600.5 s.
  expect(read?.ntpMiddle).toBe(unixMs === -2_208_988_800_000 ? 0 : 3600 * 65_536 + 32_768);
});

test('a sender report that was written is read again', () => {
  const read = findSenderReport(writeSenderReport({ ...report, octetCount: 1 }));
  expect(read).toMatchObject({ ssrc: 7, rtpTimestamp: 123_456, packetCount: 9 });
  expect(read?.unixMs).toBeCloseTo(report.unixMs, 0);
});

test('a compound packet is searched, a cut one gives nothing', () => {
  const receiver = bytes('80 c9 0001 00000007'); // an empty receiver report before it
  const whole = new Uint8Array([...receiver, ...writeSenderReport({ ...report, octetCount: 1 })]);
  expect(findSenderReport(whole)?.ssrc).toBe(7);
  for (let length = 0; length < whole.length; length++) expect(findSenderReport(whole.subarray(0, length))).toBeNull();
});

test.each([
  { why: 'a second later', rtpTimestamp: 123_456 + 90_000, afterMs: 1000 },
  { why: 'before it', rtpTimestamp: 123_456 - 45_000, afterMs: -500 },
  { why: 'across the wrap', rtpTimestamp: (123_456 + 2 ** 32 - 180_000) % 2 ** 32, afterMs: -2000 },
])('camera time of a picture: $why', ({ rtpTimestamp, afterMs }) => {
  expect(takenUnixMs({ ...report, ntpMiddle: 0 }, rtpTimestamp, 90_000)).toBeCloseTo(report.unixMs + afterMs, 3);
});
