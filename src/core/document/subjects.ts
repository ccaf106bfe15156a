import type { Point } from '../base/plan-geometry.ts';
import type { Camera } from './chapters/cameras/camera.ts';
import type { Destination } from './chapters/destinations/destination.ts';
import type { Gear } from './chapters/gear/gear.ts';
import type { Site } from './site.ts';
import { cameraSubject, destinationSubject, gearSubject } from './subject.ts';

type Things = Pick<Site, 'cameras' | 'gear' | 'destinations'>;

/** Something that has a name, may have a place on the plan, and is joined by links. */
export type Thing =
  | { readonly kind: 'gear'; readonly subject: string; readonly item: Gear }
  | { readonly kind: 'destination'; readonly subject: string; readonly item: Destination }
  | { readonly kind: 'camera'; readonly subject: string; readonly item: Camera };

/** All of them with the subject that links and evidence know them by: gear first, cameras last, as they are drawn. */
export const thingsOf = ({ gear, destinations, cameras }: Things): readonly Thing[] => [
  ...gear.map((item) => ({ kind: 'gear' as const, subject: gearSubject(item.id), item })),
  ...destinations.map((item) => ({ kind: 'destination' as const, subject: destinationSubject(item.id), item })),
  ...cameras.map((item) => ({ kind: 'camera' as const, subject: cameraSubject(item.id), item })),
];

function thingAt(site: Things, subject: string): Gear | Destination | Camera | undefined {
  const at = subject.indexOf(':');
  const [kind, id] = [subject.slice(0, at), subject.slice(at + 1)];
  const items: readonly (Gear | Destination | Camera)[] =
    kind === 'camera' ? site.cameras : kind === 'gear' ? site.gear : kind === 'destination' ? site.destinations : [];
  return items.find((item) => item.id === id);
}

/** The name of what a subject means; the subject itself when it is not there. */
export const nameOfSubject = (site: Things, subject: string): string => thingAt(site, subject)?.name ?? subject;

/** Where something stands on the plan; `null` when it does not. */
export const positionOf = (site: Things, subject: string): Point | null => thingAt(site, subject)?.position ?? null;

export const hasSubject = (site: Things, subject: string): boolean => thingAt(site, subject) !== undefined;
