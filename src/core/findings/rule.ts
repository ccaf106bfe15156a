import type { Finding, Severity } from './finding.ts';

/** Facts a rule may ask for; a fact that is missing is `undefined`, never a default. */
export type Facts<F> = { readonly [K in keyof F]?: F[K] | undefined };

/**
 * A diagnostic rule as data. `needs` names the facts without which it is not evaluated: an absent fact never passes.
 * Ids are readable, stable and never reused.
 */
export interface Rule<F, N extends keyof F = keyof F> {
  readonly id: string;
  readonly severity: Severity;
  /** The clause or assumption it rests on. */
  readonly source: string;
  readonly needs: readonly N[];
  readonly fails: (facts: Pick<F, N>) => boolean;
  readonly title: (facts: Pick<F, N>) => string;
  readonly because: (facts: Pick<F, N>) => string;
  readonly do: readonly string[];
  readonly why: string;
}

export interface Evaluation {
  readonly findings: readonly Finding[];
  /** Ids of rules whose facts were missing. */
  readonly notEvaluated: readonly string[];
}

/** Gives a rule table its fact types: each rule sees just the facts it names in `needs`, and sees them present. */
export const rulesFor =
  <F>() =>
  <N extends keyof F>(rule: Rule<F, N>): Rule<F> =>
    rule as unknown as Rule<F>; // `needs` is checked by evaluate() before any predicate runs

const ORDER: readonly Severity[] = ['stop', 'fix', 'watch', 'note'];
export const bySeverity = (a: { severity: Severity }, b: { severity: Severity }): number =>
  ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity);

/** Runs rules over facts. It knows no protocol. */
export function evaluate<F>(rules: readonly Rule<F>[], facts: Facts<F>): Evaluation {
  const findings: Finding[] = [];
  const notEvaluated: string[] = [];
  for (const rule of rules) {
    if (rule.needs.some((name) => facts[name] === undefined)) {
      notEvaluated.push(rule.id);
      continue;
    }
    const present = facts as F; // every fact the rule names was just seen to be there
    if (!rule.fails(present)) continue;
    const { id, severity, why } = rule;
    findings.push({ rule: id, severity, title: rule.title(present), because: rule.because(present), do: rule.do, why });
  }
  return { findings: findings.sort(bySeverity), notEvaluated };
}
