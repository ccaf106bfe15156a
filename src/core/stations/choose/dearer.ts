import type { Facts } from '../../findings/rule.ts';
import { judgeChoice } from './choice-verdict.ts';
import type { ChooseFacts } from './choose-facts.ts';
import { weigh } from './criteria.ts';

type F = Facts<ChooseFacts>;

/** Whether more money buys what the place asks for, in words. */
export interface DearerAnswer {
  readonly kind: 'worth-it' | 'buys-nothing' | 'cheapest-serves' | 'none-serves' | 'not-known';
  /** Index of the candidate it speaks for; `null` when none serves. */
  readonly index: number | null;
  readonly title: string;
  readonly because: string;
}

const SERVES: ReadonlySet<string> = new Set(['ok', 'tight']);

/**
 * Answers “is the dearer one worth it here?”: of those that serve, the best at the least cost, against the cheapest of all.
 * `null` with fewer than two candidates.
 */
export function dearerWorthIt(candidates: readonly F[]): DearerAnswer | null {
  if (candidates.length < 2) return null;
  const costOf = (at: number): number => candidates[at]?.allInCost ?? Number.POSITIVE_INFINITY;
  const nameOf = (at: number): string => candidates[at]?.model ?? '';
  const all = candidates.map((_, at) => at).sort((a, b) => costOf(a) - costOf(b));
  const verdicts = candidates.map((facts) => judgeChoice(facts).verdict);
  const serving = all.filter((at) => SERVES.has(verdicts[at] ?? ''));
  const fitting = serving.filter((at) => verdicts[at] === 'ok');
  const best = fitting[0] ?? serving[0];
  const cheapest = all[0];
  if (cheapest === undefined) return null;
  const rows = weigh(candidates);
  if (best === undefined && verdicts.includes('unknown'))
    return {
      kind: 'not-known',
      index: null,
      title: 'None is known to meet the need',
      because: 'Some model cards do not say what the need asks for: complete them first.',
    };
  if (best === undefined) {
    const missed = rows
      .filter(({ answers }) => answers.every(({ verdict }) => verdict === 'will-not-work'))
      .map(({ label }) => label);
    return {
      kind: 'none-serves',
      index: null,
      title: 'None meets the need',
      because:
        missed.length > 0 ? `All fail at: ${missed.join(', ')}.` : 'Each fails at something that the need asks for.',
    };
  }
  if (!Number.isFinite(costOf(best)))
    return {
      kind: 'not-known',
      index: best,
      title: `${nameOf(best)} meets the need; its price is not known`,
      because: 'Enter it in its model card, and it is compared with the others.',
    };
  const extra = costOf(best) - costOf(cheapest);
  const money = (amount: number): string => `${candidates[best]?.currency ?? ''} ${Math.round(amount)}`.trim();
  const over = candidates[best]?.costYears;
  if (best === cheapest || extra <= 0.5)
    return {
      kind: 'cheapest-serves',
      index: best,
      title: `${nameOf(best)} meets the need at the lowest cost`,
      because: 'A dearer one adds nothing that the need asks for.',
    };
  // Against the cheapest that comes nearest: that is the one somebody would have bought.
  const rival = all.filter((at) => costOf(at) < costOf(best)).at(-1) ?? cheapest;
  const won = rows.filter(
    ({ answers }) => SERVES.has(answers[best]?.verdict ?? '') && answers[rival]?.verdict === 'will-not-work',
  );
  if (won.length === 0 && !serving.includes(rival))
    return {
      kind: 'not-known',
      index: best,
      title: `${nameOf(best)} meets the need; too little is known of ${nameOf(rival)}`,
      because: 'Complete its model card: what is missing may decide.',
    };
  if (won.length === 0)
    return {
      kind: 'buys-nothing',
      index: rival,
      title: `${nameOf(best)} fits better, ${nameOf(rival)} meets the need too`,
      because: `It costs ${money(costOf(best) - costOf(rival))} more over ${over} years, and gains only room to spare.`,
    };
  const gains = won.map(({ label, answers }) => `${label}: ${answers[best]?.said} against ${answers[rival]?.said}`);
  return {
    kind: 'worth-it',
    index: best,
    title: `${nameOf(best)} is worth it here`,
    because: `${gains.join('; ')}. It costs ${money(costOf(best) - costOf(rival))} more over ${over} years than ${nameOf(rival)}.`,
  };
}
