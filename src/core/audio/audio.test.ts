import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseSdp } from '../sdp/sdp-parser.ts';
import type { SdpMedia } from '../sdp/sdp-types.ts';
import { aacPackingOf, aacUnits, packAac } from './aac-payload.ts';
import { decodeG711, encodeG711 } from './g711.ts';
import { levelDbfs, SILENCE_DBFS } from './level.ts';
import { soundFormatOf, soundNameOf } from './sound-format.ts';

// ITU-T G.711 Tables 1a to 2b, with values of 14 and 13 bits brought to 16.
test.each([
  { law: 'PCMU', code: 0x00, value: -32_124 },
  { law: 'PCMU', code: 0x80, value: 32_124 },
  { law: 'PCMU', code: 0xff, value: 0 },
  { law: 'PCMU', code: 0x8f, value: 16_764 },
  { law: 'PCMA', code: 0xd5, value: 8 },
  { law: 'PCMA', code: 0x55, value: -8 },
  { law: 'PCMA', code: 0xaa, value: 32_256 },
  { law: 'PCMA', code: 0x2a, value: -32_256 },
] as const)('$law $code is $value', ({ law, code, value }) => {
  expect(decodeG711(law, Uint8Array.of(code))[0]).toBe(value);
});

test.each(['PCMU', 'PCMA'] as const)(
  '%s: every code comes back as itself, and no nearer one was passed over',
  (law) => {
    const codes = Uint8Array.from({ length: 256 }, (_, code) => code);
    const values = decodeG711(law, codes);
    expect([...decodeG711(law, encodeG711(law, values))]).toEqual([...values]);
    fc.assert(
      fc.property(fc.integer({ min: -32_000, max: 32_000 }), (sample) => {
        const [given = 0] = decodeG711(law, encodeG711(law, Int16Array.of(sample)));
        const nearest = Math.min(...Array.from(values, (value) => Math.abs(value - sample)));
        // steps are as wide as the sample is large; half of one more than the nearest is what rounding may cost
        expect(Math.abs(given - sample)).toBeLessThanOrEqual(2 * nearest + Math.max(16, Math.abs(sample) / 16));
      }),
    );
  },
);

test('full scale is 0 dB, half of it 6 dB less, nothing is silence', () => {
  expect(levelDbfs(Int16Array.of(32_768 - 1, -32_768), 32_768)).toBeCloseTo(0, 2);
  expect(levelDbfs(Int16Array.of(16_384, -16_384), 32_768)).toBeCloseTo(-6.02, 2);
  expect(levelDbfs(new Int16Array(10), 32_768)).toBe(SILENCE_DBFS);
  expect(levelDbfs(new Int16Array(), 32_768)).toBe(SILENCE_DBFS);
});

const HBR = aacPackingOf({ mode: 'AAC-hbr', sizelength: '13', indexlength: '3', indexdeltalength: '3' });

// RFC 3640 §3.2.1: two headers of 16 bits, then units of 3 and 2 bytes.
test('units of a payload lie one after the other', () => {
  const payload = Uint8Array.of(0, 32, 0, 3 << 3, 0, 2 << 3, 1, 2, 3, 4, 5);
  expect(aacUnits(payload, HBR)?.map((unit) => [...unit])).toEqual([
    [1, 2, 3],
    [4, 5],
  ]);
});

test('what is packed comes apart again, and no bytes are read beyond what came', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 1, maxLength: 8191 }), (unit) => {
      expect(aacUnits(packAac(unit), HBR)).toEqual([unit]);
    }),
  );
  fc.assert(
    fc.property(
      fc.uint8Array({ maxLength: 60 }),
      fc.integer({ min: 0, max: 32 }),
      fc.integer({ min: 0, max: 32 }),
      (bytes, sizeBits, more) => {
        const units = aacUnits(bytes, { sizeBits, indexBits: more, deltaBits: more });
        const sum = (units ?? []).reduce((all, { length }) => all + length, 0);
        expect(sum).toBeLessThanOrEqual(bytes.length);
      },
    ),
  );
});

test('sound of a rate or of channels that none has is not played, and says so by name', () => {
  const described = (format: string): SdpMedia => {
    const { session } = parseSdp(
      `v=0\r\ns=x\r\nm=audio 0 RTP/AVP 96\r\na=rtpmap:96 ${format}\r\n`,
      'rtsp://127.0.0.1/a',
    );
    const [media] = session.media;
    if (!media) throw new Error(format);
    return media;
  };
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 10_000_000 }), fc.integer({ min: 1, max: 60 }), (rateHz, channels) => {
      const media = described(`PCMU/${rateHz}/${channels}`);
      const isSound = rateHz >= 4000 && rateHz <= 192_000 && channels <= 8;
      expect(soundFormatOf(media) !== null).toBe(isSound);
      expect(soundNameOf(media)).toMatch(
        isSound ? /^PCMU$/ : /^PCMU is never like this \([\d\u00a0]+ Hz, \d+ channels?\)$/,
      );
    }),
  );
});
