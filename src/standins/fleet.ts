import { type RehearsedInput, type RehearsedState, rehearse } from '../core/firmware/rehearsal.ts';
import { type Firmware, listens } from '../core/firmware/simulated-camera.ts';
import { buildStreamUrl } from '../core/net/stream-url.ts';
import { type Bystander, MILL_NETWORK } from './alder-mill-network.ts';
import { type DevicePages, startDevicePages } from './device-pages.ts';
import { type DiscoveryResponder, startDiscoveryResponder } from './discovery-responder.ts';
import { type OldPhonePages, oldPhoneHeat, startOldPhonePages } from './old-phone-pages.ts';
import type { ShownProfile } from './onvif/onvif-answers.ts';
import { OnvifDevice } from './onvif/onvif-device.ts';
import { SimulatedHead } from './onvif/simulated-head.ts';
import {
  BOOT_ROOM,
  BREAD_OVEN,
  CIDER_PRESS,
  type DevicePage,
  LINEN_STAIR,
  type Personality,
  SLUICE_RAIL,
} from './personality.ts';
import { createEncoderThread } from './pictures/encoder-thread.ts';
import type { GroupRequest } from './pictures/group-request.ts';
import type { EncodeGroup, FeedFormat, FeedHead } from './pictures/picture-feed.ts';
import { type Member, type Reservation, SimulatedRouter } from './router.ts';
import { type RtspStandIn, type SessionEnd, startRtspStandIn } from './rtsp-standin.ts';

export const ALDER_MILL_FLEET: readonly Personality[] = [SLUICE_RAIL, BOOT_ROOM, LINEN_STAIR, BREAD_OVEN, CIDER_PRESS];

/** A simulated device: its stream, and the pages of a handset. */
interface Device {
  readonly rtsp: RtspStandIn;
  readonly pages: OldPhonePages | null;
  /** Its own page, with its ONVIF services. */
  readonly page: DevicePages | null;
  readonly head: SimulatedHead | null;
  /** What runs on it, where another firmware can be written. */
  firmware: Firmware;
  account: Personality['account'];
}

/** Who is in the simulated network: a camera or a bystander, with the loopback ports that its own lead to. */
interface Resident extends Member {
  /** By its own port; what is not there refuses. */
  readonly ports: ReadonlyMap<number, number>;
  readonly page: DevicePages | null;
  readonly discovery: DiscoveryResponder | null;
  /** It answers no call at all. */
  readonly isMute: boolean;
}

export interface Fleet {
  readonly standIns: readonly RtspStandIn[];
  readonly pagesOf: (standIn: RtspStandIn) => OldPhonePages | null;
  /** Loopback port of its ONVIF services; `null` where it has none. */
  readonly onvifPortOf: (standIn: RtspStandIn) => number | null;
  /** The head of a simulated camera; `null` where it has none. */
  readonly headOf: (name: string) => SimulatedHead | null;
  readonly router: SimulatedRouter;
  /** Real loopback port of an address of the simulated network, as it is now. */
  loopbackPort(host: string, port: number): number | undefined;
  /** Whether somebody answers there in the simulated network, whatever the port. */
  hasHost(host: string): boolean;
  /** Loopback ports on which devices wait for a question by WS-Discovery, each with its address in the simulated network. */
  discoveryPorts(): ReadonlyMap<number, string>;
  /** Who is there, with MAC addresses, as a system would list its neighbours. */
  neighbours(): string;
  /** Networks that the computer of the demo is in. */
  networks(): readonly string[];
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
  readonly bystanders?: readonly Bystander[];
  readonly reservations?: readonly Reservation[];
}

