import type { Verdict } from '../base/verdict.ts';
import { OPTIONS, type Option, WRITES } from './options.ts';

/** What is weighed, and how much: sums to 1 [A]. */
export const CRITERIA = [
  { id: 'control', label: 'stream without the maker', weight: 0.25 },
  { id: 'reliability', label: 'updates and reliability', weight: 0.2 },
  { id: 'picture', label: 'picture fits the need', weight: 0.2 },
  { id: 'money', label: 'money', weight: 0.15 },
  { id: 'time', label: 'time', weight: 0.1 },
  { id: 'wayBack', label: 'way back', weight: 0.1 },
] as const;
export type CriterionId = (typeof CRITERIA)[number]['id'];

export interface DecisionFacts {
  /** It gives a stream on this network with the firmware that it has; `null` when nobody knows. */
  readonly givesStream: boolean | null;
  /** Of its picture in its place, by Choose. */
  readonly picture: Verdict;
  /** How many things are gone without the maker; `null` when nobody looked. */
  readonly lost: number | null;
  readonly hasSideBranch: boolean | null;
  /** The image of before is kept, or its absence was accepted. */
  readonly wayBack: 'stored' | 'accepted' | null;
  /** Something brings it back when a card does not. */
  readonly hasRescue: boolean | null;
  /** All four marks of its board are known. */
  readonly marksKnown: boolean;
  readonly isOwn: boolean | null;
  readonly isOnlyOne: boolean | null;
  readonly hasMainsInside: boolean | null;
}

/** A number from 0 (bad) to 1 (good), and why. `value` is `null` where nobody knows: it counts as half. */
export interface Weighed {
  readonly value: number | null;
  readonly why: string;
}

const FIT: Readonly<Record<Verdict, number | null>> = { ok: 1, tight: 0.6, 'will-not-work': 0, unknown: null };
const FIT_WORDS: Readonly<Record<Verdict, string>> = {
  ok: 'its picture fits',
  tight: 'its picture is tight',
  'will-not-work': 'its picture does not fit',
  unknown: 'whether its picture fits is not known',
};
const w = (value: number | null, why: string): Weighed => ({ value, why });
/** [A] How much is gone, from one thing on. */
const afterLoss = (lost: number | null, best: number): Weighed =>
  lost === null
    ? w(null, 'what is lost is not known')
    : w(Math.max(0, best - 0.1 * lost), lost === 0 ? 'nothing is lost' : `${lost} of its functions are lost`);

/** How an option stands by each criterion [A]. */
function weighOption(option: Option, f: DecisionFacts): Readonly<Record<CriterionId, Weighed>> {
  const sameLens = w(FIT[f.picture], FIT_WORDS[f.picture]);
  const back =
    f.wayBack === 'stored'
      ? w(0.7, 'the original firmware file is kept')
      : f.hasRescue === true
        ? w(0.4, 'a recovery loader is known')
        : f.wayBack === 'accepted'
          ? w(0, 'there is no way back, and that was accepted')
          : w(null, 'nobody has said what the way back is');
  switch (option) {
    case 'keep':
      return {
        control:
          f.givesStream === null
            ? w(null, 'whether it gives a stream is not known')
            : w(f.givesStream ? 1 : 0, f.givesStream ? 'it gives a stream already' : 'it gives none'),
        reliability: w(0.9, 'updates go on'),
        picture: sameLens,
        money: w(1, 'nothing is bought'),
        time: w(1, 'nothing is done'),
        wayBack: w(1, 'nothing is changed'),
      };
    case 'side-branch':
      return {
        control:
          f.hasSideBranch === null
            ? w(null, 'whether its maker offers RTSP firmware is not known')
            : w(
                f.hasSideBranch ? 0.9 : 0,
                f.hasSideBranch ? 'its maker offers RTSP firmware' : 'its maker offers none',
              ),
        reliability: afterLoss(f.lost, 0.7),
        picture: sameLens,
        money: w(1, 'nothing is bought'),
        time: w(0.6, 'an hour on the bench'),
        wayBack: back,
      };
    case 'community':
      return {
        control: w(1, 'it is made for that'),
        reliability: afterLoss(f.lost, 0.6),
        picture: sameLens,
        money: w(0.9, 'an SD card'),
        time: w(0.4, 'two hours on the bench, and each update by hand'),
        wayBack: back,
      };
    case 'replace':
      return {
        control: w(1, 'one is chosen that gives a stream'),
        reliability: w(0.9, 'updates, and a warranty'),
        picture: w(1, 'one is chosen that fits'),
        money: w(0.1, 'a camera is bought'),
        time: w(0.6, 'it is mounted again'),
        wayBack: w(1, 'the old one is kept as a spare'),
      };
  }
}

