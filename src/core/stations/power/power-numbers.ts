import { assumed, type ChangedAssumptions } from '../../assumptions/assumptions.ts';
import { rememberLast } from '../../base/remember.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { PowerWay } from '../../base/ways.ts';
import type { Feed } from '../../document/chapters/cameras/feed.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Sky } from '../../document/chapters/sky/sky.ts';
import { dropAtPower, judgeVolts, longestRun, thinnestWire } from '../../power/dc-run.ts';
import { type PoeBudget, type PoeDraw, poeBudget, poeClassFor, poeDraw } from '../../power/poe.ts';
import { type SunInput, type SunYear, sunYear } from '../../power/sun-budget.ts';
import type { SunFeed } from '../../power/sun-feed.ts';
import { linkLengthM } from './site-links.ts';

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

/** Class and watts that a camera asks of a network cable. */
export function poeDemand({ power }: Model): { readonly class: number; readonly pdW: number } {
  const pdW = Math.max(power.dayW ?? 0, power.nightW ?? 0);
  return { class: power.poeClass ?? poeClassFor(pdW)?.class ?? 8, pdW };
}

const clad = (link: Link, assumptions: ChangedAssumptions): number =>
  link.isCopperClad ? assumed(assumptions, 'power.copper-clad') : 1;

/** Loop of a network cable, Ω, on two pairs. */
export const cableLoopOhm = (link: Link, assumptions: ChangedAssumptions): number =>
  (linkLengthM(link) / 100) * assumed(assumptions, 'power.poe-ohm') * clad(link, assumptions);

/** What arrives at a camera over the network cable of a switch or a negotiating injector. */
export function cableFeed(
  gear: GearOf<'switch'> | GearOf<'injector'>,
  link: Link,
  model: Model,
  assumptions: ChangedAssumptions,
): PoeDraw {
  const demand = poeDemand(model);
  return poeDraw({
    pseVolts: gear.kind === 'switch' ? gear.pseVolts : gear.volts,
    lengthM: linkLengthM(link),
    loopOhmPer100m: assumed(assumptions, 'power.poe-ohm') * clad(link, assumptions),
    pairs: demand.class > 4 ? 4 : 2,
    pdW: demand.pdW,
  });
}

/** What hangs on a switch by a network cable and is fed by it. */
export interface Fed {
  /** Of a camera, or of an access point. */
  readonly subject: string;
  readonly name: string;
  readonly link: Link;
  readonly demand: { readonly class: number; readonly pdW: number };
}

/** The budget of a switch over all that it feeds. */
export function switchBudget(
  gear: GearOf<'switch'>,
  fed: readonly Pick<Fed, 'link' | 'demand'>[],
  assumptions: ChangedAssumptions,
): PoeBudget {
  return poeBudget({
    budgetW: gear.budgetW,
    mode: gear.reserves,
    pseType: gear.pseType,
    pseVolts: gear.pseVolts,
    reserveFraction: assumed(assumptions, 'power.poe-headroom'),
    ports: fed.map(({ link, demand }, port) => {
      const loopOhm = cableLoopOhm(link, assumptions) * (demand.class > 4 ? 0.5 : 1);
      return { port, class: demand.class, pdW: demand.pdW, loopOhm };
    }),
  });
}

/** What a low-voltage run leaves by day and in the worst night, and which run would hold. */
export interface RunNumbers {
  readonly supplyVolts: number;
  readonly minVolts: number;
  readonly loadW: number;
  readonly lengthM: number;
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
  { power }: Model,
  assumptions: ChangedAssumptions,
): RunNumbers | null {
  const loadW = Math.max(power.dayW ?? 0, power.nightW ?? 0);
  if (loadW <= 0) return null;
  const { output, volts: supplyVolts } = supply;
  const minVolts = power.minVolts ?? LEAST_VOLTS[output];
  const sizeMm2 = link.areaMm2 ?? USUAL_AREA_MM2[output];
  // Clad aluminium conducts like a thinner copper wire.
  const areaMm2 = sizeMm2 / clad(link, assumptions);
  const contactOhm = output === 'usb' ? assumed(assumptions, 'power.usb-contacts') : 0;
  const lengthM = linkLengthM(link);
  const run = { lengthM, areaMm2, conductorC: link.conductorC, contactOhm };
  const nightVolts = dropAtPower(supplyVolts, loadW, run).loadVolts;
  // What the contacts take is gone before the wire begins.
  const afterContacts = dropAtPower(supplyVolts, loadW, { ...run, lengthM: 0 }).loadVolts ?? 0;
  const demand = { supplyVolts: afterContacts, minVolts, loadW, conductorC: link.conductorC };
  const canHold = afterContacts > minVolts;
  const thinnest = canHold && lengthM > 0 ? thinnestWire(demand, lengthM, WIRE_SIZES_MM2) : null;
  return {
    supplyVolts,
    minVolts,
    loadW,
    lengthM,
    areaMm2: sizeMm2,
    dayVolts: dropAtPower(supplyVolts, power.dayW ?? loadW, run).loadVolts,
    nightVolts,
    verdict: judgeVolts(nightVolts, supplyVolts, minVolts),
    longestM: canHold ? longestRun(demand, areaMm2) : 0,
    thinnestMm2: thinnest?.areaMm2 ?? 0,
    pickMm2: thinnest ? thinnest.pickMm2 : lengthM === 0 ? WIRE_SIZES_MM2[0] : null,
    loadA: nightVolts ? loadW / nightVolts : loadW / supplyVolts,
  };
}

/** All that the year of a battery camera is worked out from; `null` while something of it is not known. */
export function sunInputOf(
  feed: Feed,
  { power }: Model,
  sky: Sky,
  tappedHoursPerDay: number | null,
  assumptions: ChangedAssumptions,
): SunInput | null {
  const { sun } = feed;
  if (!sun || sky.latitudeDeg === null || power.dayW === null) return null;
  return {
    sun,
    load: { dayW: power.dayW, nightW: power.nightW ?? power.dayW, standbyW: power.standbyW ?? 0 },
    drawnHoursPerDay: tappedHoursPerDay ?? sun.drawnHoursPerDay,
    latitudeDeg: sky.latitudeDeg,
    clearness: sky.clearness,
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
