import { weakMapMemoize } from 'reselect';
import { rememberLast } from '../../base/remember.ts';
import type { Mounting } from '../../document/chapters/cameras/mounting.ts';
import type { Need } from '../../document/chapters/cameras/need.ts';
import type { Costing } from '../../document/chapters/costing/costing.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Site } from '../../document/site.ts';
import { mendsOf, openQuestions } from '../../findings/rule.ts';
import type { SiteView } from '../../site/site-view.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';
import { type PlannedFacts, plannedFacts, saidGate, stopGate } from '../planned-gates.ts';
import { type Choice, judgeChoice } from './choice-verdict.ts';
import { chooseFacts } from './choose-facts.ts';
import { chooseOffers } from './choose-offers.ts';
import { CHOOSE_RULES } from './choose-rules.ts';
import { type SeenStream, seenStreamOf } from './seen-stream.ts';

export { judgeChoice } from './choice-verdict.ts';
export { type ChooseFacts, chooseFacts } from './choose-facts.ts';
export { weigh } from './criteria.ts';
export { dearerWorthIt } from './dearer.ts';
export { modelAsSeen, type SeenStream, seenStreamOf } from './seen-stream.ts';

interface GateFacts extends PlannedFacts {
  readonly hasNeed: boolean;
  readonly hasModel: boolean;
}

const GATES: readonly Gate<GateFacts>[] = [
  saidGate({
    id: 'choose.need',
    condition: 'The need is entered',
    holds: ({ hasNeed }) => hasNeed,
    next: () => 'Enter what it must show',
  }),
  saidGate({
    id: 'choose.model',
    condition: 'A model card is chosen',
    holds: ({ hasModel }) => hasModel,
    next: () => 'Choose a model card',
  }),
  stopGate(
    'choose.fits',
    'No open findings about the model in its place',
    'Choose another model, or place it differently',
  ),
];

/** Without a need or a model there is nothing to judge. */
const UNSAID: Choice = { rows: [], findings: [], verdict: 'unknown' };

/** Worked out again only when one of these is another object: a lens costs some trigonometry. */
const choiceOf = weakMapMemoize(
  (
    need: Need,
    model: Model,
    mounting: Mounting | null,
    destinations: readonly Destination[],
    costing: Costing,
    assumptions: Site['assumptions'],
    seen: SeenStream | null,
  ): Choice => judgeChoice(chooseFacts(need, model, mounting, { destinations, costing, assumptions }, seen)),
);

/** The destinations that a need names, as one list while they are the same: what becomes of others is nothing to it. */
const listOf = rememberLast((_: Need, ...drawers: readonly Destination[]): readonly Destination[] => drawers);
const drawersOf = (view: SiteView, need: Need): readonly Destination[] =>
  listOf(need, ...need.draws.flatMap(({ destinationId }) => view.destination(destinationId) ?? []));

export const CHOOSE: Station<'choose'> = {
  id: 'choose',
  name: 'Choose',
  rules: CHOOSE_RULES,
  gates: GATES,
  judge: (camera, view) => {
    const { need, mounting } = camera;
    const { costing, assumptions } = view.site;
    const model = view.modelOf(camera);
    const { rows, findings, verdict } =
      need && model
        ? choiceOf(
            need,
            model,
            mounting,
            drawersOf(view, need),
            costing,
            assumptions,
            seenStreamOf(camera, view.factsOf),
          )
        : UNSAID;
    const gates = gateStates(GATES, {
      hasNeed: need !== null,
      hasModel: camera.modelId !== null,
      ...plannedFacts(camera, findings),
    });
    return { verdict, findings, open: openQuestions(rows), gates, idle: 'No model chosen yet' };
  },
  mends: (camera, rule, view) => {
    const { need, mounting } = camera;
    const model = view.modelOf(camera);
    if (!need || !model) return [];
    const seen = seenStreamOf(camera, view.factsOf);
    const facts = chooseFacts(need, model, mounting, view.site, seen);
    return mendsOf(CHOOSE_RULES, rule, facts, chooseOffers(view.site, camera, seen));
  },
};
