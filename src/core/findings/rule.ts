import type { AssumptionId } from '../assumptions/assumptions.ts';
import { isWorse, type Verdict } from '../base/verdict.ts';
import { bySeverity, type Finding, type Mend, type Severity } from './finding.ts';

/** Facts a rule may ask for; a fact that is missing is `undefined`, never a default. */
export type Facts<F> = { readonly [K in keyof F]?: F[K] | undefined };

/** What a rule sees: the facts that it needs, present, and the others as far as they are known. */
type Seen<F, N extends keyof F> = Pick<F, N> & Facts<F>;

/** What a rule says when its verdict is not ok. */
export interface Saying<P> {
  /** Where one verdict spans two: uneven packets are watched at first. */
  readonly severity: Severity | ((facts: P) => Severity);
  readonly title: (facts: P) => string;
  readonly because: (facts: P) => string;
  /** What to do, a sentence each. */
  readonly do: readonly string[] | ((facts: P) => readonly string[]);
}

/** What every rule has, whatever its verdicts. */
interface Question<F, N extends keyof F, O, C> {
  /** Readable, stable and never reused (`RETIRED_RULES`). */
  readonly id: string;
  /** What it asks, as one would say it. */
  readonly question: string;
  /** The assumptions of the site that it is judged by. Other limits stand in its source. */
  readonly limits?: readonly AssumptionId[];
  /** The clause or assumption it rests on. */
  readonly source: string;
  /** Facts without which it is not evaluated: then its verdict is not known, and never ok. */
  readonly needs: readonly N[];
  /** Whether the question is asked at all. Sees what is known, which may be nothing; always asked where absent. */
  readonly asks?: (facts: Facts<F>) => boolean;
  /** The name of its row in a table; a rule without one stands in none. */
  readonly label?: (facts: Facts<F>) => string;
  /** What its cell says. */
  readonly said?: (facts: Seen<F, N>) => string;
  /** What stands behind the cell, where all is well too. */
  readonly reason?: (facts: Seen<F, N>) => string;
  /** It stands in the table only where it says something. */
  readonly isQuiet?: true;
  /** Remedies that core can carry out, the likeliest first. */
  readonly mends?: (facts: Seen<F, N>, offers: O) => readonly Mend<C>[];
  readonly why: string;
}

/**
 * One question asked of one thing, as data. A table's cell, a finding and a station's verdict are read from its row.
 * @typeParam O what could be changed, for mends: asked only when somebody looks at a finding
 */
export interface Rule<F, N extends keyof F = keyof F, O = never, C = never> extends Question<F, N, O, C> {
  readonly judge: (facts: Seen<F, N>) => Verdict;
  /** What it says of each verdict; of `unknown`, where all that it needs is there and decides nothing. */
  readonly when: { readonly [V in Exclude<Verdict, 'ok'>]?: Saying<Seen<F, N>> };
}

type Never<T> = { readonly [K in keyof T]?: never };
/** A question that is answered by yes or no: what it says stands in the row itself. */
type FlatRule<F, N extends keyof F, O, C> = Question<F, N, O, C> &
  Saying<Seen<F, N>> &
  Never<Pick<Rule<F>, 'judge' | 'when'>> &
  (
    | { readonly fails: (facts: Seen<F, N>) => boolean; readonly isTight?: never }
    | { readonly isTight: (facts: Seen<F, N>) => boolean; readonly fails?: never }
  );
type NestedRule<F, N extends keyof F, O, C> = Rule<F, N, O, C> &
  Never<Saying<F>> & { readonly fails?: never; readonly isTight?: never };

const NOTHING: readonly never[] = [];

/** A rule's answer about one thing. */
export interface Row {
  readonly rule: string;
  readonly question: string;
  /** Of the question alone: what the cell shows. */
  readonly verdict: Verdict;
  readonly finding: Finding | null;
  /** Facts that it needs and that nobody knows. */
  readonly missing: readonly string[];
  /** Whether it counts for the whole: what is only watched or noted makes nothing fit less. */
  readonly weighs: boolean;
}

/** The row of what failed before any rule could ask. */
export const failedRow = (finding: Finding): Row => ({
  rule: finding.rule,
  question: 'Does it respond as it should?',
  verdict: 'will-not-work',
  finding,
  missing: NOTHING,
  weighs: true,
});

