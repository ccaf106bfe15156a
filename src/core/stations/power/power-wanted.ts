import type { SiteCommand } from '../../document/site-commands.ts';
import { type Row, rulesFor } from '../../findings/rule.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';

const WATTS = 'what it takes by day and at night, W, in its model card';

/** What somebody would have to enter so that a fact is known, as one would ask for it. */
const WORDS: { readonly [K in keyof PowerFacts]?: string } = {
  waysOffered: 'the ways of power that its model card names',
  isUnderPowered: 'its class and what it takes at night, in its model card',
  cableVerdict: WATTS,
  runVerdict: WATTS,
  minVolts: 'the lowest voltage of its input, in its model card',
  maxVolts: 'the highest voltage of its input, in its model card',
  latitudeKnown: 'its panel and its battery',
  shortMonths: 'what it takes by day, at night and waiting, W, in its model card',
  autonomyDays: 'what it takes by day, at night and waiting, W, in its model card',
  hoursOnConstantDraw: 'what it takes by day, at night and waiting, W, in its model card',
  bandsOffered: 'the radio bands of its model card',
  rssiDbm: 'its signal, or where it and its access point stand on the plan',
};

/** The same of what hangs beside it: it waits for others, and is asked of them. */
const OF_OTHERS: { readonly [K in keyof PowerFacts]?: string } = {
  reservedW: 'what everything on its feeder takes, W, in their model cards',
  supplyLoadA: 'what everything on its supply takes, W, in their model cards',
};

/** What is missing for a verdict, in the order in which one would enter it. */
export interface Wanted {
  readonly own: readonly string[];
  readonly ofOthers: readonly string[];
}

/** Rows that weigh nothing ask for nothing. */
export function wantedFor(rows: readonly Row[]): Wanted {
  const missing = rows.filter(({ weighs }) => weighs).flatMap((row) => row.missing);
  const wordsOf = (words: typeof WORDS): readonly string[] => [
    ...new Set(missing.flatMap((fact) => words[fact as keyof PowerFacts] ?? [])),
  ];
  return { own: wordsOf(WORDS), ofOthers: wordsOf(OF_OTHERS) };
}

/** Says what is missing; judged when all others are, on what they missed. */
export const WANTED_RULES = [
  rulesFor<PowerFacts, PowerOffers, SiteCommand>()({
    id: 'power.not-known',
    source: 'what is not known is never shown as fine',
    needs: ['wanted'],
    asks: (f) => (f.wanted?.length ?? 0) > 0,
    judge: () => 'unknown',
    when: {
      unknown: {
        severity: 'note',
        title: () => 'Whether its power holds is not known',
        because: (f) => `Missing: ${f.wanted.join('; ')}.`,
        do: (f) => [`Enter ${f.wanted[0]}.`],
      },
    },
    why: 'A number that nobody entered is not a small number.',
  }),
] as const;
