import { type Link, type LinkMedium, UNMEASURED_LINK } from '../../../core/document/chapters/links/link.ts';
import { newId } from '../../store/new-id.ts';

/** A new link: a radio link has no length of its own. */
export const newLink = (from: string, to: string, medium: LinkMedium): Link => ({
  id: newId('link'),
  from,
  to,
  medium,
  ...UNMEASURED_LINK,
  ...(medium === 'wifi' ? { lengthM: 0 } : {}),
});
