import type { Verdict } from '../../base/verdict.ts';
import type { PowerWay } from '../../base/ways.ts';

/** What the rules about feeding one camera and joining it to its destinations may ask for. */
export interface PowerFacts {
  readonly way: PowerWay;
  readonly waysOffered: readonly PowerWay[];
  readonly feeder: string;
  /** Whether that gear feeds anything in this way at all. */
  readonly feederFeeds: boolean;
  readonly supplyVolts: number;
  readonly budgetW: number;
  readonly reservedW: number;
  readonly headroomWantedW: number;
  /** Others that the same switch feeds. */
  readonly fedBeside: readonly string[];
  readonly portsUsed: number;
  readonly poePorts: number;
  readonly classAsked: number;
  readonly isUnderPowered: boolean;
  readonly cableM: number;
  readonly cableVolts: number;
  readonly cableVerdict: Verdict;
  readonly isCopperClad: boolean;
  readonly isCopperOutside: boolean;
  readonly passiveVolts: number;
  readonly minVolts: number;
  readonly maxVolts: number;
  readonly runNightVolts: number;
  readonly runDayVolts: number;
  readonly runVerdict: Verdict;
  readonly runM: number;
  readonly runLongestM: number;
  readonly runPick: string;
  readonly supplyAmps: number;
  readonly supplyLoadA: number;
  readonly latitudeKnown: boolean;
  readonly shortMonths: readonly number[];
  readonly worstMonth: number;
  readonly sunMargin: number;
  readonly panelWp: number;
  readonly panelWpNeeded: number;
  readonly autonomyDays: number;
  readonly hoursOnConstantDraw: number;
  readonly hasConstantTap: boolean;
  readonly isLithium: boolean;
  readonly isOutdoors: boolean;
  readonly isHandset: boolean;
  readonly chargeLimit: number;
  readonly chargeUnlimited: boolean;
  readonly batteryC: number;
  readonly isSwollen: boolean;
  readonly accessPoint: string;
  readonly band: string;
  readonly bandsOffered: readonly string[];
  readonly rssiDbm: number;
  readonly rssiIsMeasured: boolean;
  readonly signalOk: number;
  readonly signalTight: number;
  readonly signalPath: string;
  readonly airtime: number;
  readonly airtimeOk: number;
  readonly airtimeTight: number;
  readonly airtimeSharers: readonly string[];
  /** The fullest wire on the way to its destinations. */
  readonly wire: string;
  readonly wireMbps: number;
  readonly wireCapacityMbps: number;
  readonly wireOk: number;
  readonly wireTight: number;
  readonly crossesPowerline: boolean;
  readonly unjoined: readonly string[];
}
