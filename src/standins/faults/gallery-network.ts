import { startBrokenPeer } from '../broken-peers.ts';
import type { Personality } from '../personality.ts';
import { type RtspStandIn, startRtspStandIn } from '../rtsp-standin.ts';
import type { GalleryFault } from './fault-gallery.ts';

/** The faults of a gallery, each at its address of the simulated network. */
export interface GalleryNetwork {
  /** Real loopback port of an address, or none where nothing listens. */
  loopbackPort(host: string, port: number): number | undefined;
  /** Whether somebody is there, whatever the port. */
  hasHost(host: string): boolean;
  /** Whether calls to this port are dropped on the way. */
  isDropped(host: string, port: number): boolean;
  /** The simulated camera behind a fault; `null` where none is. */
  cameraOf(id: string): RtspStandIn | null;
  close(): Promise<void>;
}

interface Closing {
  readonly port: number;
  close(): Promise<void>;
}

const noPictures = (): Promise<never> => Promise.reject(new Error('these cameras play loops'));

/** Starts them all: they are at rest until somebody calls. */
export async function startGallery(faults: readonly GalleryFault[]): Promise<GalleryNetwork> {
  const ports = new Map<string, number>();
  const cameras = new Map<string, RtspStandIn>();
  const opened: Closing[] = [];
  const camera = async (id: string, personality: Personality): Promise<RtspStandIn> => {
    const standIn = await startRtspStandIn(personality, noPictures);
    cameras.set(id, standIn);
    return standIn;
  };
  await Promise.all(
    faults.flatMap(({ id, host, doors }) =>
      (doors ?? []).map(async (door) => {
        const served = 'camera' in door ? await camera(id, door.camera) : await startBrokenPeer(door.peer);
        opened.push(served);
        ports.set(`${host}:${door.port}`, served.port);
      }),
    ),
  );
  const at = (host: string): GalleryFault | undefined => faults.find((fault) => fault.host === host);
  return {
    loopbackPort: (host, port) => ports.get(`${host}:${port}`),
    hasHost: (host) => (at(host)?.doors ?? null) !== null,
    isDropped: (host, port) => at(host)?.dropped.includes(port) === true,
    cameraOf: (id) => cameras.get(id) ?? null,
    close: async () => {
      await Promise.all(opened.map((one) => one.close()));
    },
  };
}

/** Faults that any client on this machine can dial, with what they are: those that have a port of their own. */
export function galleryListing(faults: readonly GalleryFault[], gallery: GalleryNetwork) {
  return faults.flatMap(({ id, name, host, url, user, secret, is }) => {
    const match = /^(rtsps?):\/\/[^/:]+(?::(\d{1,5}))?(\/.*)?$/.exec(url);
    const port = match ? gallery.loopbackPort(host, Number(match[2] ?? 554)) : undefined;
    return match && port !== undefined && url.includes(`//${host}`)
      ? [{ id, name, is, user, password: secret, url: `${match[1]}://127.0.0.1:${port}${match[3] ?? ''}` }]
      : [];
  });
}
