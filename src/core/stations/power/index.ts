import { worstVerdict } from '../../base/verdict.ts';
import { findingsOf, judgeRows, mendsOf, openQuestions, verdictOf } from '../../findings/rule.ts';
import type { SiteView } from '../../site/site-view.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';
import { type PlannedFacts, plannedFacts, saidGate, stopGate } from '../planned-gates.ts';
import { PowerJudge } from './power-judgement.ts';
import { powerOffers } from './power-offers.ts';
import { POWER_RULES } from './power-rules.ts';
import { WANTED_RULES, wantedFor } from './power-wanted.ts';

export { gearFindings } from './gear-findings.ts';
export { PowerJudge, type PowerJudgement } from './power-judgement.ts';
export { feedsIn, type RunNumbers, takenBy, WIRE_SIZES_MM2 } from './power-numbers.ts';
export { movedTo } from './power-offers.ts';

interface GateFacts extends PlannedFacts {
  readonly hasFeed: boolean;
  /** Its way of power needs a link to what feeds it, and there is none. */
  readonly lacksFeeder: boolean;
  /** What its own card and place lack for a verdict, most wanted first. */
  readonly wanted: readonly string[];
}

const GATES: readonly Gate<GateFacts>[] = [
  saidGate({
    id: 'power.way',
    condition: 'A power source is planned',
    holds: ({ hasFeed }) => hasFeed,
    next: () => 'Plan its power source',
  }),
  saidGate({
    id: 'power.joined',
    condition: 'It is linked to its power source',
    holds: ({ lacksFeeder }) => !lacksFeeder,
    next: () => 'Link it to its power source',
  }),
  saidGate({
    id: 'power.known',
    condition: 'All figures for power and links are known',
    holds: ({ wanted }) => wanted.length === 0,
    next: ({ wanted }) => `Enter ${wanted[0]}`,
  }),
  stopGate('power.holds', 'Power and links hold', 'Fix its power and links'),
];

/** Ways of power that come over a wire from gear of the plan. */
const FROM_GEAR: ReadonlySet<string> = new Set(['poe', 'passive', 'dc', 'usb']);

/** The one judge of a document: what hangs on the same gear hangs together, and is added up once. */
export const powerJudgeOf = (view: SiteView): PowerJudge => view.once(createPowerJudge);
const createPowerJudge = (view: SiteView): PowerJudge => new PowerJudge(view);

export const POWER: Station<'power'> = {
  id: 'power',
  name: 'Power',
  rules: POWER_RULES,
  gates: GATES,
  judge: (camera, view) => {
    const { facts, feedLink } = powerJudgeOf(view).judge(camera);
    const found = judgeRows(POWER_RULES, facts);
    const lacksFeeder = camera.feed !== null && FROM_GEAR.has(camera.feed.way) && feedLink === null;
    const isUnsaid = camera.feed === null || lacksFeeder;
    // Until it is said what feeds it, nothing else is asked for; and a verdict that stands already waits for nothing.
    const { own, others } =
      isUnsaid || verdictOf(found) !== 'unknown'
        ? { own: [], others: [] }
        : wantedFor(found, facts.silentBeside ?? [], view.modelOf(camera) !== undefined);
    const rows = [...found, ...judgeRows(WANTED_RULES, { wanted: own, silentBeside: others })];
    const findings = findingsOf(rows);
    const gates = gateStates(GATES, {
      hasFeed: camera.feed !== null,
      lacksFeeder,
      wanted: own,
      ...plannedFacts(camera, findings),
    });
    const verdict = isUnsaid ? worstVerdict(['unknown', verdictOf(rows)]) : verdictOf(rows);
    return { verdict, findings, open: openQuestions(rows), gates, idle: 'No power source planned yet' };
  },
  mends: (camera, rule, view) => {
    const judge = powerJudgeOf(view);
    return mendsOf(POWER_RULES, rule, judge.judge(camera).facts, powerOffers(view, judge, camera));
  },
};
