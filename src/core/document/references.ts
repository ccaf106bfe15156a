import type { Site } from './site.ts';
import { thingsOf } from './subjects.ts';

/** The first id of a list that stands there for the second time, in words. */
export function repeatedId(name: string, items: readonly { readonly id: string }[]): string | null {
  const seen = new Set<string>();
  for (const [index, { id }] of items.entries()) {
    if (seen.has(id)) return `${name}[${index}].id: “${id}” stands there twice.`;
    seen.add(id);
  }
  return null;
}

/** What is wrong with how the parts of a plan name each other: every id once, every reference to something that is there. */
export function brokenReference(site: Site): string | null {
  const lists = {
    networks: site.networks,
    gear: site.gear,
    links: site.links,
    models: site.models,
    cameras: site.cameras,
    destinations: site.destinations,
    taps: site.taps,
  };
  for (const [name, items] of Object.entries(lists)) {
    const repeated = repeatedId(name, items);
    if (repeated) return repeated;
  }
  const models = new Set(site.models.map(({ id }) => id));
  const cameras = new Map(site.cameras.map((camera) => [camera.id, new Set(camera.streams.map(({ id }) => id))]));
  const destinations = new Set(site.destinations.map(({ id }) => id));
  for (const [index, { modelId }] of site.cameras.entries())
    if (modelId !== null && !models.has(modelId)) return `cameras[${index}].modelId: there is no model “${modelId}”.`;
  for (const [index, camera] of site.cameras.entries())
    for (const candidate of camera.candidates)
      if (!models.has(candidate)) return `cameras[${index}].candidates: there is no model “${candidate}”.`;
  const subjects = new Set(thingsOf(site).map(({ subject }) => subject));
  for (const [index, { from, to }] of site.links.entries())
    for (const end of [from, to]) if (!subjects.has(end)) return `links[${index}]: there is nothing called “${end}”.`;
  for (const [index, tap] of site.taps.entries()) {
    if (!cameras.get(tap.cameraId)?.has(tap.streamId))
      return `taps[${index}]: there is no stream “${tap.streamId}” of a camera “${tap.cameraId}”.`;
    if (!destinations.has(tap.destinationId))
      return `taps[${index}].destinationId: there is no destination “${tap.destinationId}”.`;
  }
  return null;
}
