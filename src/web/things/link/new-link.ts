import type { Link, LinkMedium } from '../../../core/document/chapters/links/link.ts';
import { UNMEASURED_LINK } from '../../../core/document/chapters/links/link-fields.ts';
import { newId } from '../../store/new-id.ts';

/** A new link: how long it is, nobody said; the plan may. */
export const newLink = (from: string, to: string, medium: LinkMedium): Link => ({
  id: newId('link'),
  from,
  to,
  medium,
  ...UNMEASURED_LINK,
});
