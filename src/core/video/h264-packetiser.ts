/** One RTP payload of a picture, and whether it is the last (marker bit). */
export interface PayloadPart {
  readonly payload: Uint8Array;
  readonly marker: boolean;
}

const STAP_A = 24;
const FU_A = 28;

/**
 * Cuts the NAL units of one access unit into RTP payloads: parameter sets travel together in a STAP-A, what is longer
 * than `maxPayloadBytes` in FU-A fragments, the rest alone.
 * Source: RFC 6184 §5.6, §5.7.1, §5.8 (packetization-mode 1).
 */
export function packetiseH264(nals: readonly Uint8Array[], maxPayloadBytes: number): readonly PayloadPart[] {
  const payloads: Uint8Array[] = [];
  const small = nals.filter((nal) => [7, 8].includes((nal[0] ?? 0) & 0x1f));
  if (small.length > 1) {
    const bytes = new Uint8Array(1 + small.reduce((sum, nal) => sum + 2 + nal.length, 0));
    bytes[0] = 0x60 | STAP_A;
    let at = 1;
    for (const nal of small) {
      bytes.set([nal.length >> 8, nal.length & 0xff], at);
      bytes.set(nal, at + 2);
      at += 2 + nal.length;
    }
    payloads.push(bytes);
  }
  for (const nal of nals) {
    if (small.length > 1 && small.includes(nal)) continue;
    if (nal.length <= maxPayloadBytes) payloads.push(nal);
    else payloads.push(...fragment(nal, maxPayloadBytes));
  }
  return payloads.map((payload, index) => ({ payload, marker: index === payloads.length - 1 }));
}

function fragment(nal: Uint8Array, maxPayloadBytes: number): Uint8Array[] {
  const header = nal[0] ?? 0;
  const step = maxPayloadBytes - 2;
  const parts: Uint8Array[] = [];
  for (let at = 1; at < nal.length; at += step) {
    const body = nal.subarray(at, at + step);
    const bytes = new Uint8Array(2 + body.length);
    const start = at === 1 ? 0x80 : 0;
    const end = at + step >= nal.length ? 0x40 : 0;
    bytes.set([(header & 0xe0) | FU_A, start | end | (header & 0x1f)]);
    bytes.set(body, 2);
    parts.push(bytes);
  }
  return parts;
}
