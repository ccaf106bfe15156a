import { atLeast, THRESHOLD_SLACK, type Verdict, worstVerdict } from '../base/verdict.ts';

/** One class of power over the network cable: what the switch reserves, what arrives, on how many pairs. */
export interface PoeClass {
  readonly class: number;
  readonly pseW: number;
  readonly pdW: number;
  readonly pairs: 2 | 4;
  readonly minPseType: 1 | 2 | 3 | 4;
}

/** Source: IEEE 802.3 clause 33 (classes 0–4) and clause 145 (5–8), Table 33-7 and Table 145-26. */
export const POE_CLASSES: readonly PoeClass[] = [
  { class: 0, pseW: 15.4, pdW: 12.95, pairs: 2, minPseType: 1 },
  { class: 1, pseW: 4, pdW: 3.84, pairs: 2, minPseType: 1 },
  { class: 2, pseW: 7, pdW: 6.49, pairs: 2, minPseType: 1 },
  { class: 3, pseW: 15.4, pdW: 12.95, pairs: 2, minPseType: 1 },
  { class: 4, pseW: 30, pdW: 25.5, pairs: 2, minPseType: 2 },
  { class: 5, pseW: 45, pdW: 40, pairs: 4, minPseType: 3 },
  { class: 6, pseW: 60, pdW: 51, pairs: 4, minPseType: 3 },
  { class: 7, pseW: 75, pdW: 62, pairs: 4, minPseType: 4 },
  { class: 8, pseW: 90, pdW: 71.3, pairs: 4, minPseType: 4 },
];
/** Highest class that each type of switch grants. */
const HIGHEST_GRANT: Readonly<Record<1 | 2 | 3 | 4, number>> = { 1: 3, 2: 4, 3: 6, 4: 8 };

/**
 * The row of a class.
 * @throws RangeError outside 0 to 8
 */
export function poeClass(number: number): PoeClass {
  const found = POE_CLASSES[number];
  if (!found) throw new RangeError(`class: expected 0 to 8, got ${number}`);
  return found;
}

/** The lowest class that feeds a device of so many watts; `null` above 71.3 W. */
export const poeClassFor = (pdW: number): PoeClass | null =>
  POE_CLASSES.find((row) => row.class > 0 && row.pdW >= pdW * (1 - THRESHOLD_SLACK)) ?? null;

/** What a device that takes constant power makes of a cable. `null` when the cable cannot carry it at all. */
export interface ConstantPowerFeed {
  readonly currentA: number | null;
  readonly loadVolts: number | null;
}

/**
 * Current of a load that takes constant power behind a resistance: I = (V − √(V² − 4RP)) / 2R.
 * A real root is needed: below V² = 4RP the voltage collapses.
 * @param loopOhm resistance there and back, Ω
 */
export function feedConstantPower(sourceVolts: number, loopOhm: number, loadW: number): ConstantPowerFeed {
  const root = sourceVolts ** 2 - 4 * loopOhm * loadW;
  if (root < 0) return { currentA: null, loadVolts: null };
  const currentA = loopOhm === 0 ? loadW / sourceVolts : (sourceVolts - Math.sqrt(root)) / (2 * loopOhm);
  return { currentA, loadVolts: sourceVolts - currentA * loopOhm };
}

/** [A] A device of type 1 works from 37 V, one of type 2 from 42.5 V; a channel is 100 m (ISO/IEC 11801). */
export const POE_LIMITS = { deadVolts: 37, comfortableVolts: 42.5, channelM: 100, headroomShare: 0.1 } as const;

export interface PoeDraw extends ConstantPowerFeed {
  readonly loopOhm: number;
  readonly pseW: number | null;
  readonly lossW: number | null;
  readonly verdict: Verdict;
}

/** What a switch gives for what a camera takes at the end of a cable. */
export function poeDraw(input: {
  readonly pseVolts: number;
  readonly lengthM: number;
  /** Of one pair there and the other back, for 100 m. */
  readonly loopOhmPer100m: number;
  readonly pairs: 2 | 4;
  readonly pdW: number;
}): PoeDraw {
  const loopOhm = ((input.loopOhmPer100m * input.lengthM) / 100) * (input.pairs === 4 ? 0.5 : 1);
  const { currentA, loadVolts } = feedConstantPower(input.pseVolts, loopOhm, input.pdW);
  if (currentA === null || loadVolts === null)
    return { loopOhm, currentA: null, loadVolts: null, pseW: null, lossW: null, verdict: 'will-not-work' };
  const pseW = input.pseVolts * currentA;
  const byVolts = atLeast(loadVolts, POE_LIMITS.comfortableVolts, POE_LIMITS.deadVolts);
  const byLength: Verdict = input.lengthM > POE_LIMITS.channelM * (1 + THRESHOLD_SLACK) ? 'tight' : 'ok';
  return { loopOhm, currentA, loadVolts, pseW, lossW: pseW - input.pdW, verdict: worstVerdict([byVolts, byLength]) };
}

export interface PoePort {
  readonly port: number;
  readonly class: number;
  readonly pdW: number;
  readonly loopOhm: number;
}

export interface PoeBudgetInput {
  readonly budgetW: number;
  /** `class` reserves what the class may take; `measured` what the device takes. */
  readonly mode: 'class' | 'measured';
  readonly pseType: 1 | 2 | 3 | 4;
  readonly pseVolts: number;
  readonly reserveFraction: number;
  readonly ports: readonly PoePort[];
}

export interface PoeBudget {
  readonly ports: readonly {
    readonly port: number;
    readonly grantedClass: number;
    readonly reservedW: number;
    readonly underPowered: boolean;
  }[];
  readonly totalW: number;
  readonly headroomW: number;
  readonly verdict: Verdict;
}

/** What a switch must reserve for its ports, and whether its supply holds that. */
export function poeBudget(input: PoeBudgetInput): PoeBudget {
  const ports = input.ports.map((port) => {
    const grantedClass = Math.min(port.class, HIGHEST_GRANT[input.pseType]);
    const granted = poeClass(grantedClass);
    const feed = feedConstantPower(input.pseVolts, port.loopOhm, port.pdW);
    const measuredW = feed.currentA === null ? granted.pseW : feed.currentA * input.pseVolts;
    return {
      port: port.port,
      grantedClass,
      reservedW: input.mode === 'class' ? granted.pseW : measuredW,
      underPowered: port.pdW > granted.pdW * (1 + THRESHOLD_SLACK) || feed.currentA === null,
    };
  });
  const totalW = ports.reduce((sum, { reservedW }) => sum + reservedW, 0);
  const headroomW = input.budgetW - totalW;
  const isStarved = ports.some(({ underPowered }) => underPowered);
  const verdict = isStarved ? 'will-not-work' : atLeast(headroomW, input.reserveFraction * input.budgetW, 0);
  return { ports, totalW, headroomW, verdict };
}
