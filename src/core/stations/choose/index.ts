import { weakMapMemoize } from 'reselect';
import { rememberLast } from '../../base/remember.ts';
import type { Mounting } from '../../document/chapters/cameras/mounting.ts';
import type { Need } from '../../document/chapters/cameras/need.ts';
import type { Costing } from '../../document/chapters/costing/costing.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Site } from '../../document/site.ts';
import { hasAddress } from '../../document/stream-address.ts';
import { mendsOf } from '../../findings/rule.ts';
import type { SiteView } from '../../station/site-view.ts';
import { type Gate, gateStates, type Station } from '../../station/station.ts';
import { type Choice, judgeChoice } from './choice-verdict.ts';
import { chooseFacts } from './choose-facts.ts';
import { chooseOffers } from './choose-offers.ts';
import { CHOOSE_RULES } from './choose-rules.ts';

interface GateFacts {
  readonly hasNeed: boolean;
  readonly hasModel: boolean;
  /** A camera with an address hangs already: what was never written down of it does not hold it back. */
  readonly hasAddress: boolean;
  readonly isStopped: boolean;
}

const GATES: readonly Gate<GateFacts>[] = [
  {
    id: 'choose.need',
    condition: 'What it must show is said',
    holds: (facts) => facts.hasNeed || facts.hasAddress,
    next: () => 'Say what it must show',
  },
  {
    id: 'choose.model',
    condition: 'A model is chosen',
    holds: (facts) => facts.hasModel || facts.hasAddress,
    next: () => 'Choose a model',
  },
  {
    id: 'choose.fits',
    condition: 'Nothing speaks against the model in its place',
    holds: (facts) => !facts.isStopped,
    next: () => 'Take another model, or place it otherwise',
  },
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
  ): Choice => judgeChoice(chooseFacts(need, model, mounting, { destinations, costing, assumptions })),
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
    const { findings, verdict } =
      need && model ? choiceOf(need, model, mounting, drawersOf(view, need), costing, assumptions) : UNSAID;
    const gates = gateStates(GATES, {
      hasNeed: need !== null,
      hasModel: camera.modelId !== null,
      hasAddress: hasAddress(camera),
      isStopped: findings.some(({ severity }) => severity === 'stop'),
    });
    return { verdict, findings, gates, idle: 'Nothing is chosen yet' };
  },
  mends: (camera, rule, view) => {
    const { need, mounting } = camera;
    const model = view.modelOf(camera);
    if (!need || !model) return [];
    const facts = chooseFacts(need, model, mounting, view.site);
    return mendsOf(CHOOSE_RULES, rule, facts, chooseOffers(view.site, camera));
  },
};
