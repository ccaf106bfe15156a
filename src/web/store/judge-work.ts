import { NO_SECRETS, type SecretsKnown } from '../../core/document/site-secrets.ts';
import { createEvidenceIndexer } from '../../core/evidence/evidence-index.ts';
import { createLaneReckoner } from '../../core/lanes/lane.ts';
import type { Lane } from '../../core/lanes/lane-types.ts';
import { mendsOf, type SiteMend } from '../../core/lanes/mends.ts';
import { type SiteAction, siteReducer } from './site-slice.ts';

/** What was judged: the lanes that are not as they were, and all of them by id in the order of the site's cameras. */
export interface Judgement {
  readonly siteId: string;
  readonly order: readonly string[];
  readonly changed: readonly Lane[];
}

/**
 * Judges beside the page. It keeps its own copy of the open site and is told what the page was told: the same reducer makes
 * the same site of it, so that no document crosses but when one is opened.
 */
export function createJudgeWork() {
  let state = siteReducer(undefined, { type: 'begin' });
  let index = createEvidenceIndexer();
  let reckon = createLaneReckoner();
  let told: ReadonlyMap<string, Lane> = new Map();
  let secrets = NO_SECRETS;

  const judged = (): Judgement | null => {
    if (state.status !== 'open') return null;
    const lanes = reckon(state.site, index(state.site.journal), secrets);
    const changed = lanes.filter((lane) => told.get(lane.cameraId) !== lane);
    told = new Map(lanes.map((lane) => [lane.cameraId, lane]));
    return { siteId: state.site.id, order: lanes.map(({ cameraId }) => cameraId), changed };
  };
  return {
    act: (action: SiteAction): Judgement | null => {
      const before = state.status === 'open' ? state.site : null;
      state = siteReducer(state, action);
      if (state.status !== 'open' || state.site === before) return null;
      if (state.site.id !== before?.id) {
        index = createEvidenceIndexer();
        reckon = createLaneReckoner();
        told = new Map();
      }
      return judged();
    },
    /** What is known of the secrets in reach; never one of them. */
    know: (known: SecretsKnown): Judgement | null => {
      secrets = known;
      return judged();
    },
    /** What would mend a finding of a camera, tried on this copy. */
    mends: (cameraId: string, rule: string): readonly SiteMend[] => {
      if (state.status !== 'open' || !state.site.cameras.some(({ id }) => id === cameraId)) return [];
      return mendsOf(state.site, index(state.site.journal), cameraId, rule, secrets);
    },
  };
}
export type JudgeWork = ReturnType<typeof createJudgeWork>;
