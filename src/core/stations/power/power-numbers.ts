import { assumed, type ChangedAssumptions } from '../../assumptions/assumptions.ts';
import { rememberLast } from '../../base/remember.ts';
import { THRESHOLD_SLACK, type Verdict } from '../../base/verdict.ts';
import type { PowerWay } from '../../base/ways.ts';
import type { Feed } from '../../document/chapters/cameras/feed.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { clearnessOf, type Sky } from '../../document/chapters/sky/sky.ts';
import { dropAtPower, judgeVolts, longestRun, thinnestWire, warmth } from '../../power/dc-run.ts';
import {
  POE_LIMITS,
  type PoeBudget,
  type PoeDraw,
  poeBudget,
  poeClass,
  poeClassFor,
  poeDraw,
} from '../../power/poe.ts';
import { type SunInput, type SunYear, sunYear } from '../../power/sun-budget.ts';
import type { SunFeed } from '../../power/sun-feed.ts';

type GearOf<K extends Gear['kind']> = Extract<Gear, { kind: K }>;

/** Copper cross sections that are sold, mm². Source: IEC 60228, and AWG 24 to 16 as used in low-voltage pairs. */
export const WIRE_SIZES_MM2 = [0.2, 0.33, 0.5, 0.75, 1, 1.5, 2.5, 4] as const;
/** [A] Least voltage where a card does not say: 12 V less a tenth; USB 5 V less a twentieth. */
const LEAST_VOLTS = { dc: 10.8, usb: 4.75 } as const;

/** Whether gear feeds a camera in a way at all. */
export function feedsIn(way: PowerWay, gear: Gear): boolean {
  if (way === 'poe')
    return (gear.kind === 'switch' && gear.poePorts > 0) || (gear.kind === 'injector' && !gear.isPassive);
  if (way === 'passive') return gear.kind === 'injector' && gear.isPassive;
  if (way === 'dc' || way === 'usb') return gear.kind === 'supply' && gear.output === way;
  return false;
}

/** What a camera takes at its worst, as far as its card says. */
export interface Taken {
  /** At least so much; 0 where the card says nothing. */
  readonly knownW: number;
  /** Whether it may take more: its light at night is in no figure. */
  readonly isWhole: boolean;
}

export function takenBy({ power: { dayW, nightW }, light }: Model): Taken {
  const isWhole = nightW !== null || (dayW !== null && light?.kind === 'none');
  return { knownW: Math.max(dayW ?? 0, nightW ?? 0), isWhole };
}

/** What something asks of a network cable. */
export interface PoeDemand {
  /** Of its card, else by its watts; `null` while neither is known. */
  readonly class: number | null;
  /** At least so much. */
  readonly pdW: number;
  readonly isWhole: boolean;
}

/** Of a camera whose model is not chosen. */
export const UNKNOWN_DEMAND: PoeDemand = { class: null, pdW: 0, isWhole: false };

export function poeDemand(model: Model): PoeDemand {
  const { knownW, isWhole } = takenBy(model);
  return { class: model.power.poeClass ?? (isWhole ? (poeClassFor(knownW)?.class ?? 8) : null), pdW: knownW, isWhole };
}

/** An access point is fed for all that its class may take. */
export const poeDemandOfClass = (number: number): PoeDemand => ({
  class: number,
  pdW: poeClass(number).pdW,
  isWhole: true,
});

const clad = (link: Link, assumptions: ChangedAssumptions): number =>
  link.isCopperClad ? assumed(assumptions, 'power.copper-clad') : 1;

/** Loop of 100 m of a network cable as warm as it gets, Ω, on two pairs. */
const loopOhmPer100m = (link: Link, assumptions: ChangedAssumptions): number =>
  assumed(assumptions, 'power.poe-ohm') * warmth(link.conductorC) * clad(link, assumptions);

/** Loop of a network cable, Ω, on two pairs; of one whose length nobody knows, that of the longest channel. */
export const cableLoopOhm = (link: Link, assumptions: ChangedAssumptions): number =>
  ((link.lengthM ?? POE_LIMITS.channelM) / 100) * loopOhmPer100m(link, assumptions);

/**
 * What arrives at a camera over the network cable of a switch or a negotiating injector. Where its watts are not known, the
 * most that its class may take decides what is sure; its verdict is not known where that is not enough.
 */
