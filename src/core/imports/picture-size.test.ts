import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pictureSize } from './picture-size.ts';

const text = (line: string): Uint8Array => new TextEncoder().encode(line);
const png = (width: number, height: number): Uint8Array => {
  const bytes = new Uint8Array(40);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13]);
  bytes.set(text('IHDR'), 12);
  new DataView(bytes.buffer).setUint32(16, width);
  new DataView(bytes.buffer).setUint32(20, height);
  return bytes;
};
/** An APP0 segment, fill bytes, then a frame header. */
const jpeg = (width: number, height: number): Uint8Array =>
  new Uint8Array([
    0xff,
    0xd8,
    0xff,
    0xe0,
    0,
    4,
    1,
    2,
    0xff,
    0xff,
    0xc2,
    0,
    11,
    8,
    height >> 8,
    height & 255,
    width >> 8,
    width & 255,
    3,
    1,
    1,
    0,
  ]);

test.each([
  { why: 'PNG', bytes: png(1200, 900), size: { kind: 'png', widthPx: 1200, heightPx: 900 } },
  {
    why: 'progressive JPEG behind other segments',
    bytes: jpeg(4000, 3000),
    size: { kind: 'jpeg', widthPx: 4000, heightPx: 3000 },
  },
  {
    why: 'SVG with a size',
    bytes: text('<?xml version="1.0"?><svg xmlns="x" width="210mm" height="297mm">'),
    size: { kind: 'svg', widthPx: 794, heightPx: 1123 },
  },
  {
    why: 'SVG with a viewBox alone',
    bytes: text('<svg viewBox="0 0 200 100"/>'),
    size: { kind: 'svg', widthPx: 1600, heightPx: 800 },
  },
])('size from the first bytes: $why', ({ bytes, size }) =>
  expect(pictureSize(bytes)).toEqual({ ok: true, value: size }),
);

test.each([
  {
    why: '40 megapixels',
    bytes: png(8000, 5000),
    code: 'picture.too-large',
    says: /8000 × 5000 pixels, 40 megapixels; up to 32/,
  },
  { why: 'a side of nothing', bytes: png(0, 900), code: 'picture.broken', says: /no size/ },
  { why: 'a PNG cut off', bytes: png(10, 10).subarray(0, 20), code: 'picture.broken', says: /cut off/ },
  { why: 'a JPEG cut off', bytes: jpeg(100, 100).subarray(0, 13), code: 'picture.broken', says: /cut off/ },
  {
    why: 'a JPEG without a frame',
    bytes: jpeg(100, 100).subarray(0, 8),
    code: 'picture.broken',
    says: /no JPEG frame/,
  },
  {
    why: 'a JPEG segment of no length',
    bytes: new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 0, 0]),
    code: 'picture.broken',
    says: /length/,
  },
  { why: 'an SVG that says no size', bytes: text('<svg xmlns="x"></svg>'), code: 'picture.broken', says: /viewBox/ },
  { why: 'a page', bytes: text('<html><body>'), code: 'picture.not-a-picture', says: /PNG, JPEG or SVG/ },
  { why: 'nothing', bytes: new Uint8Array(), code: 'picture.not-a-picture', says: /neither/ },
])('refused with its reason: $why', ({ bytes, code, says }) => {
  const read = pictureSize(bytes);
  expect(read).toMatchObject({ ok: false, error: { code } });
  expect(read.ok ? '' : read.error.message).toMatch(says);
});

test('hostile bytes end in a size or a reason, never in an exception', () => {
  const start = fc.constantFrom(
    new Uint8Array(),
    png(9, 9).subarray(0, 16),
    new Uint8Array([0xff, 0xd8]),
    text('<svg '),
  );
  fc.assert(
    fc.property(start, fc.uint8Array({ maxLength: 200 }), (head, tail) => {
      const read = pictureSize(new Uint8Array([...head, ...tail]));
      expect(read.ok ? read.value.widthPx : read.error.message.length).toBeGreaterThan(0);
    }),
  );
});
