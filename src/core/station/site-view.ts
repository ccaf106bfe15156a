import { weakMapMemoize } from 'reselect';
import { pushTo } from '../base/push-to.ts';
import { type EvidenceIndex, type QuantitiesOf, type StreamFacts, streamFactsOf } from '../document/best-known.ts';
import type { Camera, Stream } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import { streamSubject } from '../document/subject.ts';

/** A document with what is asked of it again and again, found once. Stations judge a camera in it. */
export interface SiteView {
  readonly site: Site;
  readonly index: EvidenceIndex;
  readonly factsOf: (stream: Stream) => StreamFacts;
  readonly modelOf: (camera: Camera) => Model | undefined;
  readonly tapsOf: (cameraId: string) => readonly Tap[];
  readonly destination: (id: string) => Destination | undefined;
  readonly camera: (id: string) => Camera | undefined;
}

const NO_TAPS: readonly Tap[] = [];

/** Documents share what they have in common: facts of a stream stand while it and what is known of it are the same. */
const factsOfStream = weakMapMemoize(
  (quantities: QuantitiesOf | undefined, stream: Stream): StreamFacts => streamFactsOf(quantities, stream),
);
const byId = weakMapMemoize(
  <T extends { readonly id: string }>(items: readonly T[]): ReadonlyMap<string, T> =>
    new Map(items.map((item) => [item.id, item])),
);
const tapsByCamera = weakMapMemoize((taps: readonly Tap[]): ReadonlyMap<string, readonly Tap[]> => {
  const found = new Map<string, Tap[]>();
  for (const tap of taps) pushTo(found, tap.cameraId, tap);
  return found;
});

export const viewOf = weakMapMemoize(
  (site: Site, index: EvidenceIndex): SiteView => ({
    site,
    index,
    factsOf: (stream) => factsOfStream(index.get(streamSubject(stream.id)), stream),
    modelOf: ({ modelId }) => (modelId === null ? undefined : byId<Model>(site.models).get(modelId)),
    tapsOf: (cameraId) => tapsByCamera(site.taps).get(cameraId) ?? NO_TAPS,
    destination: (id) => byId<Destination>(site.destinations).get(id),
    camera: (id) => byId<Camera>(site.cameras).get(id),
  }),
);
