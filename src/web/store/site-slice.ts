import { createSelector, createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';
import { indexEvidence } from '../../core/site/best-known.ts';
import { lanesOf } from '../../core/site/lane.ts';
import { applyCommand, type SiteCommand } from '../../core/site/site-commands.ts';
import { emptySite, type Site } from '../../core/site/site-types.ts';

/** The one open site. `saveProblem` says why the last change is not yet in the browser's store. */
export type SiteState =
  | { readonly status: 'none' }
  | { readonly status: 'open'; readonly site: Site; readonly saveProblem: string | null };

interface StampedCommand {
  readonly command: SiteCommand;
  readonly at: string;
  readonly seed: string;
}

const slice = createSlice({
  name: 'site',
  initialState: (): SiteState => ({ status: 'none' }),
  reducers: {
    siteOpened: (_, action: PayloadAction<Site>): SiteState => ({
      status: 'open',
      site: action.payload,
      saveProblem: null,
    }),
    commandIssued: {
      // Time and ids are taken here, once, so that the reducer stays a function of its action.
      prepare: (command: SiteCommand) => ({ payload: { command, at: new Date().toISOString(), seed: nanoid(10) } }),
      reducer: (state, action: PayloadAction<StampedCommand>): SiteState => {
        if (state.status !== 'open') return state;
        const { command, at, seed } = action.payload;
        let count = 0;
        const newId = (): string => {
          count += 1;
          return `${seed}-${count}`;
        };
        return { ...state, site: applyCommand(state.site, command, { at, newId }) };
      },
    },
    saveFailed: (state, action: PayloadAction<string>): SiteState =>
      state.status === 'open' ? { ...state, saveProblem: action.payload } : state,
    saveSucceeded: (state): SiteState =>
      state.status === 'open' && state.saveProblem !== null ? { ...state, saveProblem: null } : state,
  },
});

export const { siteOpened, commandIssued, saveFailed, saveSucceeded } = slice.actions;
export const siteReducer = slice.reducer;

interface Root {
  readonly site: SiteState;
}
const NO_SITE = emptySite('none', ''); // one object: a fresh one would re-render every subscriber

export const selectSite = (root: Root): Site => (root.site.status === 'open' ? root.site.site : NO_SITE);
export const selectSaveProblem = (root: Root): string | null =>
  root.site.status === 'open' ? root.site.saveProblem : null;
export const selectIndex = createSelector([(root: Root) => selectSite(root).evidence], indexEvidence);
/** Lanes in the order of the site's cameras. */
export const selectLanes = createSelector([selectSite, selectIndex], lanesOf);
