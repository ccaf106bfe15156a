/** What a receiver tells a sender of one source. Source: RFC 3550 §6.4.1, §6.4.2. */
export interface ReceptionReport {
  readonly ssrc: number;
  /** Share lost since the last report, in 1/256. */
  readonly fractionLost: number;
  readonly cumulativeLost: number;
  readonly extendedMax: number;
  readonly jitterTicks: number;
  /** Middle 32 bits of the NTP time stamp of the last sender report; 0 when none came. */
  readonly lastSenderReport: number;
  /** Since that report came, in 1/65536 s; 0 when none came. */
  readonly delaySinceLast: number;
}

/** RFC 3550 §6.2: the minimum interval between reports; half of it before the first. */
export const REPORT_INTERVAL_MS = 5000;
export const FIRST_REPORT_MS = REPORT_INTERVAL_MS / 2;

const RECEIVER_REPORT = 201;
const SOURCE_DESCRIPTION = 202;
const CNAME = 1;

/**
 * A compound RTCP packet: a receiver report with at most one block, then a source description with our CNAME.
 * Source: RFC 3550 §6.1 ("All RTCP packets MUST be sent in a compound packet … an SDES packet containing a CNAME item
 * MUST be included"), §6.4.2, §6.5.
 * The CNAME is made of the SSRC: it names this receiver in this session and nobody beyond it (RFC 7022 §4).
 */
export function writeReceiverReport(ownSsrc: number, report: ReceptionReport | null): Uint8Array {
  const cname = `receiver-${ownSsrc.toString(16)}`;
  const receiverBytes = 8 + (report ? 24 : 0);
  const itemBytes = 4 * Math.ceil((2 + cname.length + 1) / 4); // one zero byte at least ends the list of items
  const bytes = new Uint8Array(receiverBytes + 8 + itemBytes);
  const view = new DataView(bytes.buffer);
  view.setUint8(0, 0x80 | (report ? 1 : 0));
  view.setUint8(1, RECEIVER_REPORT);
  view.setUint16(2, receiverBytes / 4 - 1);
  view.setUint32(4, ownSsrc);
  if (report) {
    view.setUint32(8, report.ssrc);
    view.setUint32(12, ((report.fractionLost & 0xff) << 24) | (report.cumulativeLost & 0xffffff));
    view.setUint32(16, report.extendedMax % 2 ** 32);
    view.setUint32(20, report.jitterTicks);
    view.setUint32(24, report.lastSenderReport);
    view.setUint32(28, report.delaySinceLast);
  }
  view.setUint8(receiverBytes, 0x81);
  view.setUint8(receiverBytes + 1, SOURCE_DESCRIPTION);
  view.setUint16(receiverBytes + 2, (8 + itemBytes) / 4 - 1);
  view.setUint32(receiverBytes + 4, ownSsrc);
  view.setUint8(receiverBytes + 8, CNAME);
  view.setUint8(receiverBytes + 9, cname.length);
  for (let i = 0; i < cname.length; i++) view.setUint8(receiverBytes + 10 + i, cname.charCodeAt(i) & 0x7f);
  return bytes;
}

/** The first reception report of a compound packet, for a sender that wants to know how it is received. */
export function findReceptionReport(bytes: Uint8Array): ReceptionReport | null {
  if (bytes.length < 32 || (bytes[0] ?? 0) >> 6 !== 2 || bytes[1] !== RECEIVER_REPORT || ((bytes[0] ?? 0) & 31) === 0)
    return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return {
    ssrc: view.getUint32(8),
    fractionLost: view.getUint8(12),
    cumulativeLost: (view.getUint32(12) << 8) >> 8, // signed, 24 bits
    extendedMax: view.getUint32(16),
    jitterTicks: view.getUint32(20),
    lastSenderReport: view.getUint32(24),
    delaySinceLast: view.getUint32(28),
  };
}
