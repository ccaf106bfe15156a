import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { POWER_WAYS } from '../base/ways.ts';
import {
  readCodecs,
  readFedBy,
  readFocal,
  readIngress,
  readSensor,
  readSize,
  sayCodecs,
  sayFedBy,
  sayFocal,
  sayIngress,
  saySensor,
  saySize,
} from './written-figures.ts';

const fed = (
  ways: readonly string[],
  poeClass: number | null,
  minVolts: number | null = null,
  maxVolts: number | null = null,
) => ({ ways, poeClass, minVolts, maxVolts });

// As they stand on boxes and data sheets.
test.each([
  { text: '802.3af', is: fed(['poe'], 3) },
  { text: '802.3af, 12 V', is: fed(['poe', 'dc'], 3, 10.8, 13.2) },
  { text: 'PoE+ / 12V DC', is: fed(['poe', 'dc'], 4, 10.8, 13.2) },
  { text: '802.3bt', is: fed(['poe'], null) },
  { text: 'class 4, 10,8–28 V', is: fed(['poe', 'dc'], 4, 10.8, 28) },
  { text: 'USB 5V', is: fed(['usb'], null, 4.75, 5.25) },
  { text: 'passive PoE 24 V', is: fed(['passive'], null, 21.6, 26.4) },
  { text: '12 V DC or PoE', is: fed(['dc', 'poe'], null, 10.8, 13.2) },
  { text: '230 V', is: fed(['mains'], null) },
  { text: 'battery and solar panel', is: fed(['solar'], null) },
])('fed by $text', ({ text, is }) => expect(readFedBy(text)).toEqual({ ok: true, value: is }));

test.each([
  { text: 'H.264, H.265', is: ['H264', 'H265'] },
  { text: 'h264 hevc/MJPEG', is: ['H264', 'H265', 'JPEG'] },
  { text: 'H.265+', is: ['H265'] },
])('codecs $text', ({ text, is }) => expect(readCodecs(text)).toEqual({ ok: true, value: is }));

test.each([
  { text: '4MP', is: [2560, 1440] },
  { text: '1080p', is: [1920, 1080] },
  { text: '2880 x 1620', is: [2880, 1620] },
  { text: '?×720', is: [null, 720] },
])('size $text', ({ text, is: [widthPx, heightPx] }) =>
  expect(readSize(text)).toEqual({ ok: true, value: { widthPx, heightPx } }),
);

test.each([
  { read: readCodecs, text: 'H.264, Foo', says: /“Foo” is not a codec/ },
  { read: readSize, text: '5MP', says: /2880×1620 and as 2592×1944: write which/ },
  { read: readSize, text: 'large', says: /not a resolution/ },
  { read: readFocal, text: '12–2.8 mm', says: /below the wide end/ },
  { read: readFocal, text: 'wide', says: /not a focal length/ },
  { read: readSensor, text: '1/9', says: /not a sensor known/ },
  { read: readIngress, text: 'IP5', says: /two digits/ },
  { read: readFedBy, text: '802.3af, gas', says: /“gas” is not a power source/ },
])('$text is not understood, and that is said', ({ read, text, says }) => {
  const found = read(text);
  expect(found.ok ? '' : found.error).toMatch(says);
});

const mm = fc.integer({ min: 1, max: 999 }).map((tenths) => tenths / 10);

test('what is said of a figure is read as that figure', () => {
  const volts = fc.option(fc.integer({ min: 31, max: 600 }).map((tenths) => tenths / 10));
  const way = fc.uniqueArray(fc.constantFrom(...POWER_WAYS), { minLength: 1 });
  fc.assert(
    fc.property(way, fc.option(fc.integer({ min: 0, max: 8 })), volts, volts, (ways, poeClass, a, b) => {
      const takesVolts = ways.some((one) => one === 'dc' || one === 'usb' || one === 'passive');
      const [minVolts, maxVolts] = !takesVolts
        ? [null, null]
        : a !== null && b !== null
          ? [Math.min(a, b), Math.max(a, b)]
          : [a, b];
      const card = { ways, poeClass: ways.includes('poe') ? poeClass : null, minVolts, maxVolts };
      expect(readFedBy(sayFedBy(card))).toEqual({ ok: true, value: card });
    }),
  );
  fc.assert(
    fc.property(mm, mm, (x, y) => {
      const focal = { wideMm: Math.min(x, y), teleMm: Math.max(x, y) };
      expect(readFocal(sayFocal(focal))).toEqual({ ok: true, value: focal });
      const sensor = { widthMm: x, heightMm: y };
      expect(readSensor(saySensor(sensor))).toEqual({ ok: true, value: sensor });
    }),
  );
  const side = fc.option(fc.integer({ min: 16, max: 20_000 }));
  fc.assert(
    fc.property(side, side, (widthPx, heightPx) => {
      const text = saySize({ widthPx, heightPx });
      if (text !== '') expect(readSize(text)).toEqual({ ok: true, value: { widthPx, heightPx } });
    }),
  );
  for (let code = 0; code < 70; code++) expect(readIngress(sayIngress(code))).toEqual({ ok: true, value: code });
  expect(readCodecs(sayCodecs(['H264', 'JPEG', 'MPEG4']))).toEqual({ ok: true, value: ['H264', 'JPEG', 'MPEG4'] });
});

test('hostile text is answered at once, and never throws', () => {
  const readers = [readCodecs, readFedBy, readFocal, readIngress, readSensor, readSize];
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) =>
      readers.every((read) => typeof read(text).ok === 'boolean'),
    ),
  );
  for (const bad of [
    '1'.repeat(1e5),
    '1.'.repeat(5e4),
    ' '.repeat(1e5),
    '1-'.repeat(5e4),
    'v'.repeat(1e5),
    `${'9'.repeat(5e4)}–`,
  ]) {
    const begun = performance.now();
    for (const read of readers) expect(typeof read(bad).ok).toBe('boolean');
    expect(performance.now() - begun).toBeLessThan(500);
  }
});
