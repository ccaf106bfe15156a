import { createBrowserRouter, redirect } from 'react-router';
import type { Boot } from './boot.ts';
import { Shell } from './shell/shell.tsx';
import { SiteProblem } from './shell/site-problem.tsx';
import { selectSite, siteOpened } from './store/site-slice.ts';
import { loadSite, rememberOpened } from './store/site-store.ts';
import { store } from './store/store.ts';

/** The first view comes with its data; until then the paper stays blank. */
const Nothing = () => null;

/** Opens the site of the address, once; a site that cannot be opened is named with its reason. */
async function openSite(siteId: string): Promise<null> {
  if (selectSite(store.getState()).id === siteId) return null;
  const loaded = await loadSite(siteId);
  if (!loaded.ok) throw new Error(loaded.error.message);
  store.dispatch(siteOpened(loaded.value));
  await rememberOpened(siteId);
  return null;
}

export function createAppRouter({ info, firstSiteId }: Boot) {
  return createBrowserRouter([
    {
      path: '/',
      loader: () => (firstSiteId === null ? null : redirect(`/site/${firstSiteId}`)),
      lazy: async () => ({ Component: (await import('./shell/first-site.tsx')).FirstSite }),
      HydrateFallback: Nothing,
    },
    {
      path: '/site/:siteId',
      loader: ({ params }) => openSite(params.siteId ?? ''),
      element: <Shell info={info} />,
      errorElement: <SiteProblem />,
      HydrateFallback: Nothing,
      children: [
        { index: true, lazy: async () => ({ Component: (await import('./round/round-page.tsx')).RoundPage }) },
        {
          path: 'logbook',
          lazy: async () => ({ Component: (await import('./logbook/logbook-page.tsx')).LogbookPage }),
        },
        {
          path: 'camera/:cameraId/tap',
          lazy: async () => ({ Component: (await import('./stations/tap/tap-page.tsx')).TapPage }),
        },
        {
          path: 'camera/:cameraId/hand-over',
          lazy: async () => ({ Component: (await import('./stations/hand-over/hand-over-page.tsx')).HandOverPage }),
        },
      ],
    },
  ]);
}
