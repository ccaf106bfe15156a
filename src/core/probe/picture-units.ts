import { parseJpegHeader } from '../video/jpeg-payload.ts';
import { H264_NAL, H265_NAL, h264NalType, h265NalType } from '../video/nal.ts';

/** What one RTP payload says of the picture it belongs to, without putting the picture together. */
export interface PayloadContents {
  readonly startsKeyFrame: boolean;
  /** It starts an open group: pictures after it may lean on the group before. */
  readonly isOpen?: boolean;
  /** An SPS that travels in it, with its NAL header. */
  readonly sps: Uint8Array | null;
  /** Size that the payload itself states, where the codec has no SPS. */
  readonly size?: readonly [number, number];
}

export type ReadPayload = (payload: Uint8Array) => PayloadContents;

const NOTHING: PayloadContents = { startsKeyFrame: false, sps: null };
const CLOSED_START: PayloadContents = { startsKeyFrame: true, isOpen: false, sps: null };
const OPEN_START: PayloadContents = { startsKeyFrame: true, isOpen: true, sps: null };

/** NAL units of an aggregation payload: 16-bit sizes after a header of `headerBytes` (RFC 6184 §5.7.1, RFC 7798 §4.4.2). */
function* aggregated(payload: Uint8Array, headerBytes: number): Generator<Uint8Array> {
  for (let at = headerBytes; at + 2 <= payload.length; ) {
    const size = (payload[at] ?? 0) * 256 + (payload[at + 1] ?? 0);
    if (size === 0 || at + 2 + size > payload.length) return;
    yield payload.subarray(at + 2, at + 2 + size);
    at += 2 + size;
  }
}

/** H.264 §D.1.8: “recovery_point( payloadSize )”. */
const RECOVERY_POINT = 6;

/**
 * Whether a unit of supplemental information marks a recovery point: decoders start there too, with no IDR in the whole stream.
 * Source: H.264 §7.3.2.3.1 (types and sizes, 255 at a time), §D.2.8.
 */
function hasRecoveryPoint(nal: Uint8Array): boolean {
  let at = 1;
  const number = (): number => {
    let value = 0;
    while (nal[at] === 0xff) {
      value += 0xff;
      at += 1;
    }
    value += nal[at] ?? 0;
    at += 1;
    return value;
  };
  // The last byte holds the trailing bits.
  while (at < nal.length - 1) {
    const [type, size] = [number(), number()];
    if (type === RECOVERY_POINT) return true;
    at += size;
  }
  return false;
}

/** What one unit adds to what its payload says so far. */
function withH264(contents: PayloadContents, nal: Uint8Array): PayloadContents {
  const type = h264NalType(nal[0] ?? 0);
  if (type === H264_NAL.sps) return { ...contents, sps: nal.slice() };
  if (type === H264_NAL.idrSlice) return { ...contents, startsKeyFrame: true, isOpen: false };
  if (type === H264_NAL.sei && !contents.startsKeyFrame && hasRecoveryPoint(nal))
    return { ...contents, startsKeyFrame: true, isOpen: true };
  return contents;
}

// Most payloads say nothing, and every payload of a stream passes here: those cost no object.
const h264: ReadPayload = (payload) => {
  const type = h264NalType(payload[0] ?? 0);
  if (type === 28) {
    const header = payload[1] ?? 0; // FU header: start bit and NAL type (RFC 6184 §5.8)
    return (header & 0x80) !== 0 && (header & 0x1f) === H264_NAL.idrSlice ? CLOSED_START : NOTHING;
  }
  if (type !== 24) return withH264(NOTHING, payload);
  let contents = NOTHING;
  for (const nal of aggregated(payload, 1)) contents = withH264(contents, nal);
  return contents;
};

/** ITU-T H.265 §7.4.2.2 Table 7-1: CRA_NUT. */
const CLEAN_RANDOM_ACCESS = 21;
const isIrap = (type: number): boolean => type >= H265_NAL.firstIrap && type <= H265_NAL.lastIrap;
const startOf = (type: number): PayloadContents => (type === CLEAN_RANDOM_ACCESS ? OPEN_START : CLOSED_START);

function withH265(contents: PayloadContents, nal: Uint8Array): PayloadContents {
  const type = h265NalType(nal[0] ?? 0);
  if (type === H265_NAL.sps) return { ...contents, sps: nal.slice() };
  return isIrap(type) ? { ...contents, ...startOf(type), sps: contents.sps } : contents;
}

const h265: ReadPayload = (payload) => {
  const type = h265NalType(payload[0] ?? 0);
  if (type === 49) {
    const header = payload[2] ?? 0; // FU header (RFC 7798 §4.4.3)
    return (header & 0x80) !== 0 && isIrap(header & 0x3f) ? startOf(header & 0x3f) : NOTHING;
  }
  if (type !== 48) return withH265(NOTHING, payload);
  let contents = NOTHING;
  for (const nal of aggregated(payload, 2)) contents = withH265(contents, nal);
  return contents;
};

/** Every JPEG is a picture of its own: RFC 2435 §3.1.2, fragment offset 0 starts one. */
const jpeg: ReadPayload = (payload) => {
  const header = parseJpegHeader(payload);
  if (!header.ok) return NOTHING;
  const { fragmentOffset, width, height } = header.value;
  const contents = { startsKeyFrame: fragmentOffset === 0, sps: null };
  return width && height ? { ...contents, size: [width, height] } : contents;
};

/** How to look into the payloads of a codec; a codec that is not listed is measured by packets alone. */
export const PAYLOAD_READERS: Readonly<Record<string, ReadPayload>> = { H264: h264, H265: h265, JPEG: jpeg };
