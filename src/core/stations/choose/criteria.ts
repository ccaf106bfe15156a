import type { Verdict } from '../../base/verdict.ts';
import { type Cell, cellOf, type Facts } from '../../findings/rule.ts';
import type { ChooseFacts } from './choose-facts.ts';
import { CHOOSE_RULES } from './choose-rules.ts';

type F = Facts<ChooseFacts>;

/** What stands in the table beside the questions: it may decide between two, and nobody asked for it. */
interface Aside {
  readonly id: string;
  readonly label: (facts: F) => string;
  /** `undefined` where the card does not say. */
  readonly said: (facts: F) => string | undefined;
  readonly reason: (facts: F) => string;
}

const UNSAID = 'The model card does not say.';

const ASIDES: readonly Aside[] = [
  {
    id: 'picture',
    label: () => 'picture',
    said: ({ pictureSize, fps }) => pictureSize && `${pictureSize}${fps === undefined ? '' : `, ${fps} fps`}`,
    reason: () => 'Pixels of its best lens, frame rate.',
  },
  {
    id: 'zoom',
    label: () => 'optical zoom',
    said: ({ zoomRange }) =>
      zoomRange === undefined ? undefined : zoomRange > 1.001 ? `${zoomRange.toFixed(1)}×` : 'none',
    reason: ({ zoomRange = 1, zoom = 1 }) =>
      zoomRange > 1.001 ? `Set to ${zoom.toFixed(1)}× here.` : 'Digital zoom adds no pixel.',
  },
  {
    id: 'network',
    label: () => 'network',
    said: ({ wired, bands }) =>
      bands &&
      [wired ? 'wired' : null, ...bands.map((band) => (band === 'sub-GHz' ? band : `${band} GHz`))]
        .filter(Boolean)
        .join(', '),
    reason: () => 'How it is connected to the network.',
  },
  {
    id: 'card',
    label: () => 'SD card slot',
    said: ({ cardMaxGB }) => (cardMaxGB === undefined ? undefined : cardMaxGB > 0 ? `${cardMaxGB} GB` : 'none'),
    reason: () => 'The largest SD card that it takes.',
  },
  {
    id: 'cost',
    label: ({ costYears }) => `${costYears ?? ''} years, total cost`,
    said: ({ allInCost, currency }) =>
      allInCost === undefined ? undefined : `${currency ?? ''} ${Math.round(allInCost)}`.trim(),
    reason: () => 'Price, a power supply where none is in the box, and energy.',
  },
];

/** In the order in which one would ask: questions of the rules, and between them what only informs. */
const ORDER = [
  'choose.detail',
  'choose.text',
  'choose.target-out-of-view',
  'choose.face-near',
  'choose.too-steep-for-faces',
  'choose.zone-width',
  'choose.lenses-leave-gap',
  'choose.zone-near',
  'choose.view-beyond-model',
  'choose.light',
  'choose.light-narrower-than-view',
  'picture',
  'choose.gives-other-size',
  'zoom',
  'choose.local-stream',
  'choose.codec-not-taken',
  'choose.sessions',
  'choose.no-sub-stream',
  'choose.weather',
  'choose.no-sound',
  'choose.does-not-turn',
  'choose.no-supply-in-box',
  'network',
  'card',
  'choose.account-features-lost',
  'cost',
] as const;

/** One question over all candidates. */
export interface CriterionRow {
  readonly id: string;
  readonly label: string;
  readonly answers: readonly Cell[];
  /** The candidates do not fare alike in it. */
  readonly decides: boolean;
}

const SPEAKS: ReadonlySet<Verdict> = new Set(['tight', 'will-not-work']);

function rowOf(id: string, candidates: readonly F[]): CriterionRow | null {
  const [first = {}] = candidates;
  const aside = ASIDES.find((one) => one.id === id);
  if (aside) {
    const answers = candidates.map((facts): Cell => {
      const said = aside.said(facts);
      return said === undefined
        ? { said: '–', verdict: 'unknown', reason: UNSAID }
        : { said, verdict: 'ok', reason: aside.reason(facts) };
    });
    return withDecides(id, aside.label(first), answers);
  }
  const rule = CHOOSE_RULES.find((one) => one.id === id);
  if (!rule?.label) throw new RangeError(`${id} is in no table`);
  const cells = candidates.map((facts) => cellOf(rule, facts, UNSAID));
  // A question that one of them is not asked says nothing against it: two lenses that leave no gap, one that has none.
  const answers = cells.map((cell): Cell => cell ?? { said: '–', verdict: 'ok', reason: 'Not asked of this one.' });
  const isAsked = rule.isQuiet
    ? answers.some(({ verdict }) => SPEAKS.has(verdict))
    : cells.every((cell) => cell !== null);
  return isAsked ? withDecides(id, rule.label(first), answers) : null;
}

const withDecides = (id: string, label: string, answers: readonly Cell[]): CriterionRow => ({
  id,
  label,
  answers,
  decides: new Set(answers.map(({ verdict }) => verdict)).size > 1,
});

/** The table of candidates: what sets them apart first, within that in the order of asking. */
export function weigh(candidates: readonly F[]): readonly CriterionRow[] {
  const rows = ORDER.flatMap((id) => rowOf(id, candidates) ?? []);
  return [...rows.filter(({ decides }) => decides), ...rows.filter(({ decides }) => !decides)];
}
