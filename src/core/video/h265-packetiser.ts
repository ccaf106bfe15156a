import type { PayloadPart } from './h264-packetiser.ts';

const FRAGMENT = 49;

/**
 * Cuts the NAL units of one access unit into RTP payloads: each alone, or in fragments where it is longer than `maxPayloadBytes`.
 * Source: RFC 7798 §4.4.1, §4.4.3, without DONL fields.
 */
export function packetiseH265(nals: readonly Uint8Array[], maxPayloadBytes: number): readonly PayloadPart[] {
  const payloads = nals.flatMap((nal) => (nal.length <= maxPayloadBytes ? [nal] : fragments(nal, maxPayloadBytes)));
  return payloads.map((payload, index) => ({ payload, marker: index === payloads.length - 1 }));
}

function fragments(nal: Uint8Array, maxPayloadBytes: number): Uint8Array[] {
  const [first = 0, second = 0] = nal;
  const type = (first >> 1) & 0x3f;
  const step = maxPayloadBytes - 3;
  const parts: Uint8Array[] = [];
  for (let at = 2; at < nal.length; at += step) {
    const body = nal.subarray(at, at + step);
    const bytes = new Uint8Array(3 + body.length);
    const start = at === 2 ? 0x80 : 0;
    const end = at + step >= nal.length ? 0x40 : 0;
    bytes.set([(first & 0x81) | (FRAGMENT << 1), second, start | end | type]);
    bytes.set(body, 3);
    parts.push(bytes);
  }
  return parts;
}
