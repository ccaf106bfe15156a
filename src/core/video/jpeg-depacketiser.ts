import { concatBytes } from '../base/bytes.ts';
import type { RtpPacket } from '../rtp/rtp-packet.ts';
import { type JpegPayloadHeader, parseJpegHeader } from './jpeg-payload.ts';
import { quantisationOf, STANDARD_HUFFMAN } from './jpeg-tables.ts';
import { type UnitFault, unitFaultOf } from './unit-limits.ts';

/** A picture as a file that any decoder takes. */
export interface JpegPicture {
  readonly rtpTimestamp: number;
  readonly file: Uint8Array;
}

const MAIN_HEADER_BYTES = 8;
const RESTART_HEADER_BYTES = 4;
const TABLE_HEADER_BYTES = 4;
const TABLE_BYTES = 64;
/** RFC 2435 §3.1.3: types from 64 to 127 carry a restart marker header. */
const hasRestart = (type: number): boolean => type >= 64 && type <= 127;

interface OpenPicture {
  readonly rtpTimestamp: number;
  readonly header: JpegPayloadHeader;
  readonly tables: readonly Uint8Array[];
  readonly restartInterval: number | null;
  readonly parts: Uint8Array[];
  scanBytes: number;
  packets: number;
}

/**
 * RTP payloads in, whole JPEG files out: the headers that RTP leaves out are written back. A picture with a missing or
 * unfit part is dropped: half a JPEG is worse than the picture before. Tables that came in band are kept for the pictures
 * that name them again.
 * Source: RFC 2435 §3.1, §3.1.7, §3.1.8, §4, Appendix B.
 */
export class JpegDepacketiser {
  #open: OpenPicture | null = null;
  #fault: UnitFault | null = null;
  readonly #tablesOfQ = new Map<number, readonly Uint8Array[]>();

  /** Set when a picture grew beyond what any camera sends. */
  get fault(): UnitFault | null {
    return this.#fault;
  }

  push({ payload, rtpTimestamp, marker }: RtpPacket): JpegPicture | null {
    const parsed = parseJpegHeader(payload);
    if (!parsed.ok) {
      this.#open = null;
      return null;
    }
    const header = parsed.value;
    let at = MAIN_HEADER_BYTES;
    let restartInterval: number | null = null;
    if (hasRestart(header.type)) {
      restartInterval = (payload[at] ?? 0) * 256 + (payload[at + 1] ?? 0);
      at += RESTART_HEADER_BYTES;
    }
    if (header.fragmentOffset === 0) {
      const tables = this.#tablesOf(header, payload.subarray(at));
      this.#open = tables && {
        rtpTimestamp,
        header,
        tables: tables.list,
        restartInterval,
        parts: [],
        scanBytes: 0,
        packets: 0,
      };
      at += tables?.headerBytes ?? 0;
    }
    const open = this.#open;
    if (!open || open.rtpTimestamp !== rtpTimestamp || open.scanBytes !== header.fragmentOffset) {
      this.#open = null; // a part is missing, or its first
      return null;
    }
    const part = payload.slice(at); // its bytes are read into again before the picture is whole
    if (part.length > 0) open.parts.push(part);
    open.scanBytes += part.length;
    open.packets += 1;
    this.#fault ??= unitFaultOf(open.scanBytes, open.packets);
    if (this.#fault) this.#open = null;
    if (!marker || !this.#open) return null;
    this.#open = null;
    const file = fileOf(open);
    return file && { rtpTimestamp, file };
  }

  /** Tables of a picture, and the bytes that told them; `null` when they are nowhere. */
  #tablesOf({ q }: JpegPayloadHeader, rest: Uint8Array): { list: readonly Uint8Array[]; headerBytes: number } | null {
    if (q >= 1 && q <= 99) return { list: quantisationOf(q), headerBytes: 0 };
    if (q < 128 || rest.length < TABLE_HEADER_BYTES) return null;
    const length = (rest[2] ?? 0) * 256 + (rest[3] ?? 0);
    const precision = rest[1] ?? 0;
    if (length === 0) {
      const list = this.#tablesOfQ.get(q);
      return list ? { list, headerBytes: TABLE_HEADER_BYTES } : null;
    }
    const isWhole = length % TABLE_BYTES === 0 && rest.length >= TABLE_HEADER_BYTES + length;
    if (!isWhole || precision !== 0 || length > 4 * TABLE_BYTES) return null; // 16-bit tables are not baseline
    const list = Array.from({ length: length / TABLE_BYTES }, (_, i) =>
      rest.slice(TABLE_HEADER_BYTES + i * TABLE_BYTES, TABLE_HEADER_BYTES + (i + 1) * TABLE_BYTES),
    );
    this.#tablesOfQ.set(q, list);
    return { list, headerBytes: TABLE_HEADER_BYTES + length };
  }
}

const segment = (marker: number, body: Uint8Array): Uint8Array =>
  concatBytes([Uint8Array.of(0xff, marker, (body.length + 2) >> 8, (body.length + 2) & 0xff), body]);

/** Writes the file around a scan. Source: ITU-T T.81 §B.2. `null` when the header does not say how large it is. */
function fileOf({ header, tables, restartInterval, parts }: OpenPicture): Uint8Array | null {
  const { width, height, type } = header;
  const sampling = type % 64 === 0 ? 0x21 : type % 64 === 1 ? 0x22 : null;
  if (!width || !height || sampling === null) return null;
  const chroma = tables.length > 1 ? 1 : 0;
  const frame = Uint8Array.of(
    8,
    ...[height >> 8, height & 0xff, width >> 8, width & 0xff],
    3,
    ...[1, sampling, 0],
    ...[2, 0x11, chroma],
    ...[3, 0x11, chroma],
  );
  return concatBytes([
    Uint8Array.of(0xff, 0xd8),
    ...tables.map((table, number) => segment(0xdb, concatBytes([Uint8Array.of(number), table]))),
    segment(0xc0, frame),
    ...STANDARD_HUFFMAN.map((table) => segment(0xc4, table)),
    ...(restartInterval === null ? [] : [segment(0xdd, Uint8Array.of(restartInterval >> 8, restartInterval & 0xff))]),
    segment(0xda, Uint8Array.of(3, 1, 0x00, 2, 0x11, 3, 0x11, 0, 63, 0)),
    ...parts,
    Uint8Array.of(0xff, 0xd9),
  ]);
}
