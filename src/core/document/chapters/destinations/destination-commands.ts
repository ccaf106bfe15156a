import { sayDays, sayShare } from '../../../base/say.ts';
import { destinationOf, type Handlers, put, without, words } from '../../command-parts.ts';
import { destinationSubject } from '../../subject.ts';
import type { Destination } from './destination.ts';

export type DestinationCommand =
  | { readonly kind: 'addDestination'; readonly destination: Destination }
  | { readonly kind: 'changeDestination'; readonly destination: Destination }
  /** Its taps and links go with it, and no need names it any more. */
  | { readonly kind: 'removeDestination'; readonly destinationId: string };

const numbersOf = (destination: Destination): Record<string, string | undefined> => ({
  disk: destination.storage ? `${destination.storage.diskTB} TB` : undefined,
  usable: destination.storage ? sayShare(destination.storage.usableFraction) : undefined,
  retention: destination.retentionDays === null ? undefined : sayDays(destination.retentionDays),
  codecs: destination.codecs.length > 0 ? destination.codecs.join(', ') : undefined,
  audio: destination.sounds.length > 0 ? destination.sounds.join(', ') : undefined,
  licences: destination.seats ? String(destination.seats.included) : undefined,
});

export const DESTINATION_COMMANDS: Handlers<DestinationCommand> = {
  addDestination: (site, { destination }) => ({
    site: { ...site, destinations: [...site.destinations, destination] },
    log: words('edit', destinationSubject(destination.id), `${destination.name} added`, numbersOf(destination)),
  }),
  changeDestination: (site, { destination }) => {
    destinationOf(site, destination.id);
    return {
      site: { ...site, destinations: put(site.destinations, destination) },
      log: words('edit', destinationSubject(destination.id), `${destination.name} changed`, numbersOf(destination)),
    };
  },
  removeDestination: (site, { destinationId }) => {
    const { name } = destinationOf(site, destinationId);
    const subject = destinationSubject(destinationId);
    const isOther = (one: { readonly destinationId: string | null }): boolean => one.destinationId !== destinationId;
    return {
      site: {
        ...site,
        destinations: without(site.destinations, destinationId),
        taps: site.taps.filter(isOther),
        links: site.links.filter(({ from, to }) => from !== subject && to !== subject),
        cameras: site.cameras.map((camera) =>
          camera.need && !camera.need.draws.every(isOther)
            ? { ...camera, need: { ...camera.need, draws: camera.need.draws.filter(isOther) } }
            : camera,
        ),
        costing: {
          ...site.costing,
          options: site.costing.options.map((option) =>
            isOther(option) ? option : { ...option, destinationId: null },
          ),
        },
      },
      log: words('edit', 'site', `${name} removed`),
    };
  },
};