/** A row as a table shows it. */
export interface Cell {
  readonly verdict: Verdict;
  readonly said: string;
  readonly reason: string;
}

/** Verdicts of a question that is answered by yes or no. */
export const tightIf = (holds: boolean): Verdict => (holds ? 'tight' : 'ok');
export const failsIf = (holds: boolean): Verdict => (holds ? 'will-not-work' : 'ok');

/**
 * Gives a rule table its fact types: each rule sees the facts it names in `needs` present. A flat row becomes a rule with
 * its one verdict.
 */
export const rulesFor =
  <F, O = never, C = never>() =>
  <N extends keyof F>(row: FlatRule<F, N, O, C> | NestedRule<F, N, O, C>): Rule<F, keyof F, O, C> =>
    nested(row) as unknown as Rule<F, keyof F, O, C>; // `needs` is checked by judgeRow() before any function of the rule runs

function nested<F, N extends keyof F, O, C>(row: FlatRule<F, N, O, C> | NestedRule<F, N, O, C>): Rule<F, N, O, C> {
  if (row.judge) return row;
  const { fails, isTight, severity, title, because, do: remedies, ...question } = row;
  const saying: Saying<Seen<F, N>> = { severity, title, because, do: remedies };
  return fails
    ? { ...question, judge: (facts) => failsIf(fails(facts)), when: { 'will-not-work': saying } }
    : { ...question, judge: (facts) => tightIf(isTight(facts)), when: { tight: saying } };
}

/** Any rule of these facts, whatever its mends are made from. */
export type AnyRule<F> = Rule<F, keyof F, never, unknown>;

const isGrave = (severity: unknown): boolean => severity !== 'caution' && severity !== 'note';

/** The row of one rule; `null` when its question is not asked. */
export function judgeRow<F>(rule: AnyRule<F>, facts: Facts<F>): Row | null {
  if (rule.asks && !rule.asks(facts)) return null;
  // asked of every rule of every camera at every edit: lists are made only where something is missing
  if (!rule.needs.every((name) => facts[name] !== undefined)) {
    const missing = rule.needs.filter((name) => facts[name] === undefined).map(String);
    const weighs = Object.values(rule.when).some(({ severity }) => isGrave(severity));
    return { rule: rule.id, question: rule.question, verdict: 'unknown', finding: null, missing, weighs };
  }
  const present = facts as F & Facts<F>; // every fact the rule names was just seen to be there
  const verdict = rule.judge(present);
  const saying = verdict === 'ok' ? undefined : rule.when[verdict];
  const { id, question, why } = rule;
  if (!saying) return { rule: id, question, verdict, finding: null, missing: NOTHING, weighs: true };
  const finding: Finding = {
    rule: id,
    severity: typeof saying.severity === 'function' ? saying.severity(present) : saying.severity,
    title: saying.title(present),
    because: saying.because(present),
    do: typeof saying.do === 'function' ? saying.do(present) : saying.do,
    why,
  };
  return {
    rule: id,
    question,
    verdict,
    finding,
    missing: NOTHING,
    weighs: verdict === 'unknown' || isGrave(finding.severity),
  };
}

const NOT_SAID = '–';
/** What a table shows of a rule; `null` when its question is not asked. `unsaid` is the reason where facts are missing. */
export function cellOf<F>(rule: AnyRule<F>, facts: Facts<F>, unsaid: string): Cell | null {
  const row = judgeRow(rule, facts);
  if (!row) return null;
  const { verdict, finding, missing } = row;
  if (missing.length > 0) return { verdict, said: NOT_SAID, reason: unsaid };
  const present = facts as F & Facts<F>; // as judgeRow() saw
  return {
    verdict,
    said: rule.said?.(present) ?? finding?.title ?? 'yes',
    reason: rule.reason?.(present) ?? finding?.because ?? rule.source,
  };
}

/** The rows of all rules whose question is asked. It knows no protocol. */
export function judgeRows<F>(rules: readonly AnyRule<F>[], facts: Facts<F>): readonly Row[] {
  const rows: Row[] = [];
  for (const rule of rules) {
    const row = judgeRow(rule, facts);
    if (row) rows.push(row);
  }
  return rows;
}

