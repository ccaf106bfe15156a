import { concatBytes } from '../base/bytes.ts';
import type { RtpPacket } from '../rtp/rtp-packet.ts';
import { H264_NAL, H265_NAL, h264NalType, h265NalType } from './nal.ts';
import { type UnitFault, unitFaultOf } from './unit-limits.ts';

/** One coded picture with what stands before it, as the decoder takes it. */
export interface AccessUnit {
  readonly rtpTimestamp: number;
  readonly nals: readonly Uint8Array[];
  readonly isKeyFrame: boolean;
  /** Packets of it are missing: it will decode with damage, if at all. */
  readonly damaged: boolean;
}

/** How one codec lies in RTP payloads. */
interface NalPayloads {
  readonly typeOf: (firstByte: number) => number;
  readonly isKey: (type: number) => boolean;
  /** Several units in one payload, and a part of one. */
  readonly aggregate: number;
  readonly fragment: number;
  /** Other types are none, or need a mode that no offer here allows. */
  readonly own: readonly [first: number, last: number];
  readonly headerBytes: number;
  /** The header of the unit that a fragment is of: of the payload's own header, with the type of the fragment's. */
  readonly headerOf: (payload: Uint8Array, type: number) => Uint8Array;
  readonly typeMask: number;
}

/** Source: RFC 6184 §5.2 Table 1 (STAP-A 24, FU-A 28), §5.8. */
const H264: NalPayloads = {
  typeOf: h264NalType,
  isKey: (type) => type === H264_NAL.idrSlice,
  aggregate: 24,
  fragment: 28,
  own: [1, 23],
  headerBytes: 1,
  headerOf: ([first = 0], type) => Uint8Array.of((first & 0xe0) | type),
  typeMask: 0x1f,
};
/** Source: RFC 7798 §4.4.2 (AP 48), §4.4.3 (FU 49), without DONL. */
const H265: NalPayloads = {
  typeOf: h265NalType,
  isKey: (type) => type >= H265_NAL.firstIrap && type <= H265_NAL.lastIrap,
  aggregate: 48,
  fragment: 49,
  own: [0, 47],
  headerBytes: 2,
  headerOf: ([first = 0, second = 0], type) => Uint8Array.of((first & 0x81) | (type << 1), second),
  typeMask: 0x3f,
};
/** More units than any encoder cuts a picture into. */
const MAX_NALS_PER_UNIT = 512;

/**
 * RTP payloads in, access units out. Takes single NAL units, several in one payload, and fragments; of H.264 packetization
 * modes 0 and 1. A unit is closed by the marker bit or by the next time stamp; a gap in sequence numbers marks it damaged.
 * Source: RFC 6184 §5.4 (modes), §5.6, §5.7.1, §5.8; RFC 7798 §4.4; access units H.264 §7.4.1.2.3.
 */
export class NalDepacketiser {
  readonly #codec: NalPayloads;
  #timestamp: number | null = null;
  #nals: Uint8Array[] = [];
  #damaged = false;
  #nextSeq: number | null = null;
  #fragments: Uint8Array[] | null = null;
  #unitBytes = 0;
  #unitParts = 0;
  #fault: UnitFault | null = null;

  constructor(codec: 'H264' | 'H265') {
    this.#codec = codec === 'H264' ? H264 : H265;
  }

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
      isKeyFrame: this.#nals.some((nal) => this.#codec.isKey(this.#codec.typeOf(nal[0] ?? 0))),
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
    const { typeOf, aggregate, fragment, own } = this.#codec;
    const type = typeOf(first);
    if (type === fragment) this.#takeFragment(payload);
    else if (type === aggregate) this.#takeAggregate(payload);
    else if (type >= own[0] && type <= own[1]) this.#keep(payload.slice());
    else this.#damaged = true;
  }

  /** After the payload's header 16-bit size and NAL unit, repeated. */
  #takeAggregate(payload: Uint8Array): void {
    let at = this.#codec.headerBytes;
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

  /** The payload's header, then one byte with start and end bit and the type of the unit. */
  #takeFragment(payload: Uint8Array): void {
    const { headerBytes, headerOf, typeMask } = this.#codec;
    const header = payload[headerBytes];
    if (header === undefined) {
      this.#damaged = true;
      return;
    }
    if (header & 0x80) {
      this.#abandonFragment();
      this.#fragments = [headerOf(payload, header & typeMask)];
    }
    if (!this.#fragments) {
      this.#damaged = true; // its start was lost
      return;
    }
    if (payload.length > headerBytes + 1) this.#fragments.push(payload.slice(headerBytes + 1));
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
