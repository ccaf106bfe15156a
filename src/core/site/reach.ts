import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { INTERNET, type Passage, type ReachRow } from '../document/chapters/reach/reach.ts';
import type { Site } from '../document/site.ts';
import { networkSubject } from '../document/subject.ts';
import { onvifPortOf } from '../evidence/onvif-port.ts';
import { networkOfCamera, networkOfDestination } from './networks.ts';

/** What may be opened from one network into another, or into the internet; `null` while nobody said. Within one: everything. */
export function passageBetween(rows: readonly ReachRow[], from: string, to: string): Passage | null {
  if (from === to) return 'all';
  return rows.find((row) => row.from === from && row.to === to)?.allowed ?? null;
}

/** The table with one cell said anew; `null` takes it back. */
export function withPassage(
  rows: readonly ReachRow[],
  from: string,
  to: string,
  allowed: Passage | null,
): readonly ReachRow[] {
  const others = rows.filter((row) => row.from !== from || row.to !== to);
  return allowed === null ? others : [...others, { from, to, allowed }];
}

/** One opening that a firewall needs: for a tap between two networks, or for whoever finds it by ONVIF. */
export interface Opening {
  /** Names and addresses; a destination without an address is its whole network. */
  readonly from: string;
  readonly fromAddress: string;
  readonly to: string;
  readonly toAddress: string;
  readonly protocol: 'tcp' | 'udp';
  /** `null` where both ends agree on it in each session. */
  readonly port: number | null;
  /** False where nothing says whether it is needed at all. */
  readonly isKnown: boolean;
  readonly why: string;
  readonly fromNetworkId: string;
  readonly toNetworkId: string;
}

/** How a stream was measured to come; `null` where nobody measured it. */
type TransportOf = (streamId: string) => 'tcp' | 'udp' | null;

/** Openings that the taps of a site need, and no more; none within one network. */
export function openingsOf(
  site: Pick<Site, 'networks' | 'cameras' | 'destinations' | 'taps' | 'models'>,
  transportOf: TransportOf = () => null,
): readonly Opening[] {
  const cameras = new Map(site.cameras.map((camera) => [camera.id, camera]));
  const destinations = new Map(site.destinations.map((one) => [one.id, one]));
  const models = new Map(site.models.map((model) => [model.id, model]));
  const seen = new Set<string>();
  const overUdp = new Set(
    site.taps.flatMap(({ cameraId, destinationId, streamId }) =>
      transportOf(streamId) === 'udp' ? `${cameraId} ${destinationId}` : [],
    ),
  );
  return site.taps.flatMap(({ cameraId, destinationId }) => {
    const camera = cameras.get(cameraId);
    const destination = destinations.get(destinationId);
    if (!camera || !destination || camera.host === '') return [];
    const key = `${cameraId} ${destinationId}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return openingsBetween(site, camera, destination, models.get(camera.modelId ?? ''), overUdp.has(key));
  });
}

function openingsBetween(
  site: Pick<Site, 'networks'>,
  camera: Camera,
  destination: Destination,
  model: Model | undefined,
  isOverUdp: boolean,
): readonly Opening[] {
  const from = networkOfDestination(site, destination)?.network;
  const to = networkOfCamera(site, camera)?.network;
  if (!from || !to || from.id === to.id) return [];
  const ends = {
    inward: {
      from: destination.name,
      fromAddress: destination.host || from.cidr,
      to: camera.name,
      toAddress: camera.host,
      fromNetworkId: from.id,
      toNetworkId: to.id,
    },
    outward: {
      from: camera.name,
      fromAddress: camera.host,
      to: destination.name,
      toAddress: destination.host || from.cidr,
      fromNetworkId: to.id,
      toNetworkId: from.id,
    },
  } as const;
  const tcp = { ...ends.inward, protocol: 'tcp' } as const;
  return [
    {
      ...tcp,
      port: camera.ports.rtsp,
      isKnown: true,
      why: isOverUdp ? 'its requests, by RTSP' : 'its stream, by RTSP over TCP',
    },
    ...(isOverUdp ? mediaByUdp(ends) : []),
    ...onvifOpening(tcp, camera, destination, model),
  ];
}

/**
 * Over UDP the camera sends to the pair of ports that the client names in each SETUP, and hears reports of reception at its
 * own. Source: RFC 2326 §12.39 (client_port, server_port), RFC 3550 §11 (RTCP is one port above RTP).
 */
const mediaByUdp = ({ inward, outward }: Record<'inward' | 'outward', OpeningEnds>): readonly Opening[] => [
  { ...outward, protocol: 'udp', port: null, isKnown: true, why: 'RTP and RTCP, to the client ports of each session' },
  { ...inward, protocol: 'udp', port: null, isKnown: true, why: 'RTCP back, to the server ports of each session' },
];
type OpeningEnds = Omit<Opening, 'protocol' | 'port' | 'isKnown' | 'why'>;

/** Whether a camera speaks ONVIF is known of its model, or where somebody entered its port. */
function onvifOpening(
  tcp: OpeningEnds & { readonly protocol: 'tcp' },
  camera: Camera,
  { protocols }: Destination,
  model: Model | undefined,
): readonly Opening[] {
  if (!protocols.includes('onvif')) return [];
  const port = onvifPortOf(camera, model);
  const speaks = model?.localStream === 'both' || model?.localStream === 'onvif' || camera.onvifPort !== null;
  if (speaks) return [{ ...tcp, port, isKnown: true, why: 'its profiles and events, by ONVIF' }];
  if (model) return [];
  return [
    { ...tcp, port, isKnown: false, why: 'ONVIF, if the camera has it: no model is chosen, so this is not known' },
  ];
}

/** The port as a firewall asks for it. */
export const sayOpeningPort = ({ protocol, port }: Opening): string => `${protocol} ${port ?? 'any'}`;

/** All cells of the table of a site, by network and by the internet. */
export const endsOf = ({
  networks,
}: Pick<Site, 'networks'>): readonly { readonly subject: string; readonly name: string }[] => [
  ...networks.map(({ id, name }) => ({ subject: networkSubject(id), name })),
  { subject: INTERNET, name: 'the internet' },
];

/** Cells of the table that a tap needs, by the two networks. */
export const neededPassages = (openings: readonly Opening[]): ReadonlySet<string> =>
  new Set(
    openings
      .filter(({ isKnown }) => isKnown)
      .map(({ fromNetworkId, toNetworkId }) => `${networkSubject(fromNetworkId)} ${networkSubject(toNetworkId)}`),
  );
