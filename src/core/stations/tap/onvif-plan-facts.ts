import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { nameOfModel } from '../../document/chapters/models/model-name.ts';
import { keptPath } from '../../evidence/kept-path.ts';
import { lessonsOfReading } from '../../evidence/learnt-card.ts';
import { streamOfProfile } from '../../evidence/take-profile.ts';
import type { Facts } from '../../findings/rule.ts';
import { type OnvifReading, type ReadProfile, sizeOf } from '../../onvif/reading.ts';

/** What a plan and a device say of each other. */
export interface OnvifPlanFacts {
  /** Where a sweep saw its ONVIF, while it was asked elsewhere in vain. */
  readonly seenPort: number;
  readonly askedPort: number;
  /** A stream whose path the device does not offer, and the path that it offers instead. */
  readonly strayPaths: number;
  readonly strayStream: string;
  readonly strayPath: string;
  readonly offeredPath: string;
  readonly plannedPort: number;
  readonly toldPort: number;
  /** Streams that are planned otherwise than the device declares. */
  readonly otherFigures: string;
  readonly leftOut: string;
  readonly toldSerial: string;
  readonly toldMac: string;
  readonly isKnownByNothing: boolean;
  /** What it is known by, where the device has another. */
  readonly otherIdentity: string;
  readonly model: string;
  readonly toldModel: string;
  readonly isModelOther: boolean;
  readonly hasModel: boolean;
  readonly cardLacks: string;
  readonly keeping: 'reservation' | 'static' | 'dynamic';
  readonly dhcp: boolean;
  readonly sourcesShown: number;
  readonly channels: number;
  readonly channelsOnSite: number;
  readonly channel: number;
}

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** A card is that of a device where the device’s own name of its model is that of the card. */
export const isCardOf = ({ maker, model }: Pick<Model, 'maker' | 'model'>, reading: OnvifReading): boolean => {
  const [make, name] = [plain(reading.device?.make ?? ''), plain(reading.device?.model ?? '')];
  const [cardMake, cardName] = [plain(maker), plain(model)];
  if (name === '' || cardName === '') return false;
  return (
    (name === cardName || name === cardMake + cardName) &&
    (make === '' || cardMake === '' || make.includes(cardMake) || cardMake.includes(make))
  );
};

/** The profile that a stream most likely means: of its name, or of its size in order. */
export function profileFor(stream: Stream, camera: Camera, profiles: readonly ReadProfile[]): ReadProfile | undefined {
  const own = ofChannel(camera, profiles).filter((profile) => keptPath(profile) !== null);
  const free = own.filter((profile) => !streamOfProfile(camera, profile));
  const label = stream.label.toLowerCase();
  const named = free.find(({ name }) => name.toLowerCase() === label);
  if (named) return named;
  const bySize = [...own].sort((a, b) => (b.width ?? 0) * (b.height ?? 0) - (a.width ?? 0) * (a.height ?? 0));
  const ordered = bySize[camera.streams.indexOf(stream)];
  return ordered && free.includes(ordered) ? ordered : free[0];
}

/** Of a box only the profiles of its own channel: the first picture is the first channel. */
export function ofChannel(
  camera: Pick<Camera, 'channel' | 'kind'>,
  profiles: readonly ReadProfile[],
): readonly ReadProfile[] {
  const sources = [...new Set(profiles.map(({ source }) => source))];
  if (camera.kind !== 'channel' || camera.channel === null) return profiles;
  const own = sources[camera.channel - 1];
  return own === undefined ? [] : profiles.filter(({ source }) => source === own);
}

function otherFigures(
  camera: Camera,
  profiles: readonly ReadProfile[],
): readonly { stream: Stream; profile: ReadProfile; said: string }[] {
  return profiles.flatMap((profile) => {
    const stream = streamOfProfile(camera, profile);
    if (!stream) return [];
    const differs = (planned: unknown, told: unknown): boolean => planned !== null && told !== null && planned !== told;
    const isOther =
      differs(stream.codec, profile.codec) ||
      differs(stream.width, profile.width) ||
      differs(stream.height, profile.height) ||
      differs(stream.fps, profile.fps);
    if (!isOther) return [];
    const says = (of: { codec: string | null; fps: number | null } & Parameters<typeof sizeOf>[0]): string =>
      [of.codec, sizeOf(of), of.fps === null ? null : `${of.fps}/s`].filter((part) => part !== null).join(' ');
    return [{ stream, profile, said: `${stream.label}: planned ${says(stream)}, it reports ${says(profile)}` }];
  });
}

