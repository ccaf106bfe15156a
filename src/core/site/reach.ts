import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { INTERNET, type Passage, type ReachRow } from '../document/chapters/reach/reach.ts';
import type { Site } from '../document/site.ts';
import { networkSubject } from '../document/subject.ts';
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
  readonly protocol: 'tcp';
  readonly port: number;
  readonly why: string;
  readonly fromNetworkId: string;
  readonly toNetworkId: string;
}

const ONVIF_PORT = 80;

/** Openings that the taps of a site need, and no more; none within one network. */
export function openingsOf(
  site: Pick<Site, 'networks' | 'cameras' | 'destinations' | 'taps' | 'models'>,
): readonly Opening[] {
  const cameras = new Map(site.cameras.map((camera) => [camera.id, camera]));
  const destinations = new Map(site.destinations.map((one) => [one.id, one]));
  const models = new Map(site.models.map((model) => [model.id, model]));
  const seen = new Set<string>();
  return site.taps.flatMap(({ cameraId, destinationId }) => {
    const camera = cameras.get(cameraId);
    const destination = destinations.get(destinationId);
    if (!camera || !destination || camera.host === '') return [];
    const key = `${cameraId} ${destinationId}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return openingsBetween(site, camera, destination, models.get(camera.modelId ?? ''));
  });
}

function openingsBetween(
  site: Pick<Site, 'networks'>,
  camera: Camera,
  destination: Destination,
  model: Model | undefined,
): readonly Opening[] {
  const from = networkOfDestination(site, destination)?.network;
  const to = networkOfCamera(site, camera)?.network;
  if (!from || !to || from.id === to.id) return [];
  const common = {
    from: destination.name,
    fromAddress: destination.host || from.cidr,
    to: camera.name,
    toAddress: camera.host,
    protocol: 'tcp',
    fromNetworkId: from.id,
    toNetworkId: to.id,
  } as const;
  const isOnvif =
    destination.protocols.includes('onvif') && (model?.localStream === 'both' || model?.localStream === 'onvif');
  return [
    { ...common, port: camera.ports.rtsp, why: 'its stream, by RTSP over TCP' },
    ...(isOnvif ? [{ ...common, port: model?.onvifPort ?? ONVIF_PORT, why: 'its profiles and events, by ONVIF' }] : []),
  ];
}

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
    openings.map(({ fromNetworkId, toNetworkId }) => `${networkSubject(fromNetworkId)} ${networkSubject(toNetworkId)}`),
  );
