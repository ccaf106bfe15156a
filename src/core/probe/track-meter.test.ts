import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type FakePacket, fakePackets, rtp, SPS_640 } from '../../../tests/support/fake-media.ts';
import { runs } from '../../../tests/support/runs.ts';
import type { SdpMedia } from '../sdp/sdp-types.ts';
import { PAYLOAD_READERS } from './picture-units.ts';
import { TrackMeter } from './track-meter.ts';

const media = (codec: string, kind: 'video' | 'audio' = 'video', clockRate = 90_000): SdpMedia => ({
  kind,
  transport: 'RTP/AVP',
  payloadType: 96,
  codec,
  clockRate,
  channels: null,
  fmtp: {},
  otherControl: null,
  control: '',
  direction: 'sendrecv',
  bandwidthKbps: null,
  framerate: null,
  dimensions: null,
  sps: null,
  aac: null,
  backchannel: false,
});

const STREAM = { fps: 15, groupFrames: 30, frames: 61 };

test('a clean stream: size, frames a second, key-frame interval and rate are those it was made with', () => {
  const meter = new TrackMeter(media('H264'));
  for (const { bytes, frame } of fakePackets(STREAM)) meter.push(bytes, (frame * 1000) / 15);
  const measured = meter.measured();
  expect(measured).toMatchObject({
    lost: 0,
    duplicates: 0,
    reordered: 0,
    lossRatio: 0,
    fps: 15,
    keyframeIntervalFrames: 30,
    keyframeIntervalSeconds: 2,
    width: 640,
    height: 360,
  });
  expect(measured?.seconds).toBeCloseTo(4, 2);
  // A group: 12,000 + 29 × 1,500 bytes of NAL units, plus a few bytes of fragment headers and parameter sets, in 2 s.
  expect(measured?.bitrateKbps).toBeGreaterThan(((12_000 + 29 * 1500) * 8) / 2 / 1000);
  expect(measured?.bitrateKbps).toBeLessThan(((12_000 + 29 * 1500) * 8) / 2 / 1000 + 2);
});

test('a sample without a second key frame gives no interval, and a rate over the whole sample', () => {
  const meter = new TrackMeter(media('H264'));
  for (const { bytes, frame } of fakePackets({ ...STREAM, frames: 20 })) meter.push(bytes, (frame * 1000) / 15);
  expect(meter.measured()).toMatchObject({ keyframeIntervalFrames: null, keyframeIntervalSeconds: null, fps: 15 });
});

test.each([
  { why: 'every 25th packet lost', keep: (index: number) => index % 25 !== 24 },
  { why: 'a burst of 12', keep: (index: number) => index < 40 || index >= 52 },
])('loss is counted to the packet: $why', ({ keep }) => {
  const packets = fakePackets(STREAM);
  const meter = new TrackMeter(media('H264'));
  for (const [index, { bytes, frame }] of packets.entries()) if (keep(index)) meter.push(bytes, (frame * 1000) / 15);
  const lost = packets.filter((_, index) => !keep(index)).length;
  expect(meter.measured()).toMatchObject({ lost, packets: packets.length - lost });
});

/** What a perfect line measures of it. */
function measuredOf(packets: readonly FakePacket[], atMs: (packet: FakePacket) => number) {
  const meter = new TrackMeter(media('H264'));
  for (const packet of packets) meter.push(packet.bytes, atMs(packet));
  return meter.measured();
}
const clean = measuredOf(fakePackets(STREAM), ({ frame }) => (frame * 1000) / 15);

test('time stamps that run twice as fast as the packets are not believed: frames, rate and interval are by arrival', () => {
  const fast = measuredOf(fakePackets({ ...STREAM, clockHz: 180_000 }), ({ frame }) => (frame * 1000) / 15);
  expect(fast?.fps).toBeCloseTo(15, 1);
  expect(fast?.bitrateKbps).toBeCloseTo(clean?.bitrateKbps ?? 0, 0);
  expect(fast?.keyframeIntervalSeconds).toBeCloseTo(2, 2);
});

