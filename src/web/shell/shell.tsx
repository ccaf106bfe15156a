import { lazy, Suspense } from 'react';
import { NavLink, Outlet, ScrollRestoration, useParams } from 'react-router';
import type { ServerInfo } from '../../contract/server-info.ts';
import { selectSaveProblem, selectSite } from '../store/site-slice.ts';
import { useAppSelector } from '../store/store.ts';
import { Drop } from '../ui/drop.tsx';

/** Menus and dialogs come after the first view: it does not wait for them. */
const SiteMenu = lazy(async () => ({ default: (await import('./site-menu.tsx')).SiteMenu }));

const PLACES = [
  { name: 'Round', path: '' },
  { name: 'Logbook', path: '/logbook' },
] as const;

/** The frame of every view: the site, the places, which network is dialled. On a phone the places stand at the thumb. */
export function Shell({ info }: { info: ServerInfo | null }) {
  const { siteId } = useParams();
  const saveProblem = useAppSelector(selectSaveProblem);
  const siteName = useAppSelector(selectSite).name;
  const network =
    info === null ? 'Server not running' : info.network === 'simulated' ? 'Simulated network' : 'Real network';
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-20 focus:bg-sheet focus:p-2">
        To the work
      </a>
      <header className="no-print border-b border-hair bg-sheet">
        <div className="mx-auto flex h-12 max-w-[1320px] items-center gap-4 px-3.5 md:px-5">
          <span className="flex items-center gap-2">
            <Drop verdict="ok" />
            <span className="hidden text-name font-strong md:inline">Clear Tap</span>
          </span>
          <Suspense fallback={<span className="font-strong">{siteName}</span>}>
            <SiteMenu />
          </Suspense>
          <nav aria-label="Places" className="ml-4 hidden self-stretch md:flex">
            {PLACES.map(({ name, path }) => (
              <NavLink
                key={name}
                to={`/site/${siteId}${path}`}
                end={path === ''}
                className={({ isActive }) =>
                  `flex items-center border-b-2 px-3 ${isActive ? 'border-verdigris font-strong' : 'border-transparent text-soft hover:text-ink'}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <span className={`ml-auto text-small ${info === null ? 'font-strong text-brick' : 'text-soft'}`}>
            {network}
          </span>
        </div>
      </header>
      {saveProblem !== null && (
        <p role="alert" className="border-b border-brick bg-brick-wash px-5 py-2">
          {saveProblem}
        </p>
      )}
      <main id="work" className="mx-auto w-full max-w-[1320px] flex-1 px-3.5 pt-4 pb-24 md:px-5 md:pb-8">
        <Outlet />
      </main>
      <nav
        aria-label="Places"
        className="no-print fixed inset-x-0 bottom-0 z-10 flex border-t border-hair bg-sheet pb-[env(safe-area-inset-bottom)] md:hidden"
      >
        {PLACES.map(({ name, path }) => (
          <NavLink
            key={name}
            to={`/site/${siteId}${path}`}
            end={path === ''}
            className={({ isActive }) =>
              `flex h-14 flex-1 items-center justify-center border-t-2 ${isActive ? 'border-verdigris font-strong' : 'border-transparent text-soft'}`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <ScrollRestoration />
    </div>
  );
}