export function cableFeed(
  gear: GearOf<'switch'> | GearOf<'injector'>,
  link: Link,
  demand: PoeDemand,
  assumptions: ChangedAssumptions,
): PoeDraw {
  const drawOf = (pdW: number): PoeDraw =>
    poeDraw({
      pseVolts: gear.kind === 'switch' ? gear.pseVolts : gear.volts,
      lengthM: link.lengthM ?? 0,
      loopOhmPer100m: loopOhmPer100m(link, assumptions),
      pairs: (demand.class ?? 0) > 4 ? 4 : 2,
      pdW,
    });
  const known = drawOf(demand.pdW);
  if (demand.isWhole || known.verdict === 'will-not-work') return known;
  const mostW = demand.class === null ? null : Math.max(demand.pdW, poeClass(demand.class).pdW);
  const atMost = mostW === null ? null : drawOf(mostW);
  return atMost && atMost.verdict === known.verdict ? atMost : { ...known, verdict: 'unknown' };
}

/** What hangs on a switch or an injector by a network cable and is fed by it. */
export interface Fed {
  /** Of a camera, or of an access point. */
  readonly subject: string;
  readonly name: string;
  readonly link: Link;
  readonly demand: PoeDemand;
}

/** A budget with what nobody knows of it. Its ports are numbered as what is fed; of what nothing is known, there is none. */
export interface FeedBudget extends PoeBudget {
  /** Whether more may be taken than it says. */
  readonly isWhole: boolean;
  /** What its gear can never feed at night: the class it is granted is below the one it asks for. By number of what is fed. */
  readonly starved: ReadonlySet<number>;
  /** The same, where the watts that would tell are not known. */
  readonly perhapsStarved: ReadonlySet<number>;
}

/** The budget of a switch, or of an injector that negotiates, over all that it feeds. */
export function feedBudget(
  gear: GearOf<'switch'> | GearOf<'injector'>,
  fed: readonly Pick<Fed, 'link' | 'demand'>[],
  assumptions: ChangedAssumptions,
): FeedBudget {
  const [budgetW, mode, pseType, pseVolts] =
    gear.kind === 'switch'
      ? ([gear.budgetW, gear.reserves, gear.pseType, gear.pseVolts] as const)
      : ([gear.watts, 'measured', 4, gear.volts] as const);
  const budget = poeBudget({
    budgetW,
    mode,
    pseType,
    pseVolts,
    reserveFraction: assumed(assumptions, 'power.poe-headroom'),
    ports: fed.flatMap(({ link, demand }, port) => {
      const number = demand.class ?? (demand.pdW > 0 ? (poeClassFor(demand.pdW)?.class ?? 8) : null);
      if (number === null) return [];
      const loopOhm = cableLoopOhm(link, assumptions) * (number > 4 ? 0.5 : 1);
      return { port, class: number, pdW: demand.pdW, loopOhm };
    }),
  });
  const isWhole = fed.every(({ demand }) => (mode === 'class' ? demand.class !== null : demand.isWhole));
  const below = budget.ports.filter(({ port, grantedClass }) => grantedClass < (fed[port]?.demand.class ?? 0));
  const starved = below.filter(({ port, grantedClass }) => {
    const pdW = fed[port]?.demand.pdW ?? 0;
    return pdW > poeClass(grantedClass).pdW * (1 + THRESHOLD_SLACK);
  });
  const unsure = below.filter((one) => !starved.includes(one) && fed[one.port]?.demand.isWhole === false);
  const isUnknown = !isWhole || unsure.length > 0;
  return {
    ...budget,
    isWhole,
    starved: new Set(starved.map(({ port }) => port)),
    perhapsStarved: new Set(unsure.map(({ port }) => port)),
    verdict: isUnknown && budget.verdict !== 'will-not-work' ? 'unknown' : budget.verdict,
  };
}

/** What a low-voltage run leaves by day and in the worst night, and which run would hold. */
export interface RunNumbers {
  readonly supplyVolts: number;
  readonly minVolts: number;
  readonly loadW: number;
  /** `null` when not known: then volts and verdict are those of no length at all. */
  readonly lengthM: number | null;
  readonly areaMm2: number;
  readonly dayVolts: number | null;
  readonly nightVolts: number | null;
  readonly verdict: Verdict;
  readonly longestM: number;
  readonly thinnestMm2: number;
  /** `null` when no size that is sold is thick enough. */
  readonly pickMm2: number | null;
  readonly loadA: number;
}

