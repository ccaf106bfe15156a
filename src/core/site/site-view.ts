import { lruMemoize, weakMapMemoize } from 'reselect';
import type { SecretTraits } from '../auth/secret-traits.ts';
import { pushTo } from '../base/push-to.ts';
import type { Account, Camera, Stream } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { Gear } from '../document/chapters/gear/gear.ts';
import type { Link } from '../document/chapters/links/link.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import { NO_SECRETS, type SecretsKnown } from '../document/site-secrets.ts';
import { gearSubject, streamSubject } from '../document/subject.ts';
import { type StreamFacts, streamFactsOf } from '../evidence/best-known.ts';
import type { EvidenceIndex, SubjectEvidence } from '../evidence/evidence-index.ts';

/** A document with what is asked of it again and again, found once: the only index of a site. Stations judge a camera in it. */
export interface SiteView {
  readonly site: Site;
  readonly index: EvidenceIndex;
  readonly factsOf: (stream: Stream) => StreamFacts;
  readonly camera: (id: string) => Camera | undefined;
  readonly modelOf: (camera: Camera) => Model | undefined;
  readonly tapsOf: (cameraId: string) => readonly Tap[];
  readonly destination: (id: string) => Destination | undefined;
  /** Gear by its subject, as links name their ends. */
  readonly gearAt: (subject: string) => Gear | undefined;
  readonly linksFrom: (subject: string) => readonly Link[];
  readonly linksTo: (subject: string) => readonly Link[];
  /** What can be said of the secret of an account without telling it; nothing where it is not in reach. */
  readonly traitsOf: (account: Account | null) => SecretTraits | undefined;
  /**
   * What a station makes of the whole document, made once and gone with it. A memo keyed by documents would outlive them:
   * each would be carried along until the next great clearing up.
   */
  readonly once: <T>(make: (view: SiteView) => T) => T;
}

const NONE: readonly never[] = [];

/** Documents share what they have in common: facts of a stream stand while it and what is known of it are the same. */
const factsOfStream = weakMapMemoize(
  (known: SubjectEvidence | undefined, stream: Stream): StreamFacts => streamFactsOf(known, stream),
);

const byId = <T extends { readonly id: string }>(items: readonly T[]): ReadonlyMap<string, T> =>
  new Map(items.map((item) => [item.id, item]));

function grouped<T>(items: readonly T[], keyOf: (item: T) => string): ReadonlyMap<string, readonly T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) pushTo(groups, keyOf(item), item);
  return groups;
}

/** Made when it is asked for first: most edits ask for few of them. */
function lazy<T>(make: () => T): () => T {
  let kept: T | undefined;
  return () => {
    kept ??= make();
    return kept;
  };
}

function createView(site: Site, index: EvidenceIndex, secrets: SecretsKnown = NO_SECRETS): SiteView {
  const cameras = lazy(() => byId(site.cameras));
  const models = lazy(() => byId(site.models));
  const destinations = lazy(() => byId(site.destinations));
  const taps = lazy(() => grouped(site.taps, ({ cameraId }) => cameraId));
  const gear = lazy(() => new Map(site.gear.map((one) => [gearSubject(one.id), one])));
  const linksFrom = lazy(() => grouped(site.links, ({ from }) => from));
  const linksTo = lazy(() => grouped(site.links, ({ to }) => to));
  const made = new Map<unknown, unknown>();
  const view: SiteView = {
    site,
    index,
    factsOf: (stream) => factsOfStream(index.get(streamSubject(stream.id)), stream),
    camera: (id) => cameras().get(id),
    modelOf: ({ modelId }) => (modelId === null ? undefined : models().get(modelId)),
    tapsOf: (cameraId) => taps().get(cameraId) ?? NONE,
    destination: (id) => destinations().get(id),
    gearAt: (subject) => gear().get(subject),
    linksFrom: (subject) => linksFrom().get(subject) ?? NONE,
    linksTo: (subject) => linksTo().get(subject) ?? NONE,
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
