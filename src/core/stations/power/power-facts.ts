import type { Verdict } from '../../base/verdict.ts';
import type { PowerWay } from '../../base/ways.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';

type Mends = readonly Mend<SiteCommand>[];

/** What the rules about feeding one camera and joining it to its destinations may ask for. */
export interface PowerFacts {
  readonly way: PowerWay;
  readonly waysOffered: readonly PowerWay[];
  readonly feeder: string;
  /** Whether that gear feeds anything in this way at all. */
  readonly feederFeeds: boolean;
  readonly supplyVolts: number;
  /** It is to be fed over the cable, by classes. */
  readonly isPoe: boolean;
  readonly budgetW: number;
  readonly reservedW: number;
  readonly headroomWantedW: number;
  /** Others that the same switch feeds. */
  readonly fedBeside: readonly string[];
  /** Of these, those whose watts nobody knows. */
  readonly silentBeside: readonly string[];
  readonly portsUsed: number;
  readonly poePorts: number;
  readonly classAsked: number;
  /** At least so much. */
  readonly takesW: number;
  /** What its card's own class gives it. */
  readonly classGivesW: number;
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
  /** A wire brings low voltage, and the supply is not too low to begin with. */
  readonly isRun: boolean;
  readonly runVerdict: Verdict;
  readonly runM: number;
  readonly runLongestM: number;
  readonly runPick: string;
  readonly supplyAmps: number;
  readonly supplyLoadA: number;
  readonly latitudeKnown: boolean;
  readonly shortMonths: readonly number[];
  readonly unknownMonths: readonly number[];
  readonly worstMonth: number;
  readonly sunMargin: number;
  readonly panelWp: number;
  readonly panelWpNeeded: number;
  readonly autonomyDays: number;
  readonly hoursOnConstantDraw: number;
  readonly hasConstantTap: boolean;
  readonly isLithium: boolean;
  readonly isOutdoors: boolean;
  readonly isOldPhone: boolean;
  readonly chargeLimit: number;
  readonly chargeUnlimited: boolean;
  readonly batteryC: number;
  readonly cellWarmC: number;
  readonly cellHotC: number;
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
  readonly airVerdict: Verdict;
  readonly airtimeOk: number;
  readonly airtimeTight: number;
  readonly airtimeSharers: readonly string[];
  /** The fullest wire on the way to its destinations. */
  readonly wire: string;
  readonly wireMbps: number;
  readonly wireVerdict: Verdict;
  /** Streams on it whose rate nobody knows. */
  readonly wireUnknown: number;
  /** Others send on the same medium. */
  readonly isWireShared: boolean;
  readonly wireCapacityMbps: number;
  readonly wireOk: number;
  readonly wireTight: number;
  /** Of the switches on its way, the one with the fewest ports to spare. */
  readonly fullestSwitch: string;
  readonly switchPorts: number;
  readonly cablesOn: number;
  /** Access points that a switch on its way is to feed, and cannot. */
  readonly unfed: readonly string[];
  readonly crossesPowerline: boolean;
  /** Somebody draws it, or is to. */
  readonly isDrawn: boolean;
  /** Absent while the plan has no link at all. */
  readonly unjoined: readonly string[];
  /** What would have to be entered for a verdict, of its own first. */
  readonly wanted: readonly string[];
}

/** What could be changed at Power. */
export interface PowerOffers {
  /** Fed in another way of its card. */
  readonly ways: () => Mends;
  /** The same cable from other gear that feeds in this way. */
  readonly feeders: () => Mends;
  readonly thickerWire: () => Mends;
  readonly solidCopper: () => Mends;
  readonly sun: () => Mends;
  readonly chargeLimit: () => Mends;
  /** The same radio link to another access point of its bands. */
  readonly accessPoints: () => Mends;
  /** Destinations that no link leads to, joined to what the camera is joined to. */
  readonly joins: () => Mends;
}

/** The same while they are put together. */
export type FactsDraft = { -readonly [K in keyof PowerFacts]?: PowerFacts[K] | undefined };