/** [A] A lead of USB has about 0.2 mm² (AWG 24) for its power. */
const USUAL_AREA_MM2 = { dc: 0.75, usb: 0.2 } as const;

export function runNumbers(
  supply: { readonly volts: number; readonly output: 'dc' | 'usb' },
  link: Link,
  model: Model,
  assumptions: ChangedAssumptions,
): RunNumbers | null {
  const { power } = model;
  const { knownW: loadW, isWhole } = takenBy(model);
  if (loadW <= 0) return null;
  const { output, volts: supplyVolts } = supply;
  const minVolts = power.minVolts ?? LEAST_VOLTS[output];
  const sizeMm2 = link.areaMm2 ?? USUAL_AREA_MM2[output];
  // Clad aluminium conducts like a thinner copper wire.
  const areaMm2 = sizeMm2 / clad(link, assumptions);
  const contactOhm = output === 'usb' ? assumed(assumptions, 'power.usb-contacts') : 0;
  const lengthM = link.lengthM ?? 0;
  const run = { lengthM, areaMm2, conductorC: link.conductorC, contactOhm };
  const nightVolts = dropAtPower(supplyVolts, loadW, run).loadVolts;
  const demand = { supplyVolts, minVolts, loadW, conductorC: link.conductorC, contactOhm };
  const longestM = longestRun(demand, areaMm2);
  const thinnest =
    longestM > 0 && lengthM > 0 ? thinnestWire(demand, lengthM, WIRE_SIZES_MM2, clad(link, assumptions)) : null;
  const verdict = judgeVolts(nightVolts, supplyVolts, minVolts);
  return {
    supplyVolts,
    minVolts,
    loadW,
    lengthM: link.lengthM,
    areaMm2: sizeMm2,
    dayVolts: power.dayW === null ? null : dropAtPower(supplyVolts, power.dayW, run).loadVolts,
    nightVolts,
    verdict: isWhole || verdict === 'will-not-work' ? verdict : 'unknown',
    longestM,
    thinnestMm2: thinnest?.areaMm2 ?? 0,
    pickMm2: thinnest ? thinnest.pickMm2 : link.lengthM === 0 && longestM > 0 ? WIRE_SIZES_MM2[0] : null,
    loadA: nightVolts ? loadW / nightVolts : loadW / supplyVolts,
  };
}

/** All that the year of a battery camera is worked out from; `null` while something of it is not known. */
export function sunInputOf(
  feed: Feed,
  model: Model,
  sky: Sky,
  tappedHoursPerDay: number | null,
  assumptions: ChangedAssumptions,
): SunInput | null {
  const { sun } = feed;
  const { dayW, nightW, standbyW } = model.power;
  if (!sun || sky.latitudeDeg === null || dayW === null || !takenBy(model).isWhole) return null;
  const drawnHoursPerDay = tappedHoursPerDay ?? sun.drawnHoursPerDay;
  // What it takes waiting is nothing to one that never waits.
  if (standbyW === null && drawnHoursPerDay < 24) return null;
  return {
    sun,
    load: { dayW, nightW: nightW ?? dayW, standbyW: standbyW ?? 0 },
    drawnHoursPerDay,
    latitudeDeg: sky.latitudeDeg,
    clearness: clearnessOf(sky),
    performance: assumed(assumptions, 'power.performance'),
    discharge: assumed(assumptions, 'power.discharge'),
  };
}

const yearOf = rememberLast(
  (
    sun: SunFeed,
    dayW: number,
    nightW: number,
    standbyW: number,
    drawnHoursPerDay: number,
    latitudeDeg: number,
    clearness: readonly number[],
    performance: number,
    discharge: number,
  ): SunYear =>
    sunYear({
      sun,
      load: { dayW, nightW, standbyW },
      drawnHoursPerDay,
      latitudeDeg,
      clearness,
      performance,
      discharge,
    }),
);

/** A year costs some trigonometry: it stands while nothing that it rests on changes. */
export const sunYearOf = ({
  sun,
  load,
  drawnHoursPerDay,
  latitudeDeg,
  clearness,
  performance,
  discharge,
}: SunInput): SunYear =>
  yearOf(sun, load.dayW, load.nightW, load.standbyW, drawnHoursPerDay, latitudeDeg, clearness, performance, discharge);