export interface Scored {
  readonly option: Option;
  readonly score: number;
  readonly byCriterion: Readonly<Record<CriterionId, Weighed>>;
  /** What speaks against it whatever its score; nothing is written while one of these stands. */
  readonly vetoes: readonly string[];
  /** Questions that could be one, and that nobody answered. */
  readonly open: readonly string[];
}

/** [A] What nobody knows counts as half. */
const UNKNOWN_VALUE = 0.5;
/** [A] A lead below this is none: then it stays as it is. */
const LEAD = 0.1;

/** Reasons not to write another image, as far as they are known. [A]. */
function vetoesOf(f: DecisionFacts): readonly string[] {
  return [
    ...(f.isOwn === false ? ['It is not the customer’s to change.'] : []),
    ...(f.hasMainsInside === true ? ['Mains inside the case: work for a licensed electrician only.'] : []),
    ...(f.isOnlyOne === true ? ['It is the only camera at a place that must be covered.'] : []),
    ...(f.marksKnown ? [] : ['Its hardware revision is not confirmed by all four board markings.']),
    ...(f.wayBack === null && f.hasRescue !== true ? ['No backup and no recovery loader.'] : []),
  ];
}

/** What must be answered before anything is written, and was not. */
const openVetoesOf = (f: DecisionFacts): readonly string[] => [
  ...(f.isOwn === null ? ['Whether it belongs to the customer is not known.'] : []),
  ...(f.hasMainsInside === null ? ['Whether mains voltage is inside its case is not known.'] : []),
  ...(f.isOnlyOne === null ? ['Whether it is the only camera at its place is not known.'] : []),
];

export interface Decision {
  readonly scored: readonly Scored[];
  readonly best: Option;
  /** Nothing leads by enough to leave it: `best` is then to keep it, whatever the scores. */
  readonly isClose: boolean;
}

/**
 * Scores what can be done: the sum of weight times value, 0 to 1.
 * Source: [A]; a lead of 0.10 decides; within it that which can be taken back goes first, and keeping it before all.
 */
export function decide(facts: DecisionFacts): Decision {
  const vetoes = vetoesOf(facts);
  const open = openVetoesOf(facts);
  const scored = OPTIONS.map((option): Scored => {
    const byCriterion = weighOption(option, facts);
    const score = CRITERIA.reduce((sum, { id, weight }) => sum + weight * (byCriterion[id].value ?? UNKNOWN_VALUE), 0);
    if (!WRITES.has(option)) return { option, score, byCriterion, vetoes: [], open: [] };
    // what is not there cannot be installed
    const none =
      option === 'side-branch' && facts.hasSideBranch === false ? ['Its maker offers no RTSP firmware.'] : [];
    return { option, score, byCriterion, vetoes: [...none, ...vetoes], open };
  });
  const free = scored.filter((one) => one.vetoes.length === 0).toSorted((a, b) => b.score - a.score);
  const [first, second] = free;
  const isClear = first !== undefined && (second === undefined || first.score - second.score >= LEAD - EXACT);
  if (first && isClear) return { scored, best: first.option, isClose: false };
  // A closer call goes to what can be taken back, and leaves it as it is, unless it is of no use as it is.
  if (facts.givesStream !== false || !first) return { scored, best: 'keep', isClose: true };
  const near = free.filter(({ option, score }) => option !== 'keep' && first.score - score < LEAD - EXACT);
  const [best = first] = near.toSorted((a, b) => wayBackOf(b) - wayBackOf(a) || b.score - a.score);
  return { scored, best: best.option, isClose: true };
}

const EXACT = 1e-9;
/** How far it can be taken back: money that was spent cannot. */
const wayBackOf = ({ byCriterion: { wayBack, money } }: Scored): number =>
  Math.min(wayBack.value ?? UNKNOWN_VALUE, money.value ?? UNKNOWN_VALUE);
