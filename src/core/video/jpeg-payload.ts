import { ByteReader } from '../base/byte-reader.ts';
import { ShortRead } from '../base/bytes.ts';
import { type Fault, fault } from '../base/fault.ts';
import { err, ok, type Result } from '../base/result.ts';
import type { PayloadPart } from './h264-packetiser.ts';

/** The main JPEG header of one RTP payload. Source: RFC 2435 §3.1. */
export interface JpegPayloadHeader {
  readonly fragmentOffset: number;
  /** 0: 4:2:2, 1: 4:2:0; 64…127 carry restart markers. */
  readonly type: number;
  /** 1…99: standard tables scaled; 128…255: tables travel in the payload. */
  readonly q: number;
  /** Pixels; `null` where the header says 0, for pictures above 2,040. */
  readonly width: number | null;
  readonly height: number | null;
}

const MAIN_HEADER_BYTES = 8;

export function parseJpegHeader(payload: Uint8Array): Result<JpegPayloadHeader, Fault> {
  if (payload.length < MAIN_HEADER_BYTES)
    return err(fault('video.jpeg-short', `Expected a main JPEG header of 8 bytes, got ${payload.length}`));
  const at = (index: number): number => payload[index] ?? 0;
  return ok({
    fragmentOffset: (at(1) << 16) | (at(2) << 8) | at(3),
    type: at(4),
    q: at(5),
    width: at(6) * 8 || null,
    height: at(7) * 8 || null,
  });
}

/** What a JFIF file holds that RTP carries: its size, its tables and its scan. */
export interface BaselineJpeg {
  readonly width: number;
  readonly height: number;
  readonly type: 0 | 1;
  /** Quantisation tables in order of their number, 64 bytes each, in zigzag order. */
  readonly tables: readonly Uint8Array[];
  readonly scan: Uint8Array;
}

const SOI = 0xd8;
const SOF0 = 0xc0;
const DQT = 0xdb;
const SOS = 0xda;
/** Widest and highest picture that the 8-bit fields can say: 255 × 8. */
const MAX_SIDE = 2040;

/**
 * Takes a baseline JPEG apart: one that RFC 2435 can carry has three components, 4:2:2 or 4:2:0, 8-bit tables and the
 * standard Huffman codes (which are not checked here).
 * Source: ITU-T T.81 §B.2; RFC 2435 §3, §4.1.
 */
export function parseBaselineJpeg(file: Uint8Array): Result<BaselineJpeg, Fault> {
  const tables: Uint8Array[] = [];
  let frame: { width: number; height: number; type: 0 | 1 } | null = null;
  const reader = new ByteReader(file);
  try {
    if (reader.u16('SOI') !== (0xff00 | SOI))
      return err(fault('video.jpeg-no-start', 'Expected a JPEG, got no SOI marker'));
    for (;;) {
      const marker = reader.u16('marker') & 0xff;
      const segment = new ByteReader(reader.take(reader.u16('segment length') - 2, 'segment'));
      if (marker === DQT)
        while (segment.bytesLeft > 0) {
          const precision = segment.u8('Pq, Tq') >> 4;
          if (precision !== 0) return err(fault('video.jpeg-precision', 'Expected 8-bit quantisation tables'));
          tables.push(segment.take(64, 'quantisation table').slice());
        }
      else if (marker === SOF0) {
        segment.u8('precision');
        const height = segment.u16('lines');
        const width = segment.u16('samples a line');
        const components = segment.u8('components');
        segment.u8('component id');
        const sampling = segment.u8('sampling factors');
        if (components !== 3 || (sampling !== 0x22 && sampling !== 0x21))
          return err(fault('video.jpeg-sampling', `Expected 4:2:0 or 4:2:2, got sampling ${sampling.toString(16)}`));
        frame = { width, height, type: sampling === 0x22 ? 1 : 0 };
      } else if (marker > SOF0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
        return err(fault('video.jpeg-not-baseline', 'Expected baseline coding (SOF0)'));
      else if (marker === SOS) {
        if (!frame || frame.width > MAX_SIDE || frame.height > MAX_SIDE)
          return err(fault('video.jpeg-size', 'The picture has no size, or one above 2,040 pixels'));
        const rest = reader.take(reader.bytesLeft, 'scan');
        return ok({ ...frame, tables, scan: rest.subarray(0, rest.length - 2) }); // EOI is not carried
      }
    }
  } catch (error) {
    if (error instanceof ShortRead) return err(fault('video.jpeg-short', error.message));
    throw error;
  }
}

/** RFC 2435 §3.1.8: Q values from 128 say that the tables travel in the payload. */
const TABLES_IN_BAND = 255;

/** Cuts a JPEG into RTP payloads; its tables travel with the first. Source: RFC 2435 §3.1, §3.1.8. */
export function packetiseJpeg(jpeg: BaselineJpeg, maxPayloadBytes: number): readonly PayloadPart[] {
  const tableBytes = jpeg.tables.reduce((sum, table) => sum + table.length, 0);
  const parts: PayloadPart[] = [];
  for (let at = 0; at < jpeg.scan.length; ) {
    const headerBytes = MAIN_HEADER_BYTES + (at === 0 ? 4 + tableBytes : 0);
    const body = jpeg.scan.subarray(at, at + maxPayloadBytes - headerBytes);
    const payload = new Uint8Array(headerBytes + body.length);
    payload.set([0, (at >> 16) & 0xff, (at >> 8) & 0xff, at & 0xff]);
    payload.set([jpeg.type, TABLES_IN_BAND, Math.ceil(jpeg.width / 8), Math.ceil(jpeg.height / 8)], 4);
    if (at === 0) {
      payload.set([0, 0, tableBytes >> 8, tableBytes & 0xff], MAIN_HEADER_BYTES);
      let tableAt = MAIN_HEADER_BYTES + 4;
      for (const table of jpeg.tables) {
        payload.set(table, tableAt);
        tableAt += table.length;
      }
    }
    payload.set(body, headerBytes);
    at += body.length;
    parts.push({ payload, marker: at >= jpeg.scan.length });
  }
  return parts;
}
