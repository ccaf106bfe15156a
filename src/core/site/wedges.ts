import type { Point } from '../base/plan-geometry.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Site } from '../document/site.ts';
import { wholeLenses } from '../optics/lens.ts';
import { lensView } from '../optics/lens-view.ts';
import type { WedgeInput } from '../optics/view-wedge.ts';
import { aimOf, lookHeightM, mountingOf, viewThrough } from './needs.ts';

/** Drawn no farther than this beyond what is needed: the plan is about the near. */
const BEYOND = 1.35;
const USUAL_REACH_M = 15;

/** One wedge for each lens of a camera that stands on the plan and has a model; `position` may be one it is dragged to. */
export function wedgeInputsOf(
  site: Pick<Site, 'models' | 'assumptions'>,
  camera: Camera,
  position: Point | null = camera.position,
): readonly WedgeInput[] {
  const model = site.models.find(({ id }) => id === camera.modelId);
  if (!model || !position) return [];
  const { need } = camera;
  const mounting = mountingOf(camera, site.assumptions, model);
  const heightM = lookHeightM(need, site.assumptions);
  return wholeLenses(model).map((lens) => {
    const view = need ? viewThrough(lens, need, mounting, heightM) : lensView(lens, mounting.zoom ?? 1);
    return {
      position,
      headingDeg: mounting.headingDeg,
      view,
      aim: aimOf(mounting),
      heightM,
      maxM: need ? need.distanceM * BEYOND : USUAL_REACH_M,
    };
  });
}
