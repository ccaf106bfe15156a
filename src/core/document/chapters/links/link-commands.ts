import { sayMany } from '../../../base/say.ts';
import { type Handlers, put, words } from '../../command-parts.ts';
import { hasSubject, nameOfSubject } from '../../subjects.ts';
import type { Link } from './link.ts';

export type LinkCommand =
  | { readonly kind: 'putLink'; readonly link: Link }
  | { readonly kind: 'removeLink'; readonly linkId: string };

export const LINK_COMMANDS: Handlers<LinkCommand> = {
  putLink: (site, { link }) => {
    for (const end of [link.from, link.to])
      if (!hasSubject(site, end)) throw new RangeError(`link: there is nothing called ${end}`);
    const before = site.links.find(({ id }) => id === link.id);
    const [from, to] = [nameOfSubject(site, link.from), nameOfSubject(site, link.to)];
    const what = !before ? 'joined' : before.from === link.from && before.to === link.to ? 'link changed' : 'moved';
    return {
      site: { ...site, links: put(site.links, link) },
      log: words('power', link.to, `${to}: ${what}${what === 'link changed' ? '' : ` to ${from}`}`, {
        medium: link.medium,
        length: link.route
          ? `drawn, ${sayMany(link.route.length, 'point')}`
          : link.lengthM === null
            ? undefined
            : `${link.lengthM} m`,
      }),
    };
  },
  removeLink: (site, { linkId }) => {
    const link = site.links.find(({ id }) => id === linkId);
    if (!link) throw new RangeError(`linkId: there is no link ${linkId}`);
    const text = `${nameOfSubject(site, link.to)} no longer linked to ${nameOfSubject(site, link.from)}`;
    return {
      site: { ...site, links: site.links.filter((other) => other !== link) },
      log: words('power', link.to, text),
    };
  },
};
