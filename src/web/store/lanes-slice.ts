import { createSelector, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Lane } from '../../core/lanes/lane-types.ts';
import { type Root as SiteRoot, selectSite } from './site-slice.ts';

/** The last that was judged of the open site. It is replaced when the next is there; until then it is shown. */
export interface Judged {
  readonly siteId: string | null;
  readonly byId: Readonly<Record<string, Lane>>;
}
interface Judgement {
  readonly siteId: string;
  readonly order: readonly string[];
  readonly changed: readonly Lane[];
}

const slice = createSlice({
  name: 'lanes',
  initialState: (): Judged => ({ siteId: null, byId: {} }),
  reducers: {
    lanesJudged: (before, { payload }: PayloadAction<Judgement>): Judged => {
      const { siteId, order, changed } = payload;
      const fresh = new Map(changed.map((lane) => [lane.cameraId, lane]));
      const known = before.siteId === siteId ? before.byId : {};
      const byId = order.flatMap((id) => {
        const lane = fresh.get(id) ?? known[id];
        return lane ? [[id, lane] as const] : [];
      });
      return { siteId, byId: Object.fromEntries(byId) };
    },
  },
});

export const { lanesJudged } = slice.actions;
export const lanesReducer = slice.reducer;

interface Root extends SiteRoot {
  readonly lanes: Judged;
}
const NO_LANES: Judged['byId'] = {}; // one object: a fresh one would re-render every subscriber

/** Lanes of the open site by camera; one that was just added has none yet. */
export const selectLanesById = (root: Root): Judged['byId'] =>
  root.lanes.siteId === selectSite(root).id ? root.lanes.byId : NO_LANES;

/** Those that are judged, in the order of the site's cameras. */
export const selectLanes = createSelector(
  [(root: Root) => selectSite(root).cameras, selectLanesById],
  (cameras, byId) => cameras.flatMap(({ id }) => byId[id] ?? []),
);
