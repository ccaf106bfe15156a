import { configureStore, createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { FitGuard } from './fit-guard.ts';
import { judge } from './judge.ts';
import { lanesJudged, lanesReducer } from './lanes-slice.ts';
import { probeAllReducer } from './probe-all-slice.ts';
import { probeReducer } from './probe-slice.ts';
import { serverReducer } from './server-slice.ts';
import { SiteSaver } from './site-saver.ts';
import {
  changeRefused,
  commandIssued,
  editRedone,
  editUndone,
  type SiteAction,
  saveStateChanged,
  selectSite,
  selectSiteId,
  siteOpened,
  siteReducer,
} from './site-slice.ts';
import { readStored } from './site-store.ts';
import { slipReducer } from './slip-slice.ts';
import { openTabChannel } from './tab-channel.ts';

const listener = createListenerMiddleware();

export const store = configureStore({
  reducer: {
    site: siteReducer,
    lanes: lanesReducer,
    probe: probeReducer,
    probeRound: probeAllReducer,
    server: serverReducer,
    slip: slipReducer,
  },
  // The document is checked on every way in; walking 200 cameras after each action would only cost time.
  middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).prepend(listener.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

const guard = new FitGuard(async () => (await import('../../core/document/site-fit.ts')).refusalOf);

const saver = new SiteSaver({
  onState: (state) => void store.dispatch(saveStateChanged(state)),
  refusalOf: (fits, changed) => guard.refusalOf(fits, changed),
  onSaved: (siteId, revision) => tabs.tell({ siteId, revision }),
});

/** Another tab wrote to the open site: follow it, unless something here is not yet written; then the save tells. */
const tabs = openTabChannel(({ siteId }) => {
  if (selectSiteId(store.getState()) !== siteId) return;
  if (saver.hasUnsaved) void saver.flush();
  else void follow();
});

/** What is done to the site is judged beside the page; what is judged takes the place of what was. */
async function judgeBeside(action: SiteAction): Promise<void> {
  const judged = await judge.act(action);
  if (judged) store.dispatch(lanesJudged(judged));
}

listener.startListening({
  actionCreator: siteOpened,
  effect: (action) => {
    const { payload } = action;
    guard.opened(payload.site);
    saver.opened(payload);
    if (payload.isUnsaved) saver.changed(payload.site);
    return judgeBeside(action);
  },
});
// A change that is refused is told to nobody: what judges and what saves still have the site as it was.
listener.startListening({
  matcher: isAnyOf(commandIssued, editUndone, editRedone),
  effect: (action, { getOriginalState }) => {
    const site = selectSite(store.getState());
    const refusal = guard.changed(site);
    if (refusal !== null)
      return void store.dispatch(changeRefused({ before: (getOriginalState() as RootState).site, refusal }));
    saver.changed(site);
    return judgeBeside(action as SiteAction); // the matcher above lets through no other
  },
});

/** A view waits this long for what is judged, and is shown without it then. */
const LONGEST_WAIT_MS = 3000;

/** The open site was judged: a view that shows lanes, and keys that go by them, come with their data. */
export const whenJudged = (siteId: string): Promise<void> =>
  new Promise((resolve) => {
    const isJudged = (): boolean => store.getState().lanes.siteId === siteId;
    if (isJudged()) return resolve();
    const stop = store.subscribe(() => isJudged() && done());
    const timer = setTimeout(() => done(), LONGEST_WAIT_MS);
    function done(): void {
      clearTimeout(timer);
      stop();
      resolve();
    }
  });

/** Writes what waits, before another site takes the place of this one; false when its last changes are kept nowhere. */
export async function leaveSite(): Promise<boolean> {
  await saver.flush();
  return saver.mayLeave;
}
/** The open site was saved to a file as it stands. */
export const noteExported = (): void => saver.exported();

/** Takes up what another tab wrote. An edit that was made here while it was read comes first: its save then tells. */
async function follow(): Promise<void> {
  const { id } = selectSite(store.getState());
  const loaded = await readStored(id);
  if (loaded.ok && selectSite(store.getState()).id === id && !saver.hasUnsaved)
    store.dispatch(siteOpened(loaded.value));
}

/** Opens what the store has of the open site, with what another tab wrote; what is unsaved here is given up. */
export async function takeOver(): Promise<void> {
  const { id } = selectSite(store.getState());
  const loaded = await readStored(id);
  if (!loaded.ok) return;
  saver.giveUp(id);
  store.dispatch(siteOpened(loaded.value));
}

/** Writes this tab's site over what another tab wrote. */
export const keepOurs = (): Promise<void> => saver.overwrite(selectSite(store.getState()));

// A phone puts pages to sleep without closing them: hiding is the last moment that is sure to come.
globalThis.document?.addEventListener('visibilitychange', () => {
  if (document.visibilityState === 'hidden') saver.leave();
});
globalThis.addEventListener?.('pagehide', () => void saver.leave());
// What can neither be written in time nor put down would be gone with the page: the browser asks first.
globalThis.addEventListener?.('beforeunload', (event) => {
  if (!saver.leave()) event.preventDefault();
});