test('packets that come twice or three times are counted as that, and change nothing else', () => {
  const packets = fakePackets(STREAM).flatMap((packet) => [packet, packet, packet]);
  const thrice = measuredOf(packets, ({ frame }) => (frame * 1000) / 15);
  expect(thrice).toEqual({ ...clean, packets: packets.length, duplicates: (packets.length * 2) / 3 });
});

test('a relay that sends what it kept first is measured from where the stream is steady', () => {
  // The group of two seconds before comes within a tenth of one; then frames come as they are made.
  const packets = fakePackets({ ...STREAM, fps: 25, groupFrames: 50, frames: 150 });
  const measured = measuredOf(packets, ({ frame }) => (frame < 50 ? frame * 2 : 100 + (frame - 49) * 40));
  expect(measured?.fps).toBeCloseTo(25, 0);
  expect(measured?.keyframeIntervalFrames).toBe(50);
  expect(measured?.bitrateKbps).toBeCloseTo(((12_000 + 49 * 1500) * 8) / 2 / 1000, -1);
});

test('pictures that are sent before others that are shown earlier are no jitter on a perfect line', () => {
  // I P B B in decoding order: shown 0 3 1 2, each sent 40 ms after the one before.
  const shown = [0, 3, 1, 2];
  const meter = new TrackMeter(media('H264'));
  for (let frame = 0; frame < 200; frame++) {
    const stamp = (4 * Math.floor(frame / 4) + (shown[frame % 4] ?? 0)) * 3600;
    meter.push(rtp(frame, stamp, Uint8Array.of(frame % 40 === 0 ? 0x65 : 0x61, 1, 2), true), frame * 40);
  }
  expect(meter.measured()?.jitterMs).toBeLessThan(0.1);
});

test.each([
  { why: 'I P B B', shown: [0, 3, 1, 2] },
  { why: 'B-frames of B-frames', shown: [0, 8, 4, 2, 1, 3, 6, 5, 7] },
])(
  'a sample that ends anywhere between B-frames tells the same frames a second and the same clock: $why',
  ({ shown }) => {
    for (let frames = 80; frames < 100; frames++) {
      const meter = new TrackMeter(media('H264'));
      for (let frame = 0; frame < frames; frame++) {
        const group = Math.floor(frame / shown.length);
        const stamp = (shown.length * group + (shown[frame % shown.length] ?? 0)) * 4500;
        const isKey = frame % (2 * shown.length) === 0;
        meter.push(rtp(frame, stamp, Uint8Array.of(isKey ? 0x65 : 0x61, 1, 2), true), frame * 50);
      }
      expect(meter.measured()?.fps).toBeCloseTo(20, 2);
      expect(meter.measured()?.clockRatio).toBeCloseTo(1, 3);
    }
  },
);

test('many packets of one picture at once are no jitter; frames that come unevenly are', () => {
  expect(clean?.jitterMs).toBeLessThan(0.1);
  const uneven = measuredOf(fakePackets(STREAM), ({ frame }) => (frame * 1000) / 15 + (frame % 2) * 40);
  expect(uneven?.jitterMs).toBeCloseTo(40, -1);
});

test('a stall anywhere after the first second shows in the longest gap', () => {
  fc.assert(
    fc.property(fc.integer({ min: 20, max: 55 }), fc.integer({ min: 120, max: 600 }), (at, ms) => {
      const packets = fakePackets(STREAM);
      // held up: what was made meanwhile comes at once, when the line is free again
      const free = (at * 1000) / 15 + ms;
      const stalled = measuredOf(packets, ({ frame }) => {
        const made = (frame * 1000) / 15;
        return frame >= at ? Math.max(made, free) : made;
      });
      // the clock is told from the same frames, and takes a little of it
      expect(Math.abs((stalled?.longestGapMs ?? 0) / ms - 1)).toBeLessThan(0.03);
      expect(stalled?.clockRatioError).toBeGreaterThan(Math.abs((stalled?.clockRatio ?? 0) - 1) - 0.05);
    }),
    runs(40),
  );
  expect(clean?.longestGapMs).toBeLessThan(1);
});

