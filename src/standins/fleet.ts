import { buildStreamUrl } from '../core/net/stream-url.ts';
import { BOOT_ROOM, LINEN_STAIR, type Personality, SLUICE_RAIL } from './personality.ts';
import { createEncoderThread } from './pictures/encoder-thread.ts';
import { type RtspStandIn, type SessionEnd, startRtspStandIn } from './rtsp-standin.ts';

export const ALDER_MILL_FLEET: readonly Personality[] = [SLUICE_RAIL, BOOT_ROOM, LINEN_STAIR];

export interface Fleet {
  readonly standIns: readonly RtspStandIn[];
  /** Real loopback port of a planned address, for the simulated network. */
  loopbackPort(host: string, port: number): number | undefined;
  /** Hosts that are there in the simulated network, whatever the port. */
  hasHost(host: string): boolean;
  close(): Promise<void>;
}

/** Starts simulated cameras, with one thread that draws and encodes for all of them. */
export async function startFleet(
  personalities: readonly Personality[],
  onSessionEnd?: (end: SessionEnd) => void,
): Promise<Fleet> {
  const thread = createEncoderThread();
  const standIns = await Promise.all(personalities.map((one) => startRtspStandIn(one, thread.encode, onSessionEnd)));
  return {
    standIns,
    loopbackPort: (host, port) =>
      standIns.find(({ personality }) => personality.host === host && personality.port === port)?.port,
    hasHost: (host) => standIns.some(({ personality }) => personality.host === host),
    close: async () => {
      await Promise.all(standIns.map((standIn) => standIn.close()));
      await thread.close();
    },
  };
}

/** What `cleartap standins --json` prints: addresses that any client on this machine can dial. */
export function fleetListing(fleet: Fleet) {
  return {
    devices: fleet.standIns.map(({ personality, port }) => ({
      name: personality.name,
      user: personality.account?.user ?? null,
      password: personality.account?.password ?? null,
      rtsp: personality.streams.map(({ label, path }) => ({
        label,
        url: buildStreamUrl({
          scheme: 'rtsp',
          user: personality.account?.user ?? null,
          password: personality.account?.password ?? null,
          host: '127.0.0.1',
          port,
          path,
          query: null,
        }),
      })),
    })),
  };
}
