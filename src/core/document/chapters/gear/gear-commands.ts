import { type Handlers, put, words } from '../../command-parts.ts';
import { gearSubject } from '../../subject.ts';
import type { Gear } from './gear.ts';

export type GearCommand =
  | { readonly kind: 'putGear'; readonly gear: Gear }
  | { readonly kind: 'removeGear'; readonly gearId: string };

export const GEAR_COMMANDS: Handlers<GearCommand> = {
  putGear: (site, { gear }) => {
    const isNew = !site.gear.some(({ id }) => id === gear.id);
    return {
      site: { ...site, gear: put(site.gear, gear) },
      log: words('power', gearSubject(gear.id), `${gear.name} ${isNew ? 'added' : 'changed'}`),
    };
  },
  /** What it was joined by goes with it. */
  removeGear: (site, { gearId }) => {
    const gear = site.gear.find(({ id }) => id === gearId);
    if (!gear) throw new RangeError(`gearId: there is no gear ${gearId}`);
    const subject = gearSubject(gearId);
    return {
      site: {
        ...site,
        gear: site.gear.filter((other) => other !== gear),
        links: site.links.filter(({ from, to }) => from !== subject && to !== subject),
      },
      log: words('power', 'site', `${gear.name} removed, with its links`),
    };
  },
};
