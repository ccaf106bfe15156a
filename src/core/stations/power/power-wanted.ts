import type { SiteCommand } from '../../document/site-commands.ts';
import { type Row, rulesFor } from '../../findings/rule.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';

type Words = { readonly [K in keyof PowerFacts]?: string };

const NIGHT_WATTS = 'its watts by day and at night, in its model card';
const ALL_WATTS = 'its watts by day, at night and in standby, in its model card';

/** What somebody would have to enter in its card so that a fact is known, as one would ask for it. */
const OF_CARD: Words = {
  waysOffered: 'the power sources in its model card',
  isUnderPowered: 'its PoE class and its watts at night, in its model card',
  cableVerdict: NIGHT_WATTS,
  runVerdict: NIGHT_WATTS,
  minVolts: 'the lowest voltage of its input, in its model card',
  maxVolts: 'the highest voltage of its input, in its model card',
  shortMonths: ALL_WATTS,
  autonomyDays: ALL_WATTS,
  hoursOnConstantDraw: ALL_WATTS,
  bandsOffered: 'the Wi-Fi bands in its model card',
};
const LENGTH = 'the length of its cable, or where both its ends stand on the plan';
/** The same of the place where it hangs. */
const OF_PLACE: Words = {
  latitudeKnown: 'its solar panel and its battery',
  cableM: LENGTH,
  unjoined: 'what it is linked to, and where its stream goes',
  runM: LENGTH,
  rssiDbm: 'its signal, or where it and its access point stand on the plan',
};
/** Known once panel and battery are: until then nothing else is to blame. */
const OF_THE_YEAR: ReadonlySet<string> = new Set([
  'shortMonths',
  'autonomyDays',
  'hoursOnConstantDraw',
] satisfies readonly (keyof PowerFacts)[]);
const NO_MODEL = 'its model card, at Choose';

/** Facts that wait for what hangs beside it, and are asked of that. */
const OF_OTHERS: ReadonlySet<string> = new Set(['reservedW', 'supplyLoadA'] satisfies readonly (keyof PowerFacts)[]);

/** What is missing for a verdict. */
export interface Wanted {
  /** Of its own card and place, in the order in which one would enter it. */
  readonly own: readonly string[];
  /** What hangs on the same feeder and has no watts in its card, where the verdict waits for it. */
  readonly others: readonly string[];
}

/**
 * Rows that weigh nothing ask for nothing.
 * @param silent what hangs on the same feeder and has no watts in its card
 * @param hasModel without one, the card is what is missing first
 */
export function wantedFor(rows: readonly Row[], silent: readonly string[], hasModel: boolean): Wanted {
  const all = rows.filter(({ weighs }) => weighs).flatMap((row) => row.missing);
  const missing = all.includes('latitudeKnown') ? all.filter((fact) => !OF_THE_YEAR.has(fact)) : all;
  const wordsOf = (words: Words) => missing.flatMap((fact) => words[fact as keyof PowerFacts] ?? []);
  const ofCard = hasModel ? wordsOf(OF_CARD) : wordsOf(OF_CARD).length > 0 ? [NO_MODEL] : [];
  return {
    own: [...new Set([...ofCard, ...wordsOf(OF_PLACE)])],
    others: missing.some((fact) => OF_OTHERS.has(fact)) ? silent : [],
  };
}

/** Says what is missing; judged when all others are, on what they missed. */
export const WANTED_RULES = [
  rulesFor<PowerFacts, PowerOffers, SiteCommand>()({
    id: 'power.not-known',
    question: 'Are all figures for its power known?',
    source: 'what is not known is never shown as fine',
    needs: ['wanted', 'silentBeside'],
    asks: (f) => f.wanted !== undefined && f.wanted.length + (f.silentBeside?.length ?? 0) > 0,
    judge: () => 'unknown',
    when: {
      unknown: {
        severity: 'note',
        title: () => 'Power not known',
        because: (f) =>
          `Missing: ${[...f.wanted, ...(f.silentBeside.length > 0 ? [`the watts of ${f.silentBeside.join(', ')} on the same supply`] : [])].join('; ')}.`,
        do: (f) => [
          f.wanted.length > 0
            ? `Enter ${f.wanted[0]}.`
            : `Choose a model card for ${f.silentBeside.join(', ')} that gives its watts.`,
        ],
      },
    },
    why: 'A figure that nobody entered is not zero.',
  }),
] as const;
