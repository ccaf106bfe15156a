import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bytesFromHex, hexOf } from '../base/bytes.ts';
import type { RtpPacket } from '../rtp/rtp-packet.ts';
import { modelledRate } from './bitrate-model.ts';
import { h264CodecString, h265CodecString } from './codec-strings.ts';
import { packetiseH264 } from './h264-packetiser.ts';
import { packetiseH265 } from './h265-packetiser.ts';
import { removeEmulationPrevention } from './nal.ts';
import { annexB, NalDepacketiser } from './nal-depacketiser.ts';
import { parseSps } from './sps.ts';

const hex = (text: string): Uint8Array => {
  const read = bytesFromHex(text);
  if (!read.ok) throw new Error(text);
  return read.value;
};
const SPS_H264 = hex('67640028acb403c0113f2e0220000003002000000641e30654');
const SPS_H265 = hex('420101016000000300900000030000030078a003c0801107cb965654a4c2f0168080000003008000000c84');

/** A NAL unit of a type with content that cannot be mistaken for another's. */
const nal = (type: number, length: number): Uint8Array =>
  Uint8Array.from({ length }, (_, i) => (i === 0 ? 0x60 | type : (i * 7 + type) & 0xff));

function packetsOf(pictures: readonly (readonly Uint8Array[])[], maxPayload: number, firstSeq = 65_530): RtpPacket[] {
  let sequenceNumber = firstSeq;
  return pictures.flatMap((nals, picture) =>
    packetiseH264(nals, maxPayload).map(({ payload, marker }) => {
      const packet = { payload, marker, sequenceNumber, rtpTimestamp: picture * 6000, payloadType: 96, ssrc: 1 };
      sequenceNumber = (sequenceNumber + 1) & 0xffff;
      return packet;
    }),
  );
}
const unitsOf = (packets: readonly RtpPacket[]) => {
  const depacketiser = new NalDepacketiser('H264');
  return [...packets.flatMap((packet) => [...depacketiser.push(packet)]), ...depacketiser.flush()];
};

test('pictures of any size come through any packet size unharmed', () => {
  const picture = fc.array(fc.integer({ min: 2, max: 4000 }), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(
      fc.array(picture, { minLength: 1, maxLength: 6 }),
      fc.integer({ min: 40, max: 1500 }),
      (sizes, maxPayload) => {
        const pictures = sizes.map((lengths, index) => [
          ...(index === 0 ? [nal(7, 20), nal(8, 6)] : []),
          ...lengths.map((length) => nal(index === 0 ? 5 : 1, length)),
        ]);
        const units = unitsOf(packetsOf(pictures, maxPayload));
        expect(units.map(({ nals }) => nals.map(hexOf))).toEqual(pictures.map((nals) => nals.map(hexOf)));
        expect(units.map(({ isKeyFrame, damaged }) => ({ isKeyFrame, damaged }))).toEqual(
          pictures.map((_, index) => ({ isKeyFrame: index === 0, damaged: false })),
        );
      },
    ),
  );
});

test('one packet lost damages or drops its picture, and none before it', () => {
  const pictures = [[nal(5, 900)], [nal(1, 900)], [nal(1, 900)]];
  const packets = packetsOf(pictures, 400);
  for (let gone = 1; gone < packets.length - 1; gone++) {
    const units = unitsOf(packets.filter((_, index) => index !== gone));
    const own = packets[gone]?.rtpTimestamp ?? 0;
    const hurt = [0, 6000, 12_000].filter(
      (stamp) => !units.some((unit) => unit.rtpTimestamp === stamp && !unit.damaged),
    );
    // What was lost at the very end of a picture is noticed with the next packet, whose picture is then marked too.
    expect(hurt).toContain(own);
    expect(hurt.every((stamp) => stamp === own || stamp === own + 6000)).toBe(true);
  }
});

test('without a marker bit, the next time stamp closes a picture', () => {
  const packets = packetsOf([[nal(5, 100)], [nal(1, 100)]], 1400).map((packet) => ({ ...packet, marker: false }));
  expect(unitsOf(packets)).toHaveLength(2);
});

test.each([
  { why: 'a STAP-A whose size points past its end', payload: [0x78, 0x00, 0x09, 0x67, 0x42] },
  { why: 'a fragment whose start never came', payload: [0x7c, 0x45, 1, 2, 3] },
  { why: 'a fragment without its header', payload: [0x7c] },
  { why: 'a kind that no offer allows', payload: [0x79, 0, 0, 0, 0] },
])('hostile payload: $why gives no picture', ({ payload }) => {
  const packet = {
    payload: Uint8Array.from(payload),
    marker: true,
    sequenceNumber: 1,
    rtpTimestamp: 0,
    payloadType: 96,
    ssrc: 1,
  };
  expect(unitsOf([packet])).toEqual([]);
});

