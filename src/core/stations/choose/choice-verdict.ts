import type { Verdict } from '../../base/verdict.ts';
import type { Finding } from '../../findings/finding.ts';
import { evaluate, type Facts } from '../../findings/rule.ts';
import type { ChooseFacts } from './choose-facts.ts';
import { CHOOSE_RULES } from './choose-rules.ts';

type F = Facts<ChooseFacts>;

/** What a place asks of a model card: where the first holds, the card must say the second. */
const ASKED: readonly (readonly [(facts: F) => unknown, readonly (keyof ChooseFacts)[]])[] = [
  [(f) => f.wantedPxPerM !== undefined, ['pxPerM']],
  [(f) => f.charHeightMm !== undefined, ['textPxPerM']],
  [() => true, ['viewWidthM', 'seenFromM', 'localStream']],
  [(f) => f.atNight, ['lightKind', 'lightReachM']],
  [(f) => f.sessionsWanted, ['codecs', 'missedBy', 'sessions']],
  [(f) => f.wantsSub, ['hasSub']],
  [(f) => f.outdoors, ['ingress']],
  [(f) => f.soundWanted !== undefined && f.soundWanted !== 'none', ['sound']],
  [(f) => f.turnsWanted, ['panRangeDeg']],
];

/** How a model serves a place, and why not. */
export interface Choice {
  readonly findings: readonly Finding[];
  /** Not known where the card does not say what the place asks for; what surely fails is told before that. */
  readonly verdict: Verdict;
}

export function judgeChoice(facts: F): Choice {
  const { findings } = evaluate(CHOOSE_RULES, facts);
  const has = (severity: Finding['severity']): boolean => findings.some((finding) => finding.severity === severity);
  const isSilent = ASKED.some(([asks, needs]) => asks(facts) && needs.some((fact) => facts[fact] === undefined));
  return { findings, verdict: has('stop') ? 'will-not-work' : isSilent ? 'unknown' : has('fix') ? 'tight' : 'ok' };
}