test('jitter is what 95 of 100 frames stay within, counted one by one', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 61, maxLength: 61 }), (late) => {
      const meter = new TrackMeter(media('H264'));
      const cameMs = late.map((ms, frame) => (frame * 1000) / 15 + ms);
      for (const [frame, atMs] of cameMs.entries())
        meter.push(rtp(frame, frame * 6000, Uint8Array.of(frame % 30 === 0 ? 0x65 : 0x61, 1, 2), true), atMs);
      const counted = late.filter((_, frame) => (cameMs[frame] ?? 0) - (cameMs[0] ?? 0) >= 1000);
      const least = Math.min(...counted);
      const measured = meter.measured();
      const within = counted.filter((ms) => ms - least <= (measured?.jitterMs ?? 0) + 1).length;
      const below = counted.filter((ms) => ms - least < (measured?.jitterMs ?? 0) - 1).length;
      // a clock that is told a little off the true one moves every delay by less than its error allows
      const slack = Math.abs((measured?.clockRatio ?? 1) - 1) > (measured?.clockRatioError ?? 0) ? 3 : 0;
      expect(within).toBeGreaterThanOrEqual(Math.ceil(0.95 * counted.length) - slack);
      expect(below).toBeLessThan(Math.ceil(0.95 * counted.length) + slack);
    }),
    runs(60),
  );
});

test('a slow start is no other clock, and another clock is told with how well it is known', () => {
  const packets = fakePackets({ ...STREAM, fps: 25, groupFrames: 50, frames: 100 });
  // the first frames lie 700 ms behind, and catch up within the first second
  const slow = measuredOf(packets, ({ frame }) => frame * 40 + Math.max(0, 700 - frame * 35));
  expect(Math.abs((slow?.clockRatio ?? 0) - 1)).toBeLessThan(0.005);
  expect(slow?.jitterMs).toBeLessThan(2);
  const fast = measuredOf(packets, ({ frame }) => (frame * 40) / 1.08);
  expect(fast?.clockRatio).toBeCloseTo(1.08, 3);
  expect(fast?.clockRatioError).toBeLessThan(0.001);
  // what runs at another rate is not late for that
  expect(fast?.jitterMs).toBeLessThan(1);
});

test('losses are counted as events: a burst is one, single packets each', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 90 }), { maxLength: 40 }), (gone) => {
      const meter = new TrackMeter(media('H264'));
      const missing = new Set(gone);
      for (let index = 0; index < 92; index++)
        if (!missing.has(index))
          meter.push(rtp(65_500 + index, index * 6000, Uint8Array.of(0x61, 1), true), index * 66);
      const runsOf = gone.filter((index) => !missing.has(index - 1)).length;
      expect(meter.measured()).toMatchObject({ lost: gone.length, lossEvents: runsOf });
    }),
    runs(60),
  );
});

test.each([
  { why: 'one key frame and then silence', frames: 1, fps: 15 },
  { why: 'a third of a second', frames: 6, fps: 15 },
])('$why measures no rate', ({ frames, fps }) => {
  const packets = fakePackets({ ...STREAM, frames, fps });
  expect(measuredOf(packets, ({ frame }) => (frame * 1000) / fps)?.bitrateKbps).toBeNull();
});

test('without a second key frame the interval is at least what came after the first', () => {
  // Twenty frames lie before the only key frame.
  const packets = fakePackets({ ...STREAM, groupFrames: 60, frames: 90 }).filter(({ frame }) => frame >= 40);
  const measured = measuredOf(packets, ({ frame }) => (frame * 1000) / 15);
  expect(measured).toMatchObject({ keyframeIntervalSeconds: null, secondsSinceKeyFrame: expect.closeTo(29 / 15, 2) });
});

