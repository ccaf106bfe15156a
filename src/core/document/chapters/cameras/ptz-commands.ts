import { sayMany } from '../../../base/say.ts';
import { cameraOf, changeCamera, type Handlers, itemOf, put, without } from '../../command-parts.ts';
import type { HeadPreset, Tour } from './ptz.ts';

/** What a head comes back to, and in which rounds. */
export type SteeringCommand =
  | { readonly kind: 'putHeadPreset'; readonly cameraId: string; readonly preset: HeadPreset }
  /** Rounds pass it over from then on. */
  | { readonly kind: 'removeHeadPreset'; readonly cameraId: string; readonly presetId: string }
  | { readonly kind: 'putTour'; readonly cameraId: string; readonly tour: Tour }
  | { readonly kind: 'removeTour'; readonly cameraId: string; readonly tourId: string };

const known = <T extends { readonly id: string }>(items: readonly T[], id: string): boolean =>
  items.some((one) => one.id === id);

export const STEERING_COMMANDS: Handlers<SteeringCommand> = {
  putHeadPreset: (site, { cameraId, preset }) => {
    const { presets } = cameraOf(site, cameraId).steering;
    const text = `preset ${preset.name} ${known(presets, preset.id) ? 'changed' : 'kept'}`;
    return changeCamera(site, cameraId, 'tap', text, ({ steering, ...camera }) => ({
      ...camera,
      steering: { ...steering, presets: put(steering.presets, preset) },
    }));
  },
  removeHeadPreset: (site, { cameraId, presetId }) => {
    const { name } = itemOf(cameraOf(site, cameraId).steering.presets, presetId, 'preset');
    return changeCamera(site, cameraId, 'tap', `preset ${name} removed`, ({ steering, ...camera }) => ({
      ...camera,
      steering: {
        presets: without(steering.presets, presetId),
        tours: steering.tours.map((tour) => ({
          ...tour,
          stops: tour.stops.filter((stop) => stop.presetId !== presetId),
        })),
      },
    }));
  },
  putTour: (site, { cameraId, tour }) => {
    const { tours } = cameraOf(site, cameraId).steering;
    const text = `tour ${tour.name} ${known(tours, tour.id) ? 'changed' : 'made'}, ${sayMany(tour.stops.length, 'stop')}`;
    return changeCamera(site, cameraId, 'tap', text, ({ steering, ...camera }) => ({
      ...camera,
      steering: { ...steering, tours: put(steering.tours, tour) },
    }));
  },
  removeTour: (site, { cameraId, tourId }) => {
    const { name } = itemOf(cameraOf(site, cameraId).steering.tours, tourId, 'tour');
    return changeCamera(site, cameraId, 'tap', `tour ${name} removed`, ({ steering, ...camera }) => ({
      ...camera,
      steering: { ...steering, tours: without(steering.tours, tourId) },
    }));
  },
};
