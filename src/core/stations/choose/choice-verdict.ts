import type { Verdict } from '../../base/verdict.ts';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, type Row, verdictOf } from '../../findings/rule.ts';
import type { ChooseFacts } from './choose-facts.ts';
import { CHOOSE_RULES } from './choose-rules.ts';

/** How a model serves a place, and why not. */
export interface Choice {
  readonly rows: readonly Row[];
  readonly findings: readonly Finding[];
  /** Not known where the card does not say what the place asks for; what surely fails is told before that. */
  readonly verdict: Verdict;
}

export function judgeChoice(facts: Facts<ChooseFacts>): Choice {
  const rows = judgeRows(CHOOSE_RULES, facts);
  return { rows, findings: findingsOf(rows), verdict: verdictOf(rows) };
}
