export interface EncodedGroup {
  /** NAL units of each picture, without start codes or lengths. */
  readonly pictures: readonly (readonly Uint8Array[])[];
  readonly sps: Uint8Array;
  readonly pps: Uint8Array;
}

const CONTAINERS = new Set(['moov', 'trak', 'mdia', 'minf', 'stbl']);

/** Where the boxes that matter lie: body offset by type. Source: ISO/IEC 14496-12 §4.2. */
function findBoxes(view: DataView, from: number, to: number, found = new Map<string, number>()): Map<string, number> {
  for (let at = from; at + 8 <= to; ) {
    const size = view.getUint32(at);
    const type = String.fromCharCode(...[4, 5, 6, 7].map((i) => view.getUint8(at + i)));
    const isLarge = size === 1;
    const length = isLarge ? Number(view.getBigUint64(at + 8)) : size;
    const body = at + (isLarge ? 16 : 8);
    if (length < 8) break;
    if (!found.has(type)) found.set(type, body);
    if (CONTAINERS.has(type)) findBoxes(view, body, at + length, found);
    at += length;
  }
  return found;
}

/**
 * Takes the coded pictures out of an MP4 with one video track, as our encoder writes it.
 * Source: ISO/IEC 14496-12 §8.7 (stsz, stsc, stco), 14496-15 §5.3.3 (avcC). The encoder is ours, so a missing box is a
 * bug and raises an Error.
 */
export function samplesOfMp4(mp4: Uint8Array): EncodedGroup {
  const view = new DataView(mp4.buffer, mp4.byteOffset, mp4.byteLength);
  const boxes = findBoxes(view, 0, mp4.length);
  const body = (type: string): number => {
    const at = boxes.get(type);
    if (at === undefined) throw new Error(`The encoder wrote no ${type} box`);
    return at;
  };
  const stsz = body('stsz');
  const fixedSize = view.getUint32(stsz + 4);
  const sizes = Array.from(
    { length: view.getUint32(stsz + 8) },
    (_, i) => fixedSize || view.getUint32(stsz + 12 + 4 * i),
  );
  const stsc = body('stsc');
  const runs = Array.from({ length: view.getUint32(stsc + 4) }, (_, i) => ({
    firstChunk: view.getUint32(stsc + 8 + 12 * i),
    samples: view.getUint32(stsc + 12 + 12 * i),
  }));
  const stco = body('stco');
  const pictures: Uint8Array[][] = [];
  for (let chunk = 1; chunk <= view.getUint32(stco + 4); chunk++) {
    const run = runs.findLast(({ firstChunk }) => firstChunk <= chunk);
    let at = view.getUint32(stco + 4 + 4 * chunk);
    for (let k = 0; k < (run?.samples ?? 0) && pictures.length < sizes.length; k++) {
      const size = sizes[pictures.length] ?? 0;
      pictures.push(splitByLength(mp4.subarray(at, at + size)));
      at += size;
    }
  }
  const text = Buffer.from(mp4.buffer, mp4.byteOffset, mp4.byteLength);
  const avcC = text.indexOf('avcC') + 4;
  if (avcC < 4) throw new Error('The encoder wrote no avcC box');
  const spsLength = view.getUint16(avcC + 6);
  const spsAt = avcC + 8;
  const ppsAt = spsAt + spsLength + 3;
  return {
    pictures,
    sps: mp4.slice(spsAt, spsAt + spsLength),
    pps: mp4.slice(ppsAt, ppsAt + view.getUint16(ppsAt - 2)),
  };
}

function splitByLength(sample: Uint8Array): Uint8Array[] {
  const view = new DataView(sample.buffer, sample.byteOffset, sample.byteLength);
  const nals: Uint8Array[] = [];
  for (let at = 0; at + 4 <= sample.length; ) {
    const length = view.getUint32(at);
    nals.push(sample.slice(at + 4, at + 4 + length));
    at += 4 + length;
  }
  return nals;
}