async function startDevice(
  personality: Personality,
  encode: EncodeGroup,
  { onSessionEnd, isAsDelivered = false }: FleetOptions,
): Promise<Device> {
  const { handset, reflash } = personality;
  const heat = handset && oldPhoneHeat(handset, Date.now());
  const accountOf = (): Personality['account'] => device?.account ?? personality.account;
  let device: Device | null = null;
  const { page, plug } = personality;
  const head = page?.onvif?.head ? new SimulatedHead(page.onvif.head, Date.now) : null;
  const feedHead = head && feedHeadOf(head);
  const onvif = page?.onvif
    ? new OnvifDevice({
        personality,
        onvif: page.onvif,
        mac: plug?.mac ?? SOME_PLUG.mac,
        isDhcp: plug?.address === 'asks',
        accountOf,
        head,
        rtspPort: () => device?.rtsp.port ?? 0,
      })
    : null;
  const still = async ({ stream }: ShownProfile): Promise<Uint8Array> => {
    const [picture] = (await encode(stillRequest(stream.format, feedHead, personality.clockErrorMs), Date.now()))
      .pictures;
    return picture?.[0] ?? new Uint8Array();
  };
  const [rtsp, pages, own] = await Promise.all([
    startRtspStandIn(personality, encode, onSessionEnd, {
      ...(heat ? { keptShare: heat.keptShare } : {}),
      head: feedHead,
    }),
    handset && heat ? startOldPhonePages({ personality, accountOf, handset, encode, heat }) : null,
    page ? startDevicePages({ page, onvif, still, answerDelayMs: personality.answerDelayMs }) : null,
  ]);
  const firmware = reflash && isAsDelivered ? 'stock' : 'new';
  await rtsp.setListening(firmware === 'new');
  device = { rtsp, pages, page: own, head, firmware, account: personality.account };
  return device;
}

/** A head as its pictures are drawn by it. */
const feedHeadOf = (head: SimulatedHead): FeedHead => ({
  seenAt: (unixMs) => head.viewAt(unixMs),
  isMovingAt: (unixMs) => head.isMovingAt(unixMs),
  onChange: (listener) => head.onChange(listener),
});

const STILL_QUALITY = 70;
const stillRequest = (format: FeedFormat, head: FeedHead | null, clockErrorMs: number): GroupRequest => ({
  ...format,
  codec: 'JPEG',
  quantiser: STILL_QUALITY,
  frames: 1,
  startUnixMs: Date.now() + clockErrorMs,
  ...(head ? { seen: [head.seenAt(Date.now())] } : {}),
});

/** A plug for whoever has none of its own: nobody looks at it. */
const SOME_PLUG: Member['plug'] = { mac: '00:00:5e:00:53:ff', address: 'static' };

interface Dweller {
  readonly name: string;
  readonly host: string;
  readonly plug?: Member['plug'] | undefined;
  readonly page?: DevicePage | null | undefined;
  /** Its page, where it is served already. */
  readonly served: DevicePages | null;
  readonly isMute: boolean;
  readonly ports: readonly (readonly [number, number])[];
}

async function settle(
  { name, host, plug = SOME_PLUG, page = null, served: before, isMute, ports }: Dweller,
  hostOf: () => string,
): Promise<Resident> {
  const onvif = page?.onvif;
  const [served, discovery] = await Promise.all([
    before ?? (page && startDevicePages({ page, onvif: null, still: async () => new Uint8Array(), answerDelayMs: 0 })),
    page && onvif
      ? startDiscoveryResponder(
          () => ({
            name,
            endpoint: onvif.endpoint,
            hardware: onvif.hardware,
            location: onvif.location,
            address: `${onvif.innerHost ?? onvif.staleAddress ?? hostOf()}:${page.port}`,
          }),
          onvif.answersTwice ? 2 : 1,
        )
      : null,
  ]);
  const all = page && served ? [...ports, [page.port, served.port] as const] : ports;
  return { name, host, plug, ports: new Map(all), page: served, discovery, isMute };
}

const dwellerOf = ({ rtsp, pages, page: served }: Device): Dweller => {
  const { name, host, port, plug, page, handset } = rtsp.personality;
  const ofOldPhone =
    handset && pages
      ? [[handset.pictures.port, pages.picturesPort] as const, [handset.pagePort, pages.pagePort] as const]
      : [];
  return { name, host, plug, page, served, isMute: false, ports: [[port, rtsp.port], ...ofOldPhone] };
};

