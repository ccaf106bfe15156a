import { atLeast, THRESHOLD_SLACK, type Verdict } from '../base/verdict.ts';
import { type ConstantPowerFeed, feedConstantPower } from './poe.ts';

/** Resistivity of annealed copper at 20 °C, Ω·mm²/m, and its rise for each K. Source: IEC 60028. */
const COPPER = { ohmMm2PerM: 0.017241, perK: 0.00393 } as const;

export interface Wire {
  readonly diameterMm: number;
  readonly areaMm2: number;
  readonly ohmPerKm20C: number;
}

/**
 * A copper conductor by its cross-section.
 * @param areaMm2 above 0
 * @throws RangeError for 0 and below
 */
export function wireOfArea(areaMm2: number): Wire {
  if (!(areaMm2 > 0)) throw new RangeError(`areaMm2: expected above 0, got ${areaMm2}`);
  return {
    diameterMm: Math.sqrt((4 * areaMm2) / Math.PI),
    areaMm2,
    ohmPerKm20C: (COPPER.ohmMm2PerM / areaMm2) * 1000,
  };
}

/** What copper resists at a temperature against 20 °C. */
export const warmth = (conductorC: number): number => 1 + COPPER.perK * (conductorC - 20);

/** Resistance of one conductor, Ω/m, at its temperature. */
const ohmPerM = (areaMm2: number, conductorC: number): number => (COPPER.ohmMm2PerM / areaMm2) * warmth(conductorC);

/** A run of two conductors, there and back. */
export interface DcRun {
  readonly lengthM: number;
  readonly areaMm2: number;
  readonly conductorC: number;
  /** Plugs and terminals together; 0.12 Ω is usual for a USB lead. [A] */
  readonly contactOhm: number;
}

export const loopOhmOf = ({ lengthM, areaMm2, conductorC, contactOhm }: DcRun): number =>
  2 * lengthM * ohmPerM(areaMm2, conductorC) + contactOhm;

/** [A] Within the lowest tenth of the allowed drop it works today, and not on a cold morning. */
const TIGHT_SHARE = 0.1;

/** Whether a voltage keeps a device alive. */
export function judgeVolts(volts: number | null, supplyVolts: number, minVolts: number): Verdict {
  if (volts === null) return 'will-not-work';
  return atLeast(volts, minVolts + TIGHT_SHARE * (supplyVolts - minVolts), minVolts);
}

/** The same for a load that takes constant power, as a camera with a converter does. */
export function dropAtPower(
  supplyVolts: number,
  loadW: number,
  run: DcRun,
): ConstantPowerFeed & { readonly loopOhm: number } {
  const loopOhm = loopOhmOf(run);
  return { loopOhm, ...feedConstantPower(supplyVolts, loopOhm, loadW) };
}

/** What a run must carry. */
export interface DcDemand {
  readonly supplyVolts: number;
  readonly minVolts: number;
  readonly loadW: number;
  readonly conductorC: number;
  /** In series with the run, at its last current; 0 where it has none. */
  readonly contactOhm?: number;
}

/**
 * Ohms that wire alone may have so that `minVolts` are left: ((Vs − Vend)·Vend / P) − contacts. Below half the supply a load
 * of constant power has no working point, so Vend is never less.
 */
function wireOhm({ supplyVolts, minVolts, loadW, contactOhm = 0 }: DcDemand): number {
  const endVolts = Math.max(minVolts, supplyVolts / 2);
  return Math.max(0, ((supplyVolts - endVolts) * endVolts) / loadW - contactOhm);
}

/** The longest run that leaves `minVolts`, m. */
export const longestRun = (demand: DcDemand, areaMm2: number): number =>
  wireOhm(demand) / (2 * ohmPerM(areaMm2, demand.conductorC));

/**
 * The thinnest conductor that leaves `minVolts`, and the next size sold; `null` when none of them is thick enough.
 * @param resistance of its metal against copper: 1.55 for copper-clad aluminium [A]
 */
export function thinnestWire(
  demand: DcDemand,
  lengthM: number,
  sizesMm2: readonly number[],
  resistance = 1,
): { readonly areaMm2: number; readonly pickMm2: number | null } {
  const areaMm2 = (2 * lengthM * COPPER.ohmMm2PerM * warmth(demand.conductorC) * resistance) / wireOhm(demand);
  const pickMm2 = [...sizesMm2].sort((a, b) => a - b).find((size) => size >= areaMm2 * (1 - THRESHOLD_SLACK)) ?? null;
  return { areaMm2, pickMm2 };
}
