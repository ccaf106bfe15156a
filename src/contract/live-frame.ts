/** One picture on its way to the page: when it reached the server, when the camera took it, and its bytes: Annex B, or a JPEG file; or a piece of its sound. */
export interface LiveFrame {
  readonly isSound: boolean;
  readonly isKeyFrame: boolean;
  /** Server's wall clock when its last packet came, ms since 1970. */
  readonly arrivedUnixMs: number;
  /** By the camera's own clock (RTCP sender report), ms since 1970; `null` while that is not known. */
  readonly takenUnixMs: number | null;
  readonly accessUnit: Uint8Array;
}

/** The same as it came over the wire: its bytes are a view on the message. */
export interface ReceivedFrame extends LiveFrame {
  readonly accessUnit: Uint8Array<ArrayBuffer>;
}

const HEADER_BYTES = 17;

/** Layout: 1 byte flags (bit 0 key frame, bit 1 sound), 8 bytes arrived, 8 bytes taken (NaN = not known), then the access unit. */
export function encodeLiveFrame(frame: LiveFrame): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEADER_BYTES + frame.accessUnit.length);
  const view = new DataView(bytes.buffer);
  view.setUint8(0, (frame.isKeyFrame ? 1 : 0) | (frame.isSound ? 2 : 0));
  view.setFloat64(1, frame.arrivedUnixMs);
  view.setFloat64(9, frame.takenUnixMs ?? Number.NaN);
  bytes.set(frame.accessUnit, HEADER_BYTES);
  return bytes;
}

/** `null` for a message too short to be one. */
export function decodeLiveFrame(buffer: ArrayBuffer): ReceivedFrame | null {
  if (buffer.byteLength <= HEADER_BYTES) return null;
  const view = new DataView(buffer);
  const taken = view.getFloat64(9);
  return {
    isSound: (view.getUint8(0) & 2) !== 0,
    isKeyFrame: (view.getUint8(0) & 1) === 1,
    arrivedUnixMs: view.getFloat64(1),
    takenUnixMs: Number.isNaN(taken) ? null : taken,
    accessUnit: new Uint8Array(buffer, HEADER_BYTES),
  };
}
