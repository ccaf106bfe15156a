import { clipText } from '../base/clip.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import type { Camera, Stream } from './chapters/cameras/camera.ts';
import type { Destination } from './chapters/destinations/destination.ts';
import type { Entry, LogKind } from './chapters/journal/entry.ts';
import type { Payload } from './payload/payload.ts';
import type { Site } from './site.ts';
import { cameraSubject } from './subject.ts';

/** Time and ids come from outside: core has no clock and no randomness of its own. */
export interface Stamp {
  readonly at: string;
  readonly newId: () => string;
}

/** What the journal is told of a command. */
export type LogWords = Pick<Entry, 'kind' | 'subject' | 'text' | 'refs'>;
/**
 * What a command of the plan does: the site as it then is, and its line of the journal, which comes by itself. Entries that
 * no longer count because of it are named.
 */
export type Changed = { readonly site: Site; readonly log: LogWords; readonly revokes?: readonly string[] };
/** What was learnt: words and facts for the journal. The plan is not in reach. */
export type Recorded = LogWords &
  Pick<Entry, 'source' | 'facts'> & { readonly payload?: Payload | null; readonly revokes?: readonly string[] };

/** What a chapter of the plan does with each of its commands. A command without a handler does not compile. */
export type Handlers<C extends { readonly kind: string }> = {
  readonly [K in C['kind']]: (site: Site, command: Extract<C, { readonly kind: K }>) => Changed;
};
/** The same of the journal. */
export type Recorders<C extends { readonly kind: string }> = {
  readonly [K in C['kind']]: (site: Site, command: Extract<C, { readonly kind: K }>) => Recorded;
};

/** A line of the log; numbers that are not there are left out. */
export function words(
  kind: LogKind,
  subject: string,
  text: string,
  refs: Readonly<Record<string, string | undefined>> = {},
): LogWords {
  const pairs = Object.entries(refs).flatMap(([name, value]) => (value === undefined ? [] : [{ name, value }]));
  return { kind, subject, text, refs: pairs };
}

export const sayValue = (value: unknown): string => (value === null || value === undefined ? 'none' : String(value));

export const cameraOf = (site: Site, cameraId: string): Camera => itemOf(site.cameras, cameraId, 'camera');
/** @throws RangeError when the camera has no such stream: a bug of the caller */
export function streamIn(camera: Camera, streamId: string): Stream {
  const stream = camera.streams.find(({ id }) => id === streamId);
  if (!stream) throw new RangeError(`streamId: ${camera.name} has no stream ${streamId}`);
  return stream;
}
export const destinationOf = (site: Site, destinationId: string): Destination =>
  itemOf(site.destinations, destinationId, 'destination');

/** @throws RangeError when it is not in the list: a bug of the caller */
export function itemOf<T extends { readonly id: string }>(items: readonly T[], id: string, what: string): T {
  const item = items.find((one) => one.id === id);
  if (!item) throw new RangeError(`${what}Id: there is no ${what} ${id}`);
  return item;
}
export const without = <T extends { readonly id: string }>(items: readonly T[], id: string): readonly T[] =>
  items.filter((item) => item.id !== id);

/** The list with the item put in the place of the one with its id, or at the end. */
export function put<T extends { readonly id: string }>(items: readonly T[], item: T): readonly T[] {
  return items.some(({ id }) => id === item.id)
    ? items.map((other) => (other.id === item.id ? item : other))
    : [...items, item];
}

/** One camera changed, and told: “Sluice rail: address changed”. */
export function changeCamera(
  site: Site,
  cameraId: string,
  kind: LogKind,
  text: string,
  change: (camera: Camera) => Camera,
  refs: Readonly<Record<string, string | undefined>> = {},
): Changed {
  const camera = cameraOf(site, cameraId);
  const changed = change(camera);
  return {
    site: { ...site, cameras: site.cameras.map((other) => (other === camera ? changed : other)) },
    log: words(kind, cameraSubject(cameraId), `${camera.name}: ${text}`, refs),
  };
}

// Texts of the journal come from cameras, names and notes: here they are clipped to what a site can keep, and nowhere else.

export const clippedEntry = (entry: Entry): Entry => ({
  ...entry,
  subject: clipText(entry.subject, TEXT_LIMITS.subject),
  text: clipText(entry.text, TEXT_LIMITS.logText),
  refs: entry.refs.slice(0, LIST_LIMITS.logRefs).map(({ name, value }) => ({
    name: clipText(name, TEXT_LIMITS.refName),
    value: clipText(value, TEXT_LIMITS.refValue),
  })),
  source: clipText(entry.source, TEXT_LIMITS.source),
  facts: entry.facts.slice(0, LIST_LIMITS.factsOfEntry).map((fact) => ({
    ...fact,
    quantity: clipText(fact.quantity, TEXT_LIMITS.quantity),
    value: typeof fact.value === 'string' ? clipText(fact.value, TEXT_LIMITS.evidence) : fact.value,
  })),
});