test('any payloads at all are taken without an exception', () => {
  fc.assert(
    fc.property(fc.array(fc.uint8Array({ maxLength: 60 }), { maxLength: 20 }), (payloads) => {
      unitsOf(
        payloads.map((payload, index) => ({
          payload,
          marker: index % 3 === 0,
          sequenceNumber: index,
          rtpTimestamp: index >> 1,
          payloadType: 96,
          ssrc: 1,
        })),
      );
    }),
  );
});

test.each([
  { codec: 'h264', nal: SPS_H264 },
  { codec: 'h265', nal: SPS_H265 },
] as const)(
  '$codec parameter set cut at every byte: a fault, or the picture it stood for, never an exception',
  ({ codec, nal: whole }) => {
    const size = parseSps(codec, whole);
    for (let length = 0; length < whole.length; length++) {
      const cut = parseSps(codec, whole.subarray(0, length));
      if (cut.ok)
        expect({ width: cut.value.width, height: cut.value.height }).toEqual(
          size.ok && { width: size.value.width, height: size.value.height },
        );
      else expect(cut.error).toBe('truncated');
    }
  },
);

test('a parameter set of noise is refused or read, never an exception', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 80 }), (noise) => {
      for (const [codec, header] of [
        ['h264', [0x67]],
        ['h265', [0x42, 0x01]],
      ] as const) {
        const parsed = parseSps(codec, Uint8Array.from([...header, ...noise]));
        if (parsed.ok) expect(parsed.value.width).toBeLessThanOrEqual(16_888);
      }
    }),
  );
});

test('emulation prevention is removed, also twice in a row', () => {
  expect(hexOf(removeEmulationPrevention(hex('0000030000030100000301')))).toBe('000000000100000' + '1');
});

test('codec string of RFC 6381 from the parameter set', () => expect(h264CodecString(SPS_H264)).toBe('avc1.640028'));

test('the byte stream has a start code before every unit', () => {
  expect(hexOf(annexB([hex('6742'), hex('68ce')]))).toBe('00000001674200000001' + '68ce');
});

// DOMAIN b: 1920×1080 at 15, key frame every 2 s, ordinary scene: 2.07 Mbit/s H.264, 1.38 H.265; JPEG 37.
test.each([
  { codec: 'H264', mbit: 2.07 },
  { codec: 'H265', mbit: 1.38 },
  { codec: 'JPEG', mbit: 37.3 },
])('modelled rate of $codec', ({ codec, mbit }) => {
  expect(((modelledRate({ codec, width: 1920, height: 1080, fps: 15, gopFrames: 30 }) ?? 0) / 1e6).toFixed(1)).toBe(
    mbit.toFixed(1),
  );
});

test('a codec the model does not know has no rate, rather than a guessed one', () => {
  expect(modelledRate({ codec: 'MPV', width: 640, height: 480, fps: 25, gopFrames: 12 })).toBeNull();
});

// x265 at main profile, level 2.0; the string as ISO/IEC 14496-15 §E.3 spells it for these bytes.
test('an H.265 stream names its codec by its SPS', () => {
  const sps = Uint8Array.from([0x42, 1, 1, 1, 0x60, 0, 0, 3, 0, 0x90, 0, 0, 3, 0, 0, 3, 0, 0x3c, 0xa0]);
  expect(h265CodecString(sps)).toBe('hev1.1.6.L60.90');
  expect(h265CodecString(sps.subarray(0, 9))).toBeNull();
});

test('an H.265 picture that is cut into packets comes together again, byte for byte', () => {
  const nal = fc
    .record({ type: fc.nat(40), body: fc.uint8Array({ minLength: 1, maxLength: 900 }) })
    .map(({ type, body }) => Uint8Array.of(type << 1, 1, ...body));
  fc.assert(
    fc.property(fc.array(nal, { minLength: 1, maxLength: 6 }), fc.integer({ min: 8, max: 400 }), (nals, most) => {
      const together = new NalDepacketiser('H265');
      const units = packetiseH265(nals, most).flatMap(({ payload, marker }, at) =>
        together.push({ payload, marker, payloadType: 96, sequenceNumber: at, rtpTimestamp: 7, ssrc: 1 }),
      );
      expect(units).toHaveLength(1);
      expect(units[0]).toMatchObject({ nals, damaged: false });
    }),
  );
});