export function findingsOf(rows: readonly Row[]): readonly Finding[] {
  const findings: Finding[] = [];
  for (const { finding } of rows) if (finding) findings.push(finding);
  return findings.sort(bySeverity);
}

/** What rows amount to; of none, ok: nothing was asked. */
export function verdictOf(rows: readonly Row[]): Verdict {
  let worst: Verdict = 'ok';
  for (const { weighs, verdict } of rows) if (weighs && isWorse(verdict, worst)) worst = verdict;
  return worst;
}

/** Questions that nobody can answer yet, and no finding speaks of. */
export function openQuestions(rows: readonly Row[]): readonly string[] {
  const open: string[] = [];
  for (const { verdict, weighs, finding, question } of rows)
    if (verdict === 'unknown' && weighs && !finding) open.push(question);
  return open;
}

/** The remedies of a finding that core can carry out, from the row that found it. */
export function mendsOf<F, O, C>(
  rules: readonly Rule<F, keyof F, O, C>[],
  ruleId: string,
  facts: Facts<F>,
  offers: O,
): readonly Mend<C>[] {
  const rule = rules.find(({ id }) => id === ruleId);
  const isFound = rule && judgeRow(rule, facts)?.finding;
  return isFound ? (rule.mends?.(facts as F & Facts<F>, offers) ?? []) : []; // it was evaluated: its facts are there
}

/** Ids that rules had before, and no rule may have again: what somebody kept under them means what it meant. */
export const RETIRED_RULES = [
  'video.open-groups',
  'video.groups-uneven',
  'prepare.handset-heat',
  'prepare.handset-screen',
  'prepare.handset-restart',
  'prepare.handset-mac',
  'prepare.handset-howl',
  'prepare.handset-way',
  'prepare.handset-lens',
  'prepare.handset-dark',
  'prepare.handset-loop',
  'prepare.lamps-alike',
  'prepare.card-partition',
  'prepare.card-file-system',
  'prepare.card-room',
  'prepare.card-name',
  'prepare.card',
  'prepare.image-marks',
  'prepare.image-label',
  'prepare.image-version',
  'prepare.image-hash',
  'prepare.image',
  'prepare.account-blank',
  'prepare.secret-known',
  'prepare.secret-shared',
  'prepare.secret-administrators',
  'prepare.secret-blank',
  'prepare.secret-case',
  'prepare.secret-refused',
  'prepare.secret-encoded',
  'prepare.secret-weak',
  'power.way-not-offered',
  'power.feeder-feeds-nothing',
  'power.battery-drawn-all-day',
  'power.handset-unlimited',
  'power.handset-hot',
  'power.handset-swollen',
  'network.pool-holds-gateway',
  'network.pool',
  'address.static-in-pool',
  'address.reach',
  'address.search-across',
  'address.look-in',
  'address.forward-in-vain',
  'address.opens-by-itself',
  'address.forwarded',
  'tap.secret-readable',
  'tap.no-steering',
  'tap.seats',
  'head.stop-lost',
  'head.timeout-ignored',
  'head.round',
  'sessions.goodbye',
  'onvif.steered-by-time',
  'onvif.head-tells-nothing',
  'tls.other-name',
  'onvif.tls.other-name',
  'rtp.loss-heavy',
  'rtp.jitter-heavy',
  'choose.detail-short',
  'choose.detail-tight',
  'choose.text-unreadable',
  'choose.text-guessed',
  'choose.zone-in-blind-spot',
  'choose.zone-begins-unseen',
  'choose.zone-wider-than-view',
  'choose.zone-edge-cut-off',
  'choose.no-light',
  'choose.light-ends-before-target',
  'choose.light-tight-on-dark-ground',
  'choose.account-only',
  'choose.after-reflash',
  'choose.sessions-short',
  'choose.sessions-all-taken',
  'choose.not-weatherproof',
  'choose.roof-wanted',
  'power.switch-over-budget',
  'power.switch-nearly-full',
  'power.cable-dead',
  'power.cable-long',
  'power.run-starves',
  'power.run-tight',
  'power.winter-fails',
  'power.winter-tight',
  'air.signal-lost',
  'air.signal-weak',
  'air.airtime-full',
  'air.airtime-tight',
  'link.over',
  'link.tight',
  'tap.sessions-over',
  'tap.sessions-all-used',
  'storage.retention-short',
  'storage.retention-tight',
] as const;
