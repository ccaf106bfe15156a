import { type SiteView, viewOf } from '../../core/site/site-view.ts';
import { selectIndex, selectSite } from '../store/site-slice.ts';
import { useAppSelector } from '../store/store.ts';

/** The open site as stations see it, without what hangs on secrets: those are judged beside the page. */
export function useSiteView(): SiteView {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  return viewOf(site, index);
}
