import { createSelector, createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';
import type { Stamp } from '../../core/document/command-parts.ts';
import type { EditHistory } from '../../core/document/edit-history.ts';
import type { Site } from '../../core/document/site.ts';
import type { SiteCommand } from '../../core/document/site-commands.ts';
import { withEditing } from './edits.ts';
import type { OpenedSite, SaveState } from './site-saver.ts';

/** The one open site, what can be taken back in it, and how its last change stands in the browser's store. */
export type SiteState =
  | { readonly status: 'none' }
  | {
      readonly status: 'open';
      readonly site: Site;
      readonly history: EditHistory;
      readonly save: SaveState;
      /** Why the last change was taken back at once; `null` when it was not. */
      readonly refusal: string | null;
    };

/** Time and ids are taken once, when an action is made, so that the reducer stays a function of its action. */
interface Stamped {
  readonly at: string;
  readonly seed: string;
}
const stamped = (): Stamped => ({ at: new Date().toISOString(), seed: nanoid(10) });
function stampOf({ at, seed }: Stamped): Stamp {
  let count = 0;
  return {
    at,
    newId: () => {
      count += 1;
      return `${seed}-${count}`;
    },
  };
}

const SAVED: SaveState = { status: 'saved' };

const slice = createSlice({
  name: 'site',
  initialState: (): SiteState => ({ status: 'none' }),
  reducers: {
    siteOpened: (_, action: PayloadAction<OpenedSite>): SiteState => ({
      status: 'open',
      site: action.payload.site,
      history: { done: [], undone: [] },
      save: SAVED,
      refusal: null,
    }),
    commandIssued: {
      prepare: (command: SiteCommand) => ({ payload: { command, ...stamped() } }),
      reducer: (state, action: PayloadAction<{ command: SiteCommand } & Stamped>): SiteState => {
        if (state.status !== 'open') return state;
        const { command } = action.payload;
        const { applyCommand, noteEdit } = withEditing();
        const site = applyCommand(state.site, command, stampOf(action.payload));
        return { ...state, site, history: noteEdit(state.history, command, state.site, site), refusal: null };
      },
    },
    editUndone: {
      prepare: () => ({ payload: stamped() }),
      reducer: (state, action: PayloadAction<Stamped>): SiteState =>
        state.status === 'open'
          ? { ...state, ...withEditing().undoEdit(state.site, state.history, stampOf(action.payload)) }
          : state,
    },
    editRedone: {
      prepare: () => ({ payload: stamped() }),
      reducer: (state, action: PayloadAction<Stamped>): SiteState =>
        state.status === 'open'
          ? { ...state, ...withEditing().redoEdit(state.site, state.history, stampOf(action.payload)) }
          : state,
    },
    /** The change would have left a site that cannot be opened again: it is as it was before. */
    changeRefused: (state, action: PayloadAction<{ before: SiteState; refusal: string }>): SiteState => {
      const { before, refusal } = action.payload;
      return state.status === 'open' && before.status === 'open' ? { ...before, save: state.save, refusal } : state;
    },
    refusalRead: (state): SiteState => (state.status === 'open' ? { ...state, refusal: null } : state),
    saveStateChanged: (state, action: PayloadAction<SaveState>): SiteState =>
      state.status === 'open' && !(state.save.status === 'saved' && action.payload.status === 'saved')
        ? { ...state, save: action.payload }
        : state,
  },
});

export const { siteOpened, commandIssued, editUndone, editRedone, changeRefused, refusalRead, saveStateChanged } =
  slice.actions;
export const siteReducer = slice.reducer;
/** What can be done to the open site; whoever keeps a copy is told the same. */
export type SiteAction =
  | ReturnType<typeof siteOpened>
  | ReturnType<typeof commandIssued>
  | ReturnType<typeof editUndone>
  | ReturnType<typeof editRedone>;

export interface Root {
  readonly site: SiteState;
}
/** One object: a fresh one would re-render every subscriber. */
let noSite: Site | null = null;
function withoutSite(): Site {
  noSite ??= withEditing().emptySite('none', '');
  return noSite;
}

export const selectSite = (root: Root): Site => (root.site.status === 'open' ? root.site.site : withoutSite());
/** Of the open site, and asked before any is; “none” then. */
export const selectSiteId = (root: Root): string => (root.site.status === 'open' ? root.site.site.id : 'none');
export const selectSave = (root: Root): SaveState => (root.site.status === 'open' ? root.site.save : SAVED);
export const selectRefusal = (root: Root): string | null => (root.site.status === 'open' ? root.site.refusal : null);
/** What undo would take back, in words; `null` when there is nothing. */
export const selectUndoLabel = (root: Root): string | null =>
  root.site.status === 'open' ? (root.site.history.done.at(-1)?.label ?? null) : null;
export const selectRedoLabel = (root: Root): string | null =>
  root.site.status === 'open' ? (root.site.history.undone.at(-1)?.label ?? null) : null;
let indexer: ReturnType<ReturnType<typeof withEditing>['createEvidenceIndexer']> | null = null;
export const selectIndex = createSelector([(root: Root) => selectSite(root).journal], (journal) => {
  indexer ??= withEditing().createEvidenceIndexer();
  return indexer(journal);
});