/** Starts simulated cameras, with one thread that draws and encodes for all of them, and who else lives in their network. */
export async function startFleet(personalities: readonly Personality[], options: FleetOptions = {}): Promise<Fleet> {
  const thread = createEncoderThread();
  const { bystanders = [], reservations = [] } = options;
  const devices = await Promise.all(personalities.map((one) => startDevice(one, thread.encode, options)));
  let router: SimulatedRouter | null = null;
  const residents = await Promise.all(
    [
      ...devices.map(dwellerOf),
      ...bystanders.map((one): Dweller => ({ ...one, served: null, isMute: one.page === null, ports: [] })),
    ].map((one) => settle(one, () => router?.hostOf(one.name) ?? one.host)),
  );
  const given = new SimulatedRouter({
    pool: MILL_NETWORK.pool,
    reservations,
    members: residents,
    nowMs: Date.now,
  });
  router = given;
  const at = (host: string): Resident | undefined => {
    const name = given.joined.find((one) => one.host === host)?.name;
    return residents.find((one) => one.name === name);
  };
  const deviceAt = (host: string): Device | undefined =>
    devices.find(({ rtsp }) => rtsp.personality.name === at(host)?.name);
  return {
    standIns: devices.map(({ rtsp }) => rtsp),
    headOf: (name) => devices.find(({ rtsp }) => rtsp.personality.name === name)?.head ?? null,
    onvifPortOf: (standIn) => {
      const device = devices.find(({ rtsp }) => rtsp === standIn);
      return device?.rtsp.personality.page?.onvif ? (device.page?.port ?? null) : null;
    },
    pagesOf: (standIn) => devices.find(({ rtsp }) => rtsp === standIn)?.pages ?? null,
    router: given,
    // as delivered, a camera that is to be reflashed opens nothing
    loopbackPort: (host, port) => {
      const device = deviceAt(host);
      if (device?.firmware === 'stock') return undefined;
      return port === device?.rtsp.personality.port ? device.rtsp.port : at(host)?.ports.get(port);
    },
    hasHost: (host) => at(host)?.isMute === false,
    discoveryPorts: () =>
      new Map(
        residents.flatMap(({ name, host, discovery }) => {
          const isStock = devices.some(({ rtsp, firmware }) => rtsp.personality.name === name && firmware === 'stock');
          return discovery && !isStock ? [[discovery.port, given.hostOf(name) ?? host] as const] : [];
        }),
      ),
    networks: () => ['10.77.4.0/24', '10.77.66.0/24'],
    neighbours: () => given.joined.map(({ host, mac }) => `${host} 0x1 0x2 ${mac} * sim0\n`).join(''),
    reflash: async (host, inputs) => {
      const device = deviceAt(host);
      const guide = device?.rtsp.personality.reflash;
      if (!device || !guide) return null;
      const { camera, states } = rehearse(guide, device.firmware, inputs);
      device.firmware = camera.firmware;
      await device.rtsp.setListening(listens(camera));
      return states;
    },
    setAccount: (host, account) => {
      const device = deviceAt(host);
      if (!device) return false;
      device.account = account;
      device.rtsp.setAccount(account);
      return true;
    },
    close: async () => {
      for (const { discovery } of residents) discovery?.close();
      await Promise.all([
        ...devices.flatMap(({ rtsp, pages }) => [rtsp.close(), pages?.close()]),
        ...residents.map(({ page }) => page?.close()),
      ]);
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
        ...onvifListing(fleet, standIn),
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

function onvifListing(fleet: Fleet, standIn: RtspStandIn) {
  const port = fleet.onvifPortOf(standIn);
  const account = standIn.personality.page?.onvif?.account ?? standIn.personality.account;
  return port === null
    ? {}
    : { onvif: { host: '127.0.0.1', port, user: account?.user ?? null, password: account?.password ?? null } };
}