test('whatever is lost, repeated or late: the counts are those of a list of all that came', () => {
  const packets = fakePackets({ ...STREAM, frames: 40, firstSeq: 65_500 });
  const trouble = fc.array(fc.constantFrom('kept', 'lost', 'twice', 'late'), {
    minLength: packets.length,
    maxLength: packets.length,
  });
  fc.assert(
    fc.property(trouble, (fates) => {
      const sent: { at: number; bytes: Uint8Array; frame: number; index: number }[] = [];
      for (const [index, { bytes, frame }] of packets.entries()) {
        const fate = index === 0 || index === packets.length - 1 ? 'kept' : fates[index];
        if (fate === 'lost') continue;
        sent.push({ at: index + (fate === 'late' ? 5.5 : 0), bytes, frame, index });
        if (fate === 'twice') sent.push({ at: index + 3.2, bytes, frame, index });
      }
      sent.sort((a, b) => a.at - b.at);
      const meter = new TrackMeter(media('H264'));
      for (const { bytes, frame } of sent) meter.push(bytes, (frame * 1000) / 15);
      const came = new Set<number>();
      let [late, highest] = [0, -1];
      for (const { index } of sent) {
        if (!came.has(index) && index < highest) late += 1;
        came.add(index);
        highest = Math.max(highest, index);
      }
      expect(meter.measured()).toMatchObject({
        packets: sent.length,
        duplicates: sent.length - came.size,
        lost: packets.length - came.size,
        reordered: late,
      });
    }),
    runs(60),
  );
});

test('what is no RTP is counted and otherwise ignored', () => {
  const meter = new TrackMeter(media('H264'));
  expect(meter.push(Uint8Array.of(1, 2, 3), 0)).toBeNull();
  expect(meter.malformedPackets).toBe(1);
  expect(meter.measured()).toBeNull();
});

test('sound has no frames a second and no key frames', () => {
  const meter = new TrackMeter(media('PCMA', 'audio', 8000));
  for (let i = 0; i < 50; i++) meter.push(rtp(i, i * 160, new Uint8Array(160), false), i * 20);
  // G.711: 64 kbit/s by definition.
  expect(meter.measured()).toMatchObject({ fps: null, keyframeIntervalFrames: null, bitrateKbps: 64 });
});

const IDR = Uint8Array.of(0x65, 1, 2);
/** Supplemental information: a timing message of two bytes, then a recovery point, then the trailing bits. */
const RECOVERY = Uint8Array.of(0x06, 1, 2, 0, 0, 6, 1, 0x84, 0x80);
test.each([
  { why: 'a single IDR slice', codec: 'H264', payload: IDR, starts: true },
  { why: 'an IDR inside a STAP-A', codec: 'H264', payload: Uint8Array.of(0x78, 0, 3, ...IDR), starts: true },
  { why: 'the start of a fragmented IDR', codec: 'H264', payload: Uint8Array.of(0x7c, 0x85, 1), starts: true },
  { why: 'the middle of one', codec: 'H264', payload: Uint8Array.of(0x7c, 0x05, 1), starts: false },
  { why: 'a recovery point without any IDR', codec: 'H264', payload: RECOVERY, starts: true },
  { why: 'other supplemental information', codec: 'H264', payload: RECOVERY.subarray(0, 5), starts: false },
  { why: 'an ordinary slice', codec: 'H264', payload: Uint8Array.of(0x61, 1), starts: false },
  { why: 'an H.265 IDR', codec: 'H265', payload: Uint8Array.of(19 << 1, 1, 9), starts: true },
  {
    why: 'the start of a fragmented H.265 CRA',
    codec: 'H265',
    payload: Uint8Array.of(49 << 1, 1, 0x80 | 21),
    starts: true,
  },
  { why: 'an H.265 trailing picture', codec: 'H265', payload: Uint8Array.of(1 << 1, 1, 9), starts: false },
  {
    why: 'the first fragment of a JPEG',
    codec: 'JPEG',
    payload: Uint8Array.of(0, 0, 0, 0, 1, 255, 80, 60),
    starts: true,
  },
  {
    why: 'a later fragment of a JPEG',
    codec: 'JPEG',
    payload: Uint8Array.of(0, 0, 5, 120, 1, 255, 80, 60),
    starts: false,
  },
  { why: 'nothing', codec: 'H264', payload: new Uint8Array(0), starts: false },
])('key frames in payloads: $why', ({ codec, payload, starts }) =>
  expect(PAYLOAD_READERS[codec]?.(payload).startsKeyFrame).toBe(starts),
);

test('the parameter set in a STAP-A is found', () => {
  const payload = Uint8Array.of(0x78, 0, SPS_640.length, ...SPS_640);
  expect(PAYLOAD_READERS.H264?.(payload).sps).toEqual(SPS_640);
});
