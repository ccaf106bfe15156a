import { expose } from 'comlink';
import type { Wall } from '../../core/base/plan-geometry.ts';
import { viewWedge, type WedgeInput, type WedgeShape } from '../../core/optics/view-wedge.ts';

/** Rays against walls, hundreds of thousands on a large site: beside the page. */
const planWork = {
  wedges: (inputs: readonly WedgeInput[], walls: readonly Wall[]): readonly (readonly WedgeShape[])[] =>
    inputs.map((input) => viewWedge(input, walls)),
};
export type PlanWork = typeof planWork;
expose(planWork);
