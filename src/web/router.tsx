import { createBrowserRouter, redirect } from 'react-router';
import type { Boot } from './shell/boot.ts';
import { openSite } from './shell/open-site.ts';
import { Shell } from './shell/shell.tsx';
import { SiteProblem } from './shell/site-problem.tsx';

/** The first view comes with its data; until then the paper stays blank. */
const Nothing = () => null;

export function createAppRouter({ firstSiteId }: Boot) {
  return createBrowserRouter([
    {
      path: '/',
      loader: () => (firstSiteId === null ? null : redirect(`/site/${firstSiteId}`)),
      lazy: async () => ({ Component: (await import('./shell/first-site.tsx')).FirstSite }),
      HydrateFallback: Nothing,
    },
    { path: '*', loader: () => redirect('/') },
    {
      path: '/site/:siteId',
      loader: ({ params }) => openSite(params.siteId ?? ''),
      element: <Shell />,
      errorElement: <SiteProblem />,
      HydrateFallback: Nothing,
      children: [
        { index: true, lazy: async () => ({ Component: (await import('./places/round/round-page.tsx')).RoundPage }) },
        {
          path: 'logbook',
          lazy: async () => ({ Component: (await import('./places/logbook/logbook-page.tsx')).LogbookPage }),
        },
        {
          path: 'camera/:cameraId/choose',
          lazy: async () => ({ Component: (await import('./stations/choose/choose-page.tsx')).ChoosePage }),
        },
        {
          path: 'camera/:cameraId/power',
          lazy: async () => ({ Component: (await import('./stations/power/power-page.tsx')).PowerPage }),
        },
        {
          path: '*',
          loader: ({ params }) => redirect(`/site/${params.siteId}`),
        },
        { path: 'plan', lazy: async () => ({ Component: (await import('./places/plan/plan-page.tsx')).PlanPage }) },
        { path: 'cost', lazy: async () => ({ Component: (await import('./places/cost/cost-page.tsx')).CostPage }) },
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
