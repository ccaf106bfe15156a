import { lazy, Suspense } from 'react';
import { createBrowserRouter, redirect } from 'react-router';
import { PLACES } from './places/registry.ts';
import { type Boot, whereToBegin } from './shell/boot.ts';
import { openSite } from './shell/open-site.ts';
import { Shell } from './shell/shell.tsx';
import { STATION_PAGES } from './stations/registry.ts';

const SiteProblem = lazy(async () => ({ default: (await import('./shell/site-problem.tsx')).SiteProblem }));

/** The first view comes with its data; until then the paper stays blank. */
const Nothing = () => null;

export function createAppRouter({ firstSiteId }: Boot) {
  // Later the site that it led to may be removed.
  let isBegun = false;
  return createBrowserRouter([
    {
      path: '/',
      HydrateFallback: Nothing,
      loader: async () => {
        const first = isBegun ? await whereToBegin() : firstSiteId;
        isBegun = true;
        return first === null ? null : redirect(`/site/${first}`);
      },
      lazy: async () => ({ Component: (await import('./shell/first-site.tsx')).FirstSite }),
    },
    { path: '*', loader: () => redirect('/') },
    {
      path: '/site/:siteId',
      loader: ({ params }) => {
        isBegun = true;
        return openSite(params.siteId ?? '');
      },
      element: <Shell />,
      errorElement: (
        <Suspense fallback={null}>
          <SiteProblem />
        </Suspense>
      ),
      HydrateFallback: Nothing,
      children: [
        ...PLACES.map(({ path, load }) => ({
          ...(path === '' ? { index: true as const } : { path }),
          lazy: async () => ({ Component: await load() }),
        })),
        ...Object.entries(STATION_PAGES).map(([station, { load }]) => ({
          // what lies below is the station's own: a bench, a procedure
          path: `camera/:cameraId/${station}/*`,
          lazy: async () => ({ Component: await load() }),
        })),
        { path: '*', loader: ({ params }) => redirect(`/site/${params.siteId}`) },
      ],
    },
  ]);
}
