import { concatBytes } from '../base/bytes.ts';
import type { RtpPacket } from '../rtp/rtp-packet.ts';
import { H264_NAL, h264NalType } from './nal.ts';
import { type UnitFault, unitFaultOf } from './unit-limits.ts';

/** One coded picture with what stands before it, as the decoder takes it. */
export interface AccessUnit {
  readonly rtpTimestamp: number;
  readonly nals: readonly Uint8Array[];
  readonly isKeyFrame: boolean;
  /** Packets of it are missing: it will decode with damage, if at all. */
  readonly damaged: boolean;
}

/** NAL unit types of RTP payloads, RFC 6184 §5.2 Table 1. */
const STAP_A = 24;
const FU_A = 28;
/** More units than any encoder cuts a picture into. */
const MAX_NALS_PER_UNIT = 512;

/**
 * RTP payloads in, access units out. Takes single NAL units, STAP-A and FU-A (packetization modes 0 and 1). A unit is
 * closed by the marker bit or by the next time stamp; a gap in sequence numbers marks it damaged.
 * Source: RFC 6184 §5.4 (modes), §5.6, §5.7.1, §5.8; access units H.264 §7.4.1.2.3.
 */
export class H264Depacketiser {
  #timestamp: number | null = null;
  #nals: Uint8Array[] = [];
  #damaged = false;
  #nextSeq: number | null = null;
  #fragments: Uint8Array[] | null = null;
  #unitBytes = 0;
  #unitParts = 0;
  #fault: UnitFault | null = null;

  /** Set when a unit grew beyond what any camera sends: what came of it was let go, and nothing more is kept. */
  get fault(): UnitFault | null {
    return this.#fault;
  }

  push(packet: RtpPacket): readonly AccessUnit[] {
    const units: AccessUnit[] = [];
    const gap = this.#nextSeq !== null && packet.sequenceNumber !== this.#nextSeq;
    this.#nextSeq = (packet.sequenceNumber + 1) & 0xffff;
    if (gap) this.#abandonFragment();
    if (this.#timestamp !== null && packet.rtpTimestamp !== this.#timestamp) units.push(...this.flush());
    this.#timestamp = packet.rtpTimestamp;
    if (gap) this.#damaged = true;
    this.#unitBytes += packet.payload.length;
    this.#unitParts += 1;
    this.#fault ??= unitFaultOf(this.#unitBytes, this.#unitParts);
    if (this.#fault) this.#letGo();
    else this.#takePayload(packet.payload);
    if (packet.marker) units.push(...this.flush());
    return units;
  }

  /** Closes what is open; at the end of a stream. */
  flush(): readonly AccessUnit[] {
    this.#abandonFragment();
    const unit: AccessUnit = {
      rtpTimestamp: this.#timestamp ?? 0,
      nals: this.#nals,
      isKeyFrame: this.#nals.some((nal) => h264NalType(nal[0] ?? 0) === H264_NAL.idrSlice),
      damaged: this.#damaged,
    };
    this.#nals = [];
    this.#damaged = false;
    this.#timestamp = null;
    this.#unitBytes = 0;
    this.#unitParts = 0;
    return unit.nals.length > 0 ? [unit] : [];
  }

  #letGo(): void {
    this.#abandonFragment();
    this.#nals = [];
    this.#damaged = true;
  }

  #takePayload(payload: Uint8Array): void {
    const first = payload[0];
    if (first === undefined) return;
    const type = h264NalType(first);
    if (type === FU_A) this.#takeFragment(payload, first);
    else if (type === STAP_A) this.#takeAggregate(payload);
    else if (type > 0 && type < STAP_A) this.#keep(payload.slice());
    else this.#damaged = true; // STAP-B, MTAP, FU-B need mode 2, which no offer here allows
  }

  /** RFC 6184 §5.7.1: one byte header, then 16-bit size and NAL unit, repeated. */
  #takeAggregate(payload: Uint8Array): void {
    let at = 1;
    while (at + 2 <= payload.length) {
      const size = (payload[at] ?? 0) * 256 + (payload[at + 1] ?? 0);
      at += 2;
      if (size === 0 || at + size > payload.length) {
        this.#damaged = true;
        return;
      }
      this.#keep(payload.slice(at, at + size));
      at += size;
    }
  }

  /** RFC 6184 §5.8: FU indicator, FU header with start and end bit; the NAL header is F|NRI of one and type of the other. */
  #takeFragment(payload: Uint8Array, indicator: number): void {
    const header = payload[1];
    if (header === undefined) {
      this.#damaged = true;
      return;
    }
    if (header & 0x80) {
      this.#abandonFragment();
      this.#fragments = [Uint8Array.of((indicator & 0xe0) | (header & 0x1f))];
    }
    if (!this.#fragments) {
      this.#damaged = true; // its start was lost
      return;
    }
    if (payload.length > 2) this.#fragments.push(payload.slice(2));
    if (header & 0x40) {
      const nal = concatBytes(this.#fragments);
      this.#fragments = null;
      this.#keep(nal);
    }
  }

  #abandonFragment(): void {
    if (this.#fragments) this.#damaged = true;
    this.#fragments = null;
  }
  #keep(nal: Uint8Array): void {
    if (this.#nals.length < MAX_NALS_PER_UNIT) this.#nals.push(nal);
    else this.#damaged = true;
  }
}

const START_CODE = Uint8Array.of(0, 0, 0, 1);

/** NAL units as a byte stream with start codes. Source: H.264 Annex B. */
export const annexB = (nals: readonly Uint8Array[]): Uint8Array =>
  concatBytes(nals.flatMap((nal) => [START_CODE, nal]));

/** `codecs` parameter of an H.264 stream from its SPS: avc1.PPCCLL. Source: RFC 6381 §3.3. */
export const h264CodecString = (sps: Uint8Array): string =>
  `avc1.${[1, 2, 3].map((i) => (sps[i] ?? 0).toString(16).padStart(2, '0')).join('')}`;
