import { THRESHOLD_SLACK } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor, tightIf } from '../../findings/rule.ts';
import { LOWEST_NOON_DEG, SOLAR_LIMITS } from '../../power/solar.ts';
import { monthNames } from '../../power/sun-budget.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';

const rule = rulesFor<PowerFacts, PowerOffers, SiteCommand>();
const isSunFed = ({ way }: Facts<PowerFacts>): boolean => way === 'solar';
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** What lives on sun and batteries, and for how long. */
export const BATTERY_RULES = [
  rule({
    id: 'power.latitude-missing',
    question: 'Is it known how far north or south it stands?',
    source: 'the sun depends on the latitude',
    needs: ['latitudeKnown'],
    asks: isSunFed,
    isTight: (f) => !f.latitudeKnown,
    severity: 'fix',
    title: () => 'Where it stands is not known',
    because: () => 'Without a latitude no month can be worked out.',
    do: ['Enter the latitude of the site, in degrees, north positive.'],
    why: 'Five hundred kilometres north may cost a third of December.',
  }),
  rule({
    id: 'power.winter',
    question: 'Does the panel carry it in every month?',
    limits: ['power.performance'],
    source: 'Duffie & Beckman, day by mean day of each month; a third more than the load in the worst month [A]',
    needs: ['shortMonths', 'unknownMonths', 'panelWp', 'worstMonth', 'sunMargin'],
    asks: (f) => isSunFed(f) && f.latitudeKnown !== false,
    judge: (f) => {
      if (f.shortMonths.length > 0) return 'will-not-work';
      if (f.unknownMonths.length > 0) return 'unknown';
      return tightIf(f.sunMargin < SOLAR_LIMITS.comfortableYield * (1 - THRESHOLD_SLACK));
    },
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `The panel does not carry it in ${monthNames(f.shortMonths)}`,
        because: (f) =>
          `In ${monthNames([f.worstMonth])} a day brings ${percent(f.sunMargin)} of what it takes, with ${f.panelWp} Wp.`,
        do: ['A larger panel, drawing on events only, or the mains in the dark months.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${monthNames([f.worstMonth])} is carried with little to spare`,
        because: (f) =>
          `A day brings ${percent(f.sunMargin)} of what it takes; ${percent(SOLAR_LIMITS.comfortableYield)} are safe.`,
        do: ['Snow, leaves and a tree in growth take more than that: a size larger.'],
      },
      unknown: {
        severity: 'fix',
        title: (f) =>
          `What ${monthNames(f.unknownMonths)} ${f.unknownMonths.length > 1 ? 'bring' : 'brings'} is not known`,
        because: () =>
          `The sun stays below ${LOWEST_NOON_DEG}° at noon: a hill, a roof or mist decides, and no mean holds.`,
        do: ['Count on the mains in the dark months, or measure a winter at the very place.'],
      },
    },
    mends: (_, offers) => offers.sun(),
    why: 'In June it runs on half the panel; it dies in the first dull week, and the mean of a month has a dark week in it.',
  }),
  rule({
    id: 'power.few-dark-days',
    question: 'Does the battery last through dark days?',
    limits: ['power.discharge'],
    source: 'three dark days [A]',
    needs: ['autonomyDays'],
    asks: (f) => isSunFed(f) && f.latitudeKnown !== false,
    isTight: (f) => f.autonomyDays < SOLAR_LIMITS.comfortableDays * (1 - 1e-6),
    severity: 'fix',
    title: (f) => `The battery lasts ${f.autonomyDays.toFixed(1)} dark days`,
    because: () => `${SOLAR_LIMITS.comfortableDays} are wanted.`,
    do: ['A larger battery, or less drawn from it.'],
    mends: (_, offers) => offers.sun(),
    why: 'Fog stays longer than a day.',
  }),
  rule({
    id: 'power.battery-drawn-all-day',
    question: 'Is a battery camera drawn without a break?',
    source: 'a stream keeps radio and encoder awake',
    needs: ['hoursOnConstantDraw', 'shortMonths'],
    asks: (f) => f.hasConstantTap === true,
    fails: (f) => f.shortMonths.length > 0,
    severity: 'stop',
    title: (f) => `Drawn without a break it is empty in ${f.hoursOnConstantDraw.toFixed(0)} h`,
    because: () => 'A destination draws its stream all day; a battery camera is built to sleep.',
    do: ['Record on events only.', 'Feed it from a wire if it must be drawn all day.'],
    why: 'Being watched is what empties it.',
  }),
  rule({
    id: 'power.lithium-cold',
    question: 'Is lithium charged in frost?',
    source: 'lithium cells are not charged below 0 °C',
    needs: ['isLithium', 'isOutdoors'],
    asks: isSunFed,
    isTight: (f) => f.isLithium && f.isOutdoors,
    severity: 'watch',
    title: () => 'Lithium is not charged in frost',
    because: () => 'Below 0 °C and above 45 °C its charger must stop.',
    do: [
      'See that the charger does stop, or keep the battery indoors.',
      'No swollen or punctured cell; nothing that burns beneath.',
    ],
    why: 'Charged in frost it ages in days and may burn weeks later.',
  }),
  rule({
    id: 'power.lead-cold',
    question: 'Does lead stand in the cold?',
    source: 'lead loses about 1 % of its capacity a degree below 20 °C [A]',
    needs: ['isLithium', 'isOutdoors'],
    asks: isSunFed,
    isTight: (f) => !f.isLithium && f.isOutdoors,
    severity: 'watch',
    title: () => 'Lead gives less in the cold',
    because: () => 'At −10 °C about three tenths of it are not there.',
    do: ['Plan it by 43 % larger (1 / 0.7), or keep it indoors.', 'Air around it: it gasses when it is charged.'],
    why: 'The dark month is the cold one.',
  }),
  rule({
    id: 'power.handset-unlimited',
    question: 'Is the charge of a handset limited?',
    source: 'held at 40 to 80 % a cell lasts [A]',
    needs: ['chargeUnlimited'],
    asks: (f) => f.isHandset === true,
    isTight: (f) => f.chargeUnlimited,
    severity: 'fix',
    title: () => 'The handset hangs on its charger at 100 %',
    because: () => 'No charge limit is set.',
    do: ['Limit it to 80 % in its system, or put a timed socket before it.'],
    mends: (_, offers) => offers.chargeLimit(),
    why: 'Full and warm is how a cell swells.',
  }),
  rule({
    id: 'power.handset-hot',
    question: 'Is the battery of a handset too warm?',
    limits: ['power.cell-warm', 'power.cell-hot'],
    source: 'above 45 °C lower, above 50 °C stop [A]',
    needs: ['batteryC', 'cellWarmC', 'cellHotC'],
    asks: (f) => f.isHandset === true && f.batteryC !== undefined,
    isTight: (f) => f.batteryC > f.cellWarmC,
    severity: 'fix',
    title: (f) => (f.batteryC > f.cellHotC ? `${f.batteryC} °C: stop it` : `Its battery is at ${f.batteryC} °C`),
    because: (f) => `Above ${f.cellWarmC} °C it should do less, above ${f.cellHotC} °C nothing.`,
    do: ['Fewer frames, a smaller picture, no sun, air behind it.'],
    why: 'Heat and charge together are what cells do not forgive.',
  }),
  rule({
    id: 'power.handset-swollen',
    question: 'Does its battery bulge?',
    source: 'lithium cells',
    needs: ['isSwollen'],
    asks: (f) => f.isHandset === true,
    fails: (f) => f.isSwollen,
    severity: 'stop',
    title: () => 'Swollen battery: stop at once',
    because: () => 'It was seen to bulge.',
    do: ['Do not charge it, press it or open it.', 'Out of the building, to a collection point.'],
    why: 'A swollen cell can burn without warning.',
  }),
] as const;
