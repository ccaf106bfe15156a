import sharp from 'sharp';
import type { GroupRequest } from './group-request.ts';
import type { EncodedGroup } from './mp4-samples.ts';
import type { Painter } from './painter.ts';

const NO_PARAMETER_SETS = new Uint8Array();

/** Draws pictures and codes each as a JPEG with the standard Huffman codes, which RTP does not carry (RFC 2435 §4.1). */
export async function encodeJpegs(painter: Painter, request: GroupRequest): Promise<EncodedGroup> {
  const { width, height, fps, frames, startUnixMs, quantiser } = request;
  const pictures: Uint8Array[][] = [];
  for (let index = 0; index < frames; index++) {
    const rgb = rgbOf(painter.paint(startUnixMs + (index * 1000) / fps, request.seen?.[index] ?? null), width, height);
    const jpeg = await sharp(rgb, { raw: { width, height, channels: 3 } })
      .jpeg({ quality: quantiser, chromaSubsampling: '4:2:0', optimiseCoding: false })
      .toBuffer();
    pictures.push([new Uint8Array(jpeg)]);
  }
  return { pictures, sps: NO_PARAMETER_SETS, pps: NO_PARAMETER_SETS };
}

/** Limited-range BT.601, the inverse of what the painter does. */
function rgbOf(i420: Uint8Array, width: number, height: number): Uint8Array {
  const rgb = new Uint8ClampedArray(width * height * 3);
  const [uAt, vAt] = [width * height, (width * height * 5) / 4];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const chroma = (row >> 1) * (width / 2) + (column >> 1);
      const y = 1.164 * ((i420[row * width + column] ?? 0) - 16);
      const u = (i420[uAt + chroma] ?? 128) - 128;
      const v = (i420[vAt + chroma] ?? 128) - 128;
      const at = 3 * (row * width + column);
      rgb[at] = y + 1.596 * v;
      rgb[at + 1] = y - 0.392 * u - 0.813 * v;
      rgb[at + 2] = y + 2.017 * u;
    }
  return new Uint8Array(rgb.buffer);
}
