import { configureStore, createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { probeReducer } from '../stations/tap/probe-slice.ts';
import { commandIssued, saveFailed, saveSucceeded, selectSite, siteOpened, siteReducer } from './site-slice.ts';
import { saveSite } from './site-store.ts';

const listener = createListenerMiddleware();

export const store = configureStore({
  reducer: { site: siteReducer, probe: probeReducer },
  // The document is checked on every way in; walking 200 cameras after each action would only cost time.
  middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).prepend(listener.middleware),
});

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

listener.startListening({
  matcher: isAnyOf(commandIssued, siteOpened),
  effect: async (_, api) => {
    api.cancelActiveListeners();
    const site = selectSite(store.getState());
    try {
      await saveSite(site);
      api.dispatch(saveSucceeded());
    } catch (error) {
      api.dispatch(
        saveFailed(
          `The browser could not keep the last change (${error instanceof Error ? error.name : 'unknown'}). Export the site file now.`,
        ),
      );
    }
  },
});
