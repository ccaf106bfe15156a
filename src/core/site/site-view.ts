import { lruMemoize, weakMapMemoize } from 'reselect';
import type { SecretTraits } from '../auth/secret-traits.ts';
import { pushTo } from '../base/push-to.ts';
import type { Account, Camera, Stream } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import { NO_SECRETS, type SecretsKnown } from '../document/site-secrets.ts';
import { streamSubject } from '../document/subject.ts';
import { type EvidenceIndex, type QuantitiesOf, type StreamFacts, streamFactsOf } from '../evidence/best-known.ts';

/** A document with what is asked of it again and again, found once. Stations judge a camera in it. */
export interface SiteView {
  readonly site: Site;
  readonly index: EvidenceIndex;
  readonly factsOf: (stream: Stream) => StreamFacts;
  readonly modelOf: (camera: Camera) => Model | undefined;
  readonly tapsOf: (cameraId: string) => readonly Tap[];
  readonly destination: (id: string) => Destination | undefined;
  /** What can be said of the secret of an account without telling it; nothing where it is not in reach. */
  readonly traitsOf: (account: Account | null) => SecretTraits | undefined;
  /**
   * What a station makes of the whole document, made once and gone with it. A memo keyed by documents would outlive them:
   * each would be carried along until the next great clearing up.
   */
  readonly once: <T>(make: (view: SiteView) => T) => T;
}

const NO_TAPS: readonly Tap[] = [];

/** Documents share what they have in common: facts of a stream stand while it and what is known of it are the same. */
const factsOfStream = weakMapMemoize(
  (quantities: QuantitiesOf | undefined, stream: Stream): StreamFacts => streamFactsOf(quantities, stream),
);

const byId = <T extends { readonly id: string }>(items: readonly T[]): ReadonlyMap<string, T> =>
  new Map(items.map((item) => [item.id, item]));

function createView(site: Site, index: EvidenceIndex, secrets: SecretsKnown = NO_SECRETS): SiteView {
  const models = byId(site.models);
  const destinations = byId(site.destinations);
  const taps = new Map<string, Tap[]>();
  for (const tap of site.taps) pushTo(taps, tap.cameraId, tap);
  const made = new Map<unknown, unknown>();
  const view: SiteView = {
    site,
    index,
    factsOf: (stream) => factsOfStream(index.get(streamSubject(stream.id)), stream),
    modelOf: ({ modelId }) => (modelId === null ? undefined : models.get(modelId)),
    tapsOf: (cameraId) => taps.get(cameraId) ?? NO_TAPS,
    destination: (id) => destinations.get(id),
    traitsOf: (account) =>
      account && Object.hasOwn(secrets, account.secretRef) ? secrets[account.secretRef] : undefined,
    once: <T>(make: (of: SiteView) => T): T => {
      if (!made.has(make)) made.set(make, make(view));
      return made.get(make) as T; // what this very function made
    },
  };
  return view;
}

/** One for the document and one for what is tried on a copy of it. */
export const viewOf = lruMemoize(createView, { maxSize: 2 });
