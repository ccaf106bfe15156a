import type { EvidenceIndex } from './best-known.ts';
import type { Camera } from './chapters/cameras/camera.ts';
import { streamsOfCard } from './offered-streams.ts';
import type { Site } from './site.ts';
import { workedPaths } from './worked-paths.ts';

/** Paths that may be tried where a stream is not at its path: that worked before, of its card, that work at others of its model. */
export function pathHints(site: Site, index: EvidenceIndex, camera: Camera, most: number): readonly string[] {
  const model = site.models.find(({ id }) => id === camera.modelId);
  const alike = site.cameras.filter(
    ({ id, modelId }) => id !== camera.id && modelId !== null && modelId === camera.modelId,
  );
  const card = model
    ? streamsOfCard(model, camera).flatMap(({ stream, lacksChannel }) => (lacksChannel ? [] : [stream.path]))
    : [];
  const known = [
    ...workedPaths(index, camera).toReversed(),
    ...card,
    ...alike.flatMap((other) => workedPaths(index, other).toReversed()),
  ];
  return [...new Set(known)].filter((path) => path !== '').slice(0, most);
}
