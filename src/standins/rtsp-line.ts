import type { Socket } from 'node:net';

/** The way to one client: a connection, or the two that a tunnel is made of. */
export interface RtspLine {
  readonly remoteAddress: string;
  readonly isGone: boolean;
  /** Bytes that the client has not taken yet. */
  readonly unsent: number;
  write(bytes: Uint8Array | string): void;
  /** What is written meanwhile leaves as one. */
  inOneGo(write: () => void): void;
  /** After what was written last. */
  end(): void;
  destroy(): void;
  onClose(listener: () => void): void;
}

export const plainLine = (socket: Socket): RtspLine => ({
  get remoteAddress() {
    return socket.remoteAddress ?? '';
  },
  get isGone() {
    return socket.destroyed;
  },
  get unsent() {
    return socket.writableLength;
  },
  write: (bytes) => {
    if (socket.writable) socket.write(bytes);
  },
  inOneGo: (write) => {
    socket.cork();
    write();
    socket.uncork();
  },
  end: () => socket.end(),
  destroy: () => socket.destroy(),
  onClose: (listener) => void socket.once('close', listener),
});
