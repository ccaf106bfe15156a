import { expect, test } from '@jest/globals';
import { fakePackets, rtp, SPS_640 } from '../../../tests/support/fake-media.ts';
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

test('time stamps that run twice as fast as the packets are not believed', () => {
  const meter = new TrackMeter(media('H264'));
  for (const { bytes, frame } of fakePackets({ ...STREAM, clockHz: 180_000 })) meter.push(bytes, (frame * 1000) / 15);
  expect(meter.measured()?.fps).toBeCloseTo(15, 1);
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
test.each([
  { why: 'a single IDR slice', codec: 'H264', payload: IDR, starts: true },
  { why: 'an IDR inside a STAP-A', codec: 'H264', payload: Uint8Array.of(0x78, 0, 3, ...IDR), starts: true },
  { why: 'the start of a fragmented IDR', codec: 'H264', payload: Uint8Array.of(0x7c, 0x85, 1), starts: true },
  { why: 'the middle of one', codec: 'H264', payload: Uint8Array.of(0x7c, 0x05, 1), starts: false },
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