/** What a stream would be like if it were planned as the device declares it. */
export const asDeclared = (camera: Camera, reading: OnvifReading): readonly Stream[] =>
  otherFigures(camera, ofChannel(camera, reading.profiles)).map(({ stream, profile }) => ({
    ...stream,
    codec: stream.codec === null ? null : (profile.codec ?? stream.codec),
    width: stream.width === null ? null : (profile.width ?? stream.width),
    height: stream.height === null ? null : (profile.height ?? stream.height),
    fps: stream.fps === null ? null : (profile.fps ?? stream.fps),
  }));

export function onvifPlanFacts(
  camera: Camera,
  model: Model | undefined,
  reading: OnvifReading,
  { channelsOnSite, seenPorts }: { readonly channelsOnSite: number; readonly seenPorts: readonly number[] },
): Facts<OnvifPlanFacts> {
  const { device, network, sources } = reading;
  if (!device) return { seenPort: seenPorts.find((port) => port !== reading.port), askedPort: reading.port };
  const profiles = ofChannel(camera, reading.profiles);
  const paths = profiles.flatMap((profile) => keptPath(profile) ?? []);
  const strays = paths.length > 0 ? camera.streams.filter(({ path }) => !paths.includes(path)) : [];
  const [stray] = strays;
  const offered = stray && profileFor(stray, camera, reading.profiles);
  const ports = [...new Set(profiles.flatMap(({ stream }) => (stream?.scheme === 'rtsp' ? [stream.port] : [])))];
  const { mac, serial, endpoint } = camera.identity;
  const other = [
    ...(serial !== '' && device.serial !== '' && serial !== device.serial ? [`serial ${serial}`] : []),
    ...(mac !== '' && network && network.mac !== '' && plain(mac) !== plain(network.mac) ? [`MAC address ${mac}`] : []),
  ];
  const toldModel = [device.make, device.model].filter((part) => part !== '').join(' ');
  const leftOut = profiles.filter((profile) => keptPath(profile) !== null && !streamOfProfile(camera, profile));
  const figures = otherFigures(camera, profiles);
  return {
    strayPaths: paths.length > 0 ? strays.length : undefined,
    strayStream: stray?.label ?? '',
    strayPath: stray?.path ?? '',
    offeredPath: (offered && keptPath(offered)) ?? '',
    plannedPort: camera.ports.rtsp,
    // behind a router, or told by an inner address, the port says nothing
    toldPort:
      ports.length === 1 && profiles.every(({ stream }) => !stream || stream.elsewhere === '') ? ports[0] : undefined,
    otherFigures: paths.length > 0 ? figures.map(({ said }) => said).join('; ') : undefined,
    leftOut:
      paths.length > 0 && strays.length === 0 ? leftOut.map(({ name, token }) => name || token).join(', ') : undefined,
    toldSerial: device.serial,
    toldMac: network?.mac ?? '',
    isKnownByNothing: mac === '' && serial === '' && endpoint === '',
    otherIdentity: other.join(', '),
    model: model ? nameOfModel(model) : '',
    toldModel,
    hasModel: model !== undefined,
    isModelOther: model && toldModel !== '' ? !isCardOf(model, reading) : undefined,
    cardLacks:
      model && isCardOf(model, reading)
        ? lessonsOfReading(model, camera, reading)
            .map(({ field }) => field)
            .join(', ')
        : undefined,
    keeping: camera.keeping ?? undefined,
    dhcp: network?.dhcp ?? undefined,
    sourcesShown: sources?.length,
    channels: model?.channels ?? undefined,
    channelsOnSite,
    channel: camera.channel ?? undefined,
  };
}
