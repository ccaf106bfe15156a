import { type Handlers, sayValue, words } from '../../command-parts.ts';
import type { Sky } from './sky.ts';

export type SkyCommand = { readonly kind: 'setSky'; readonly sky: Sky };

export const SKY_COMMANDS: Handlers<SkyCommand> = {
  setSky: (site, { sky }) => ({
    site: { ...site, sky },
    log: words('edit', 'site', 'Latitude and clearness index changed', { latitude: sayValue(sky.latitudeDeg) }),
  }),
};
