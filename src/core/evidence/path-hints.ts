import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Site } from '../document/site.ts';
import { pathsOfChannel } from '../net/path-channel.ts';
import type { EvidenceIndex } from './evidence-index.ts';
import { streamsOfCard } from './offered-streams.ts';
import { workedPaths } from './worked-paths.ts';

/**
 * Paths that may be tried where a stream is not at its path: that worked before, of its card, that work at others of its model.
 * @param label of the stream that is looked for
 */
export function pathHints(
  site: Site,
  index: EvidenceIndex,
  camera: Camera,
  label: string,
  most: number,
): readonly string[] {
  const model = site.models.find(({ id }) => id === camera.modelId);
  const alike = site.cameras.filter(
    ({ id, modelId }) => id !== camera.id && modelId !== null && modelId === camera.modelId,
  );
  const ofCard = model ? streamsOfCard(model, camera).filter(({ lacksChannel }) => !lacksChannel) : [];
  // the small stream is no answer to who looks for the main one, unless nothing else is known
  const card = ofCard
    .toSorted((a, b) => Number(b.stream.label === label) - Number(a.stream.label === label))
    .map(({ stream }) => stream.path);
  const own = camera.streams.find((stream) => stream.label === label)?.path ?? '';
  const known = [
    ...workedPaths(index, camera).toReversed(),
    ...card,
    ...pathsOfChannel(
      alike.flatMap((other) => workedPaths(index, other).toReversed()),
      own,
      camera.channel,
    ),
  ];
  return [...new Set(known)].filter((path) => path !== '').slice(0, most);
}
