import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import type { Tap } from '../../document/chapters/taps/tap.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { keptPath } from '../../evidence/kept-path.ts';
import { isReadingCurrent, rememberedReading } from '../../evidence/onvif-evidence.ts';
import { workedPaths } from '../../evidence/worked-paths.ts';
import type { Mend } from '../../findings/finding.ts';
import { LINE_WORDS } from '../../net/camera-line.ts';
import type { FoundWay } from '../../probe/reasons.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { Lever } from './levers.ts';
import { profileFor } from './onvif-plan-facts.ts';
import type { TapOffers } from './tap-facts.ts';

type Mends = readonly Mend<SiteCommand>[];

export function tapOffers(
  view: SiteView,
  camera: Camera,
  destination: Destination,
  tap: Tap,
  levers: () => readonly Lever[],
): TapOffers {
  const otherStreams = (serves: (codec: string) => boolean): Mends =>
    camera.streams.flatMap((stream) => {
      const codec = stream.id === tap.streamId ? undefined : view.factsOf(stream).codec?.value;
      return codec !== undefined && serves(codec)
        ? {
            text: `Let ${destination.name} pull ${stream.label}, ${codec}`,
            command: { kind: 'changeTap', tap: { ...tap, streamId: stream.id } },
          }
        : [];
    });
  const { codecs } = destination;
  const isTaken = (codec: string): boolean => codecs.length === 0 || codecs.includes(codec);
  return {
    streamsTaken: () => otherStreams(isTaken),
    savingStreams: () => otherStreams((codec) => codec !== 'JPEG' && isTaken(codec)),
    levers: () => levers().flatMap(({ text, command }) => (command ? { text, command } : [])),
  };
}

/** What an experiment found to work instead, one act for each thing that is to be changed. */
export function foundOffers(camera: Camera, stream: Stream, { path, port, line }: FoundWay): Mends {
  const { id: cameraId, host } = camera;
  const offers: Mend<SiteCommand>[] = [];
  if (line !== undefined && line !== camera.line)
    offers.push({
      text: `Set its connection to ${LINE_WORDS[line]}, which answered`,
      command: { kind: 'setLine', cameraId, line },
    });
  if (port !== undefined && port !== camera.ports.rtsp)
    offers.push({
      text: `Set its port to ${port}, where RTSP answered`,
      command: { kind: 'setAddress', cameraId, host, port },
    });
  if (path !== undefined && path !== stream.path)
    offers.push({
      text: `Set its path to ${path}, where a stream is`,
      command: { kind: 'setStreamPath', cameraId, streamId: stream.id, path },
    });
  return offers;
}

/** More paths than this are not tried one after the other by hand. */
const MOST_PATHS = 3;

/** What its device offers for a stream by ONVIF, where it was read at this address. */
function profileOffers({ index, modelOf }: SiteView, camera: Camera, stream: Stream): Mends {
  const remembered = rememberedReading(index, camera.id);
  if (!remembered || !isReadingCurrent(remembered, camera, modelOf(camera))) return [];
  const profile = profileFor(stream, camera, remembered.reading.profiles);
  const path = profile && keptPath(profile);
  if (!profile || !path) return [];
  return [
    {
      text: `Try ${path}, from profile ${profile.name || profile.token}`,
      command: { kind: 'setStreamPath', cameraId: camera.id, streamId: stream.id, path },
    },
  ];
}

/** Paths that the device itself offers, and that gave a stream before: of this camera, and of others of its model here. */
export function pathOffers(view: SiteView, camera: Camera, stream: Stream): Mends {
  const { site, index } = view;
  const isAlike = ({ id, modelId }: Camera): boolean =>
    id === camera.id || (modelId !== null && modelId === camera.modelId);
  const offered = profileOffers(view, camera, stream);
  const tried = new Set([
    stream.path,
    ...offered.flatMap(({ command }) => (command.kind === 'setStreamPath' ? [command.path] : [])),
  ]);
  const offers = [...offered];
  for (const other of site.cameras.filter(isAlike).sort((a) => (a.id === camera.id ? -1 : 0)))
    for (const path of workedPaths(index, other).toReversed()) {
      if (tried.has(path)) continue;
      tried.add(path);
      const whose = other.id === camera.id ? 'which worked before' : `which works at ${other.name}`;
      offers.push({
        text: `Try ${path}, ${whose}`,
        command: { kind: 'setStreamPath', cameraId: camera.id, streamId: stream.id, path },
      });
    }
  return offers.slice(0, MOST_PATHS);
}
