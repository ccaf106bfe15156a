import { sayDays, sayShare } from '../../../base/say.ts';
import { destinationOf, type Handlers, put, words } from '../../command-parts.ts';
import { destinationSubject } from '../../subject.ts';
import type { Destination } from './destination.ts';

export type DestinationCommand =
  | { readonly kind: 'addDestination'; readonly destination: Destination }
  | { readonly kind: 'changeDestination'; readonly destination: Destination };

const numbersOf = (destination: Destination): Record<string, string | undefined> => ({
  disk: destination.storage ? `${destination.storage.diskTB} TB` : undefined,
  usable: destination.storage ? sayShare(destination.storage.usableFraction) : undefined,
  kept: destination.retentionDays === null ? undefined : sayDays(destination.retentionDays),
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
};
