import { type Fault, fault } from '../base/fault.ts';
import { err, ok, type Result } from '../base/result.ts';

export type PictureFaultCode = 'picture.not-a-picture' | 'picture.broken' | 'picture.too-large' | 'picture.not-a-plan';
export interface PictureSize {
  readonly kind: 'png' | 'jpeg' | 'svg';
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A page cannot decode more without stalling a phone; scans of whole plans are far below. */
const MAX_PIXELS = 32_000_000;
const MAX_BYTES = 25 * 1024 * 1024;
const MAX_SVG_BYTES = 5 * 1024 * 1024;
/** Names of a dozen vocabularies may stand in the first tag of an SVG, and no more. */
const MAX_TAG_CHARS = 8 * 1024;
/** [A] Drawn this large where an SVG says no size of its own. */
const USUAL_SVG_PX = 1600;

const PNG_MARK = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/**
 * Kind and size of a picture from its first bytes, before anything is decoded: what is too large is refused unopened.
 * Source: ISO/IEC 15948 §11.2.2 (IHDR), ITU-T T.81 §B.2.2 (frame header), SVG 2 §8.2.
 */
export function pictureSize(bytes: Uint8Array): Result<PictureSize, Fault<PictureFaultCode>> {
  if (bytes.length > MAX_BYTES)
    return err(
      fault(
        'picture.too-large',
        `The file has ${Math.round(bytes.length / 1e6)} MB; up to 26 are taken. Save it smaller.`,
      ),
    );
  const read = PNG_MARK.every((byte, at) => bytes[at] === byte)
    ? pngSize(bytes)
    : bytes[0] === 0xff && bytes[1] === 0xd8
      ? jpegSize(bytes)
      : svgSize(bytes);
  if (!read.ok) return read;
  const { widthPx, heightPx } = read.value;
  if (!(widthPx >= 1 && heightPx >= 1))
    return err(fault('picture.broken', 'The picture says that it has no size. It is broken.'));
  if (widthPx * heightPx > MAX_PIXELS)
    return err(
      fault(
        'picture.too-large',
        `The picture has ${widthPx} × ${heightPx} pixels, ${Math.round((widthPx * heightPx) / 1e6)} megapixels; up to ${MAX_PIXELS / 1e6} are taken. Save it smaller: a plan needs no more.`,
      ),
    );
  return read;
}

const broken = (what: string): Result<never, Fault<PictureFaultCode>> =>
  err(fault('picture.broken', `The file is cut off or broken: ${what}. Save it again and try again.`));

function pngSize(bytes: Uint8Array): Result<PictureSize, Fault<PictureFaultCode>> {
  if (bytes.length < 33) return broken('its PNG header ends early');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (String.fromCharCode(...bytes.subarray(12, 16)) !== 'IHDR') return broken('its PNG header is missing');
  return ok({ kind: 'png', widthPx: view.getUint32(16), heightPx: view.getUint32(20) });
}

/** Frame headers: SOF0 to SOF15 but for DHT (C4), JPG (C8) and DAC (CC). */
const isFrameHeader = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

function jpegSize(bytes: Uint8Array): Result<PictureSize, Fault<PictureFaultCode>> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return broken('a JPEG marker is missing');
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xff) {
      at += 1; // fill bytes may stand before a marker (§B.1.1.2)
      continue;
    }
    const length = view.getUint16(at + 2);
    if (length < 2) return broken('a JPEG segment has no length');
    if (isFrameHeader(marker)) {
      if (at + 9 > bytes.length) return broken('its JPEG frame header ends early');
      return ok({ kind: 'jpeg', widthPx: view.getUint16(at + 7), heightPx: view.getUint16(at + 5) });
    }
    at += 2 + length;
  }
  return broken('it has no JPEG frame header');
}

function svgSize(bytes: Uint8Array): Result<PictureSize, Fault<PictureFaultCode>> {
  const head = new TextDecoder().decode(bytes.subarray(0, 64 * 1024));
  const from = head.search(/<svg[\s>]/i);
  const to = head.indexOf('>', from);
  const tag = from < 0 || to < 0 ? null : head.slice(from, Math.min(to + 1, from + MAX_TAG_CHARS));
  if (!tag) return err(fault('picture.not-a-picture', 'Expected a PNG, JPEG or SVG picture. This file is neither.'));
  if (bytes.length > MAX_SVG_BYTES)
    return err(fault('picture.too-large', 'The SVG has more than 5 MB. Save it as PNG.'));
  const side = (name: string): number | null => {
    const value = new RegExp(`\\s${name}\\s*=\\s*["']\\s*([\\d.]+)(px|mm|cm|in|pt)?\\s*["']`, 'i').exec(tag);
    return value ? Number(value[1]) * (PX_OF_UNIT[value[2]?.toLowerCase() ?? 'px'] ?? 1) : null;
  };
  const box = /\sviewBox\s*=\s*["']\s*[-\d.]+[\s,]+[-\d.]+[\s,]+([\d.]+)[\s,]+([\d.]+)/i.exec(tag);
  const aspect = box && Number(box[2]) > 0 ? Number(box[1]) / Number(box[2]) : null;
  const [width, height] = [side('width'), side('height')];
  if (width && height) return ok({ kind: 'svg', widthPx: Math.round(width), heightPx: Math.round(height) });
  if (!aspect) return broken('its SVG says neither size nor viewBox');
  return ok({ kind: 'svg', widthPx: USUAL_SVG_PX, heightPx: Math.max(1, Math.round(USUAL_SVG_PX / aspect)) });
}
/** CSS: 96 px an inch. */
const PX_OF_UNIT: Readonly<Record<string, number>> = { px: 1, mm: 96 / 25.4, cm: 96 / 2.54, in: 96, pt: 96 / 72 };
