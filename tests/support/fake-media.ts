import { bytesFromHex } from '../../src/core/base/bytes.ts';
import { writeSenderReport } from '../../src/core/rtp/sender-report.ts';
import { packetiseH264 } from '../../src/core/video/h264-packetiser.ts';

/** RTP packets as a camera would send them, for machines that are driven without a socket. */
export interface FakeStream {
  readonly fps: number;
  readonly groupFrames: number;
  readonly frames: number;
  readonly keyBytes?: number;
  readonly betweenBytes?: number;
  readonly firstSeq?: number;
  readonly clockHz?: number;
}

export interface FakePacket {
  readonly bytes: Uint8Array;
  readonly frame: number;
}

/** 640×360, 15 frames a second, Constrained Baseline: one of the worked examples. */
export const SPS_640 = (() => {
  const read = bytesFromHex('6742c016da0280bfe5c044000003000400000300783c58ba80');
  if (!read.ok) throw new Error('SPS_640');
  return read.value;
})();
const PPS = Uint8Array.of(0x68, 0xce, 0x0f, 0xc8);

const filled = (type: number, length: number): Uint8Array => new Uint8Array(length).fill(0x55).fill(0x60 | type, 0, 1);

export function rtp(seq: number, stamp: number, payload: Uint8Array, marker: boolean, ssrc = 0x1234): Uint8Array {
  const bytes = new Uint8Array(12 + payload.length);
  const view = new DataView(bytes.buffer);
  view.setUint8(0, 0x80);
  view.setUint8(1, (marker ? 0x80 : 0) | 96);
  view.setUint16(2, seq & 0xffff);
  view.setUint32(4, stamp % 2 ** 32);
  view.setUint32(8, ssrc);
  bytes.set(payload, 12);
  return bytes;
}

export function fakePackets(stream: FakeStream): FakePacket[] {
  const {
    fps,
    groupFrames,
    frames,
    keyBytes = 12_000,
    betweenBytes = 1500,
    firstSeq = 65_500,
    clockHz = 90_000,
  } = stream;
  const packets: FakePacket[] = [];
  let seq = firstSeq;
  for (let frame = 0; frame < frames; frame++) {
    const isKey = frame % groupFrames === 0;
    const nals = isKey ? [SPS_640, PPS, filled(5, keyBytes)] : [filled(1, betweenBytes)];
    for (const { payload, marker } of packetiseH264(nals, 1400)) {
      packets.push({ bytes: rtp(seq, Math.round((frame * clockHz) / fps), payload, marker), frame });
      seq += 1;
    }
  }
  return packets;
}

/** The same, framed for one TCP connection. Source: RFC 2326 §10.12. */
export function interleaved(channel: number, packet: Uint8Array): Uint8Array {
  const framed = new Uint8Array(4 + packet.length);
  framed.set([0x24, channel, packet.length >> 8, packet.length & 0xff]);
  framed.set(packet, 4);
  return framed;
}

export const senderReport = (unixMs: number, rtpTimestamp: number): Uint8Array =>
  writeSenderReport({ ssrc: 0x1234, unixMs, rtpTimestamp, packetCount: 1, octetCount: 1 });
