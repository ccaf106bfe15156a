import { lazy, Suspense, useEffect, useSyncExternalStore } from 'react';
import { NavLink, Outlet, ScrollRestoration, useNavigate } from 'react-router';
import { type Place, pathOfPlace } from '../places/place.ts';
import { barPlaces, PLACES } from '../places/registry.ts';
import { useNextStep } from '../store/next-step.ts';
import { selectServer } from '../store/server-slice.ts';
import { selectSite } from '../store/site-slice.ts';
import { type Slip, selectSlip, slipAsked } from '../store/slip-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useSiteId } from '../store/use-site-id.ts';
import { QuestionDialog, questions } from '../things/question/index.ts';
import { Drop } from '../ui/drop.tsx';
import { useShortcut } from '../ui/shortcut.ts';
import { useServerWatch } from './server-watch.ts';

/** Menus and dialogs come after the first view: it does not wait for them. */
const SiteMenu = lazy(async () => ({ default: (await import('./site-menu.tsx')).SiteMenu }));

const HeadTools = lazy(async () => ({ default: (await import('./head-tools.tsx')).HeadTools }));

// silent but where something is wrong: by then it is there
const SaveBar = lazy(async () => ({ default: (await import('./save-bar.tsx')).SaveBar }));
const NewThing = lazy(async () => ({ default: (await import('./new-things.tsx')).NewThing }));

/** Fetched once the first view stands: who presses `/` types on at once. */
const finder = () => import('./finder.tsx');

const SLIPS = {
  find: lazy(async () => ({ default: (await finder()).Finder })),
  shortcuts: lazy(async () => ({ default: (await import('./shortcut-list.tsx')).ShortcutList })),
  cards: lazy(async () => ({ default: (await import('../things/model/index.ts')).CardsSlip })),
  camera: NewThing,
  gear: NewThing,
  destination: NewThing,
  site: lazy(async () => ({ default: (await import('./site-slip.tsx')).SiteSlip })),
  assumptions: lazy(async () => ({ default: (await import('./assumptions-slip.tsx')).AssumptionsSlip })),
  vault: lazy(async () => ({ default: (await import('./vault-slip.tsx')).VaultSlip })),
} as const satisfies Record<Exclude<Slip, 'none'>, unknown>;

/** The frame of every view: the site, the places, which network is dialled. On a phone the places stand at the thumb. */
export function Shell() {
  const siteId = useSiteId();
  const siteName = useAppSelector(selectSite).name;
  const { network } = useAppSelector(selectServer);
  useServerWatch();
  useShellShortcuts();
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-20 focus:bg-sheet focus:p-2">
        Skip to content
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
            {barPlaces(network).map((place) => (
              <NavLink
                key={place.id}
                to={pathOfPlace(siteId, place)}
                end={place.path === ''}
                className={({ isActive }) =>
                  `flex items-center border-b-2 px-3 ${isActive ? 'border-verdigris font-strong' : 'border-transparent text-soft hover:text-ink'}`
                }
              >
                {place.name}
              </NavLink>
            ))}
          </nav>
          <span className="ml-auto flex items-center gap-1 md:gap-2">
            <Suspense fallback={null}>
              <HeadTools />
            </Suspense>
            <NetworkName />
          </span>
        </div>
      </header>
      <Suspense fallback={null}>
        <SaveBar />
      </Suspense>
      <main id="work" className="mx-auto w-full max-w-[1320px] flex-1 px-3.5 pt-4 pb-36 md:px-5 md:pb-8">
        <Outlet />
      </main>
      <nav
        aria-label="Places"
        className="no-print fixed inset-x-0 bottom-0 z-10 flex border-t border-hair bg-sheet pb-[env(safe-area-inset-bottom)] md:hidden"
      >
        {barPlaces(null).map((place) => (
          <NavLink
            key={place.id}
            to={pathOfPlace(siteId, place)}
            end={place.path === ''}
            className={({ isActive }) =>
              `flex h-14 flex-1 items-center justify-center border-t-2 ${isActive ? 'border-verdigris font-strong' : 'border-transparent text-soft'}`
            }
          >
            {place.name}
          </NavLink>
        ))}
      </nav>
      {PLACES.map((place) => place.key && <PlaceKey key={place.id} place={place} keys={place.key} />)}
      <OpenSlip />
      <Suspense fallback={null}>
        <OpenQuestion />
      </Suspense>
      <ScrollRestoration />
    </div>
  );
}

/** Keys that work in every view. */
function useShellShortcuts(): void {
  const dispatch = useAppDispatch();
  const goNext = useNextStep();
  useShortcut('/', () => dispatch(slipAsked('find')));
  useShortcut('?', () => dispatch(slipAsked('shortcuts')));
  useShortcut('n', () => goNext?.());
  useShortcut('a', () => document.querySelector<HTMLElement>('#work button[data-main]:enabled')?.click());
}

/** The key of a place, which works in every view. */
function PlaceKey({ place, keys }: { place: Place; keys: string }) {
  const navigate = useNavigate();
  const siteId = useSiteId();
  useShortcut(keys, () => void navigate(pathOfPlace(siteId, place)));
  return null;
}

/** What a piece of work waits for a person to say; its dialog comes when there is one. */
function OpenQuestion() {
  const question = useSyncExternalStore(questions.subscribe, questions.first);
  return question && <QuestionDialog />;
}

function OpenSlip() {
  const dispatch = useAppDispatch();
  useEffect(() => {
    // Without the server it is asked for anew when it is opened.
    const soon = setTimeout(() => void finder().catch(() => {}), 1000);
    return () => clearTimeout(soon);
  }, []);
  const slip = useAppSelector(selectSlip);
  if (slip === 'none') return null;
  const Opened = SLIPS[slip];
  return (
    // Until it is there, what is typed meant it and carries out nothing beneath.
    <Suspense fallback={<span data-opening="" />}>
      <Opened onClose={() => dispatch(slipAsked('none'))} />
    </Suspense>
  );
}

function NetworkName() {
  const { status, network } = useAppSelector(selectServer);
  if (status === 'down')
    return (
      <span role="status" className="text-small font-strong text-brick">
        Server not running
      </span>
    );
  const name = network === 'simulated' ? 'Simulated' : 'Real';
  return (
    <span role="status" className="text-small text-soft">
      {name} <span className="max-md:sr-only">network</span>
    </span>
  );
}
