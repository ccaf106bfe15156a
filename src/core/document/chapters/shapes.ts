import { LIST_LIMITS } from '../../base/limits.ts';
import type { Validator } from '../../base/schema-parts.ts';
import type { ChapterName, Site } from '../site.ts';
import { assumptionsShape } from './assumptions/assumptions-shape.ts';
import { brokenModelOfCamera, cameraJoints, cameraShape } from './cameras/camera-shape.ts';
import { costingShape } from './costing/costing-shape.ts';
import { destinationShape } from './destinations/destination-shape.ts';
import { gearShape } from './gear/gear-shape.ts';
import { brokenEndOfLink, linkShape } from './links/link-shape.ts';
import { modelShape } from './models/model-shape.ts';
import { networkShape } from './networks/network-shape.ts';
import { planShape } from './plan/plan-shape.ts';
import { reachShape } from './reach/reach-shape.ts';
import { skyShape } from './sky/sky-shape.ts';
import { brokenEndOfTap, tapShape } from './taps/tap-shape.ts';

/** Chapters that are lists of things with ids. */
export type ListName = {
  readonly [K in ChapterName]: Site[K] extends readonly { readonly id: string }[] ? K : never;
}[ChapterName];

interface ListShape<T> {
  readonly item: Validator<T>;
  /** How many there may be. */
  readonly most: number;
  /** What an item is known by, and what it knows others by: while these stay, no reference can break. */
  readonly identityKey: (item: T) => string;
  /** The first reference of this list to something that is not there, in words. */
  readonly broken?: (site: Site) => string | null;
}
const joints = ({ id }: { readonly id: string }): string => id;

/** Lists of the document; one that names another stands behind it, so that the cause is told first. */
export const LIST_SHAPES: { readonly [K in ListName]: ListShape<Site[K][number]> } = {
  networks: { item: networkShape, most: LIST_LIMITS.networks, identityKey: joints },
  gear: { item: gearShape, most: LIST_LIMITS.gear, identityKey: joints },
  models: { item: modelShape, most: LIST_LIMITS.models, identityKey: joints },
  cameras: { item: cameraShape, most: LIST_LIMITS.cameras, identityKey: cameraJoints, broken: brokenModelOfCamera },
  destinations: { item: destinationShape, most: LIST_LIMITS.destinations, identityKey: joints },
  links: {
    item: linkShape,
    most: LIST_LIMITS.links,
    identityKey: ({ id, from, to }) => `${id} ${from} ${to}`,
    broken: brokenEndOfLink,
  },
  taps: {
    item: tapShape,
    most: LIST_LIMITS.taps,
    identityKey: ({ id, cameraId, streamId, destinationId }) => `${id} ${cameraId} ${streamId} ${destinationId}`,
    broken: brokenEndOfTap,
  },
};

/** Chapters that are one thing each. */
export const VALUE_SHAPES: { readonly [K in Exclude<ChapterName, ListName>]: Validator<Site[K]> } = {
  reach: reachShape,
  sky: skyShape,
  plan: planShape,
  costing: costingShape,
  assumptions: assumptionsShape,
};
