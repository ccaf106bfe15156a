import { selectSite } from './site-slice.ts';
import { useAppSelector } from './store.ts';

/**
 * The open site, for links within it. Not that of the address: a site that was just begun is open before its address is,
 * and a link followed in between would lead back to the one before.
 */
export const useSiteId = (): string => useAppSelector(selectSite).id;
