import { type Fault, fault } from '../base/fault.ts';

/** A key frame of 33 million pixels at 2 bits each; those of cameras stay below a quarter of it. */
export const MAX_UNIT_BYTES = 8 * 1024 * 1024;
/** The same in packets of 512 bytes: what has more was not cut up to be sent, but to be kept. */
export const MAX_UNIT_PARTS = 16_384;

export type UnitFault = Fault<'video.unit-too-large'>;

/** Whether a coded picture, as far as it came, has grown beyond any that a camera sends: then it has no end. */
export const unitFaultOf = (byteCount: number, partCount: number): UnitFault | null =>
  byteCount <= MAX_UNIT_BYTES && partCount <= MAX_UNIT_PARTS
    ? null
    : fault(
        'video.unit-too-large',
        `A picture without end: after ${partCount} packets and ${byteCount} bytes it was not complete; up to ${MAX_UNIT_PARTS} packets and ${MAX_UNIT_BYTES} bytes are allowed.`,
        { byteCount, partCount },
      );
