import { beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { rtp } from '../../../tests/support/fake-media.ts';
import { parseRtpPacket, type RtpPacket } from '../rtp/rtp-packet.ts';
import { JpegDepacketiser, type JpegPicture } from './jpeg-depacketiser.ts';
import { packetiseJpeg, parseBaselineJpeg, parseJpegHeader } from './jpeg-payload.ts';
import { quantisationOf } from './jpeg-tables.ts';

// The pictures are coded and decoded by a library that we did not write.
const [WIDTH, HEIGHT] = [96, 64];
const files = new Map<string, Uint8Array>();
beforeAll(async () => {
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3).map((_, i) => (Math.sin(i / 50) * 90 + (i % 7) * 9 + 110) & 255);
  for (const chromaSubsampling of ['4:2:0', '4:4:4'])
    for (const quality of [50, 90]) {
      const image = sharp(pixels, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } });
      const jpeg = await image.jpeg({ quality, chromaSubsampling, optimiseCoding: false }).toBuffer();
      files.set(`${chromaSubsampling} ${quality}`, new Uint8Array(jpeg));
    }
});
const fileOf = (key: string): Uint8Array => files.get(key) ?? new Uint8Array();

function packetsOf(file: Uint8Array, stamp = 9000, firstSeq = 65_534): RtpPacket[] {
  const jpeg = parseBaselineJpeg(file);
  if (!jpeg.ok) throw new Error(jpeg.error.message);
  return packetiseJpeg(jpeg.value, 300).map(({ payload, marker }, at) => {
    const packet = parseRtpPacket(rtp(firstSeq + at, stamp, payload, marker));
    if (!packet.ok) throw new Error('packet');
    return packet.value;
  });
}
const run = (packets: readonly RtpPacket[], into = new JpegDepacketiser()): JpegPicture[] =>
  packets.flatMap((packet) => into.push(packet) ?? []);
const decode = (file: Uint8Array): Promise<Buffer> => sharp(file).raw().toBuffer();

test.each(['4:2:0 50', '4:2:0 90'])(
  'cut into packets and put together, a picture decodes to the same pixels: %s',
  async (key) => {
    const file = fileOf(key);
    const packets = packetsOf(file);
    expect(packets.length).toBeGreaterThan(3);
    const [picture, ...more] = run(packets);
    expect(more).toEqual([]);
    expect(await decode(picture?.file ?? new Uint8Array())).toEqual(await decode(file));
  },
);

test('each lost packet costs its picture and no other', () => {
  const count = packetsOf(fileOf('4:2:0 50')).length;
  for (let lost = 0; lost < count; lost++) {
    const first = packetsOf(fileOf('4:2:0 50')).filter((_, at) => at !== lost);
    const pictures = run([...first, ...packetsOf(fileOf('4:2:0 50'), 12_000)]);
    expect(pictures.map(({ rtpTimestamp }) => rtpTimestamp)).toEqual([12_000]);
  }
});

test('tables that are named again need not come again; a Q that was never told gives no picture', async () => {
  const packets = packetsOf(fileOf('4:2:0 90'));
  const again = packetsOf(fileOf('4:2:0 90'), 12_000).map((packet, at) => {
    if (at > 0) return packet;
    const payload = new Uint8Array([...packet.payload.subarray(0, 8), 0, 0, 0, 0, ...packet.payload.subarray(140)]);
    return { ...packet, payload };
  });
  const pictures = run([...packets, ...again]);
  expect(pictures).toHaveLength(2);
  expect(pictures[1]?.file).toEqual(pictures[0]?.file);
  expect(run(again)).toEqual([]);
});

// RFC 2435 Appendix A with Q 50 is the table of ITU-T T.81 K.1: 16 11 12 14 …; Q 25 doubles it, Q 99 is nearly 1.
test('a Q below 100 stands for the standard tables, scaled', async () => {
  expect([...(quantisationOf(50)[0]?.subarray(0, 4) ?? [])]).toEqual([16, 11, 12, 14]);
  expect([...(quantisationOf(25)[0]?.subarray(0, 4) ?? [])]).toEqual([32, 22, 24, 28]);
  expect([...(quantisationOf(99)[1]?.subarray(0, 2) ?? [])]).toEqual([1, 1]); // (17 × 2 + 50) ÷ 100 = 0, at least 1
  const packets = packetsOf(fileOf('4:2:0 50')).map((packet, at) => {
    const payload = packet.payload.slice();
    payload[5] = 50;
    return {
      ...packet,
      payload: at > 0 ? payload : new Uint8Array([...payload.subarray(0, 8), ...payload.subarray(140)]),
    };
  });
  const [picture] = run(packets);
  expect(await decode(picture?.file ?? new Uint8Array())).toEqual(await decode(fileOf('4:2:0 50')));
});

test('what RTP cannot carry is named', () => {
  expect(parseBaselineJpeg(fileOf('4:4:4 50'))).toMatchObject({ ok: false, error: { code: 'video.jpeg-sampling' } });
  expect(parseBaselineJpeg(Uint8Array.of(1, 2, 3))).toMatchObject({
    ok: false,
    error: { code: 'video.jpeg-no-start' },
  });
  expect(parseJpegHeader(Uint8Array.of(0, 0, 0))).toMatchObject({ ok: false, error: { code: 'video.jpeg-short' } });
});

test('hostile bytes: cut anywhere or changed, nothing is raised and nothing grows', () => {
  const file = fileOf('4:2:0 50');
  for (let length = 0; length < file.length; length += 3)
    if (length < 600) expect(parseBaselineJpeg(file.subarray(0, length)).ok).toBe(false);
  const into = new JpegDepacketiser();
  let state = 5;
  for (let round = 0; round < 2000; round++) {
    const payload = Uint8Array.from({ length: round % 40 }, () => {
      state = (state * 48_271) % 0x7fffffff;
      return state & 0xff;
    });
    const packet = parseRtpPacket(rtp(round, round, payload, round % 2 === 0));
    if (packet.ok) into.push(packet.value);
  }
});
