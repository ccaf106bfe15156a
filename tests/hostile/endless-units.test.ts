import { expect, test } from '@jest/globals';
import { TrackMeter } from '../../src/core/probe/track-meter.ts';
import { parseRtpPacket, type RtpPacket } from '../../src/core/rtp/rtp-packet.ts';
import { parseSdp } from '../../src/core/sdp/sdp-parser.ts';
import { JpegDepacketiser } from '../../src/core/video/jpeg-depacketiser.ts';
import { NalDepacketiser } from '../../src/core/video/nal-depacketiser.ts';
import { MAX_UNIT_BYTES, MAX_UNIT_PARTS } from '../../src/core/video/unit-limits.ts';
import { rtp } from '../support/fake-media.ts';
import { SDP_H264 } from '../support/scripted-server.ts';

// Pictures that never end: one time stamp, no marker, packets for as long as somebody listens.

const fuStart = (length: number): Uint8Array => new Uint8Array(2 + length).fill(0x55).fill(0x7c, 0, 1).fill(0x85, 1, 2);
const fuMore = (length: number): Uint8Array => new Uint8Array(2 + length).fill(0x55).fill(0x7c, 0, 1).fill(0x05, 1, 2);
const single = (length: number): Uint8Array => new Uint8Array(length).fill(0x61);
/** RFC 2435 §3.1: type 1, Q 50, 160 × 96, fragment at `offset`. */
const jpegPart = (offset: number, length: number): Uint8Array =>
  Uint8Array.of(0, offset >> 16, (offset >> 8) & 255, offset & 255, 1, 50, 20, 12, ...new Uint8Array(length));

interface Endless {
  readonly why: string;
  readonly codec: 'H264' | 'JPEG';
  readonly payload: (at: number) => Uint8Array;
  /** Packets after which it must have been given up. */
  readonly within: number;
}

const ENDLESS: readonly Endless[] = [
  {
    why: 'fragments of nothing',
    codec: 'H264',
    payload: (at) => (at === 0 ? fuStart(0) : fuMore(0)),
    within: MAX_UNIT_PARTS + 1,
  },
  {
    why: 'large fragments',
    codec: 'H264',
    payload: (at) => (at === 0 ? fuStart(60_000) : fuMore(60_000)),
    within: MAX_UNIT_BYTES / 60_000 + 1,
  },
  { why: 'units of one byte', codec: 'H264', payload: () => single(1), within: MAX_UNIT_PARTS + 1 },
  { why: 'large units', codec: 'H264', payload: () => single(60_000), within: MAX_UNIT_BYTES / 60_000 + 1 },
  {
    why: 'fragments that begin again and again',
    codec: 'H264',
    payload: () => fuStart(1000),
    within: MAX_UNIT_BYTES / 1000 + 1,
  },
  {
    why: 'JPEG parts of nothing',
    codec: 'JPEG',
    payload: (at) => (at === 0 ? jpegPart(0, 1) : jpegPart(1, 0)),
    within: MAX_UNIT_PARTS + 1,
  },
  {
    why: 'JPEG parts',
    codec: 'JPEG',
    payload: (at) => jpegPart(at * 60_000, 60_000),
    within: MAX_UNIT_BYTES / 60_000 + 2,
  },
];

const packetAt = ({ payload }: Endless, at: number): Uint8Array => rtp(at, 9000, payload(at), false);
const parsed = (bytes: Uint8Array): RtpPacket => {
  const packet = parseRtpPacket(bytes);
  if (!packet.ok) throw new Error(packet.error.message);
  return packet.value;
};

test.each(ENDLESS)('put together, $why end with a named fault and keep nothing more', (endless) => {
  const into = endless.codec === 'H264' ? new NalDepacketiser('H264') : new JpegDepacketiser();
  let at = 0;
  while (into.fault === null && at <= endless.within) into.push(parsed(packetAt(endless, at++)));
  expect(into.fault).toMatchObject({ code: 'video.unit-too-large' });
  // What comes after is let go as it comes: nothing of it is given to anybody either.
  expect([into.push(parsed(packetAt(endless, at)))].flat().filter(Boolean)).toEqual([]);
});

test.each(ENDLESS)('measured, $why are told as a fault', (endless) => {
  const { session } = parseSdp(SDP_H264, 'rtsp://h/');
  const [video] = session.media;
  if (!video) throw new Error('SDP_H264');
  const meter = new TrackMeter({ ...video, codec: endless.codec });
  for (let at = 0; at <= endless.within; at++) meter.push(packetAt(endless, at), at / 10);
  expect(meter.unitFault).toMatchObject({ code: 'video.unit-too-large' });
});

test('the largest picture that a camera sends is none of these', () => {
  const into = new NalDepacketiser('H264');
  const parts = 4000; // 5.6 MB in packets of 1,400 bytes
  for (let at = 0; at < parts; at++) into.push(parsed(rtp(at, 9000, at === 0 ? fuStart(1398) : fuMore(1398), false)));
  const end = fuMore(1398).fill(0x45, 1, 2);
  const [unit] = into.push(parsed(rtp(parts, 9000, end, true)));
  expect(into.fault).toBeNull();
  expect(unit).toMatchObject({ isKeyFrame: true, damaged: false });
  expect(unit?.nals[0]?.length).toBe(1 + 1398 * (parts + 1));
});
