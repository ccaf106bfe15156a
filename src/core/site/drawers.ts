import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Destination } from '../document/chapters/destinations/destination.ts';
import type { SiteView } from './site-view.ts';

/** Who draws a camera by its taps, and who is to draw it by its need. */
export function drawersOf(camera: Camera, view: SiteView): readonly Destination[] {
  const ids = new Set([
    ...view.tapsOf(camera.id).map(({ destinationId }) => destinationId),
    ...(camera.need?.draws ?? []).map(({ destinationId }) => destinationId),
  ]);
  return [...ids].flatMap((id) => view.destination(id) ?? []);
}
