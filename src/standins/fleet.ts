import { type RehearsedInput, type RehearsedState, rehearse } from '../core/firmware/rehearsal.ts';
import { type Firmware, listens } from '../core/firmware/simulated-camera.ts';
import { buildStreamUrl } from '../core/net/stream-url.ts';
import { type HandsetPages, handsetHeat, startHandsetPages } from './handset-pages.ts';
import { BOOT_ROOM, BREAD_OVEN, LINEN_STAIR, type Personality, SLUICE_RAIL } from './personality.ts';
import { createEncoderThread } from './pictures/encoder-thread.ts';
import type { EncodeGroup } from './pictures/picture-feed.ts';
import { type RtspStandIn, type SessionEnd, startRtspStandIn } from './rtsp-standin.ts';

export const ALDER_MILL_FLEET: readonly Personality[] = [SLUICE_RAIL, BOOT_ROOM, LINEN_STAIR, BREAD_OVEN];

/** A simulated device: its stream, and the pages of a handset. */
interface Device {
  readonly rtsp: RtspStandIn;
  readonly pages: HandsetPages | null;
  /** What runs on it, where another firmware can be written. */
  firmware: Firmware;
  account: Personality['account'];
}

export interface Fleet {
  readonly standIns: readonly RtspStandIn[];
  readonly pagesOf: (standIn: RtspStandIn) => HandsetPages | null;
  /** Real loopback port of a planned address, for the simulated network. */
  loopbackPort(host: string, port: number): number | undefined;
  /** Hosts that are there in the simulated network, whatever the port. */
  hasHost(host: string): boolean;
  /**
   * Does to a simulated camera what was rehearsed: its port opens or closes with the firmware that it then has. `null` where
   * no camera is there that could be reflashed.
   */
  reflash(host: string, inputs: readonly RehearsedInput[]): Promise<readonly RehearsedState[] | null>;
  /** Sets the account of a simulated camera, as its own page would; false where no camera is there. */
  setAccount(host: string, account: NonNullable<Personality['account']>): boolean;
  close(): Promise<void>;
}

interface FleetOptions {
  readonly onSessionEnd?: (end: SessionEnd) => void;
  /** Cameras that are to be reflashed refuse whoever dials, as they came; else they run the other firmware already. */
  readonly isAsDelivered?: boolean;
}

async function startDevice(
  personality: Personality,
  encode: EncodeGroup,
  { onSessionEnd, isAsDelivered = false }: FleetOptions,
): Promise<Device> {
  const { handset, reflash } = personality;
  const heat = handset && handsetHeat(handset, Date.now());
  const accountOf = (): Personality['account'] => device?.account ?? personality.account;
  let device: Device | null = null;
  const [rtsp, pages] = await Promise.all([
    startRtspStandIn(personality, encode, onSessionEnd, heat?.keptShare),
    handset && heat ? startHandsetPages({ personality, accountOf, handset, encode, heat }) : null,
  ]);
  const firmware = reflash && isAsDelivered ? 'stock' : 'new';
  await rtsp.setListening(firmware === 'new');
  device = { rtsp, pages, firmware, account: personality.account };
  return device;
}

/** Starts simulated cameras, with one thread that draws and encodes for all of them. */
export async function startFleet(personalities: readonly Personality[], options: FleetOptions = {}): Promise<Fleet> {
  const thread = createEncoderThread();
  const devices = await Promise.all(personalities.map((one) => startDevice(one, thread.encode, options)));
  return {
    standIns: devices.map(({ rtsp }) => rtsp),
    pagesOf: (standIn) => devices.find(({ rtsp }) => rtsp === standIn)?.pages ?? null,
    loopbackPort: (host, port) => {
      for (const { rtsp, pages } of devices) {
        const { host: own, port: ownPort, handset } = rtsp.personality;
        if (own !== host) continue;
        if (port === ownPort) return rtsp.port;
        if (pages && port === handset?.pictures.port) return pages.picturesPort;
        if (pages && port === handset?.pagePort) return pages.pagePort;
      }
      return undefined;
    },
    hasHost: (host) => devices.some(({ rtsp }) => rtsp.personality.host === host),
    reflash: async (host, inputs) => {
      const device = devices.find(({ rtsp }) => rtsp.personality.host === host);
      const guide = device?.rtsp.personality.reflash;
      if (!device || !guide) return null;
      const { camera, states } = rehearse(guide, device.firmware, inputs);
      device.firmware = camera.firmware;
      await device.rtsp.setListening(listens(camera));
      return states;
    },
    setAccount: (host, account) => {
      const device = devices.find(({ rtsp }) => rtsp.personality.host === host);
      if (!device) return false;
      device.account = account;
      device.rtsp.setAccount(account);
      return true;
    },
    close: async () => {
      await Promise.all(devices.flatMap(({ rtsp, pages }) => [rtsp.close(), pages?.close()]));
      await thread.close();
    },
  };
}

/** What `cleartap standins --json` prints: addresses that any client on this machine can dial. */
export function fleetListing(fleet: Fleet) {
  return {
    devices: fleet.standIns.map((standIn) => {
      const { personality, port } = standIn;
      const pages = fleet.pagesOf(standIn);
      return {
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
        ...(pages && personality.handset
          ? {
              page: `http://127.0.0.1:${pages.pagePort}/`,
              pictures: [personality.handset.pictures.path, personality.handset.pictures.streamPath].map(
                (path) => `http://127.0.0.1:${pages.picturesPort}${path}`,
              ),
            }
          : {}),
      };
    }),
  };
}
