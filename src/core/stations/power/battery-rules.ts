import { THRESHOLD_SLACK } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
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
    question: 'Is the latitude of the site known?',
    source: 'solar yield depends on the latitude',
    needs: ['latitudeKnown'],
    asks: isSunFed,
    isTight: (f) => !f.latitudeKnown,
    severity: 'fix',
    title: () => 'Latitude not entered',
    because: () => 'Without the latitude no month can be computed.',
    do: ['Enter the latitude of the site, in degrees, north positive.'],
    why: 'Five hundred kilometres north may cost a third of December.',
  }),
  rule({
    id: 'power.winter',
    question: 'Is the solar yield enough in every month?',
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
        title: (f) => `Solar yield too low in ${monthNames(f.shortMonths)}`,
        because: (f) =>
          `In ${monthNames([f.worstMonth])} a day yields ${percent(f.sunMargin)} of the load, with ${f.panelWp} Wp.`,
        do: ['A larger panel, streaming on events only, or the mains in the dark months.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Solar yield just enough in ${monthNames([f.worstMonth])}`,
        because: (f) =>
          `A day yields ${percent(f.sunMargin)} of the load; ${percent(SOLAR_LIMITS.comfortableYield)} are safe.`,
        do: ['Snow, leaves and a tree in growth take more than that: a size larger.'],
      },
      unknown: {
        severity: 'fix',
        title: (f) => `Solar yield in ${monthNames(f.unknownMonths)} not known`,
        because: () =>
          `The sun stays below ${LOWEST_NOON_DEG}° at noon: a hill, a roof or mist decides, and no average holds.`,
        do: ['Plan the mains for the dark months, or measure a winter on site.'],
      },
    },
    mends: (_, offers) => offers.sun(),
    why: 'In June half the panel is enough; in the first dull week it fails, and every month’s average hides a dull week.',
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
    title: (f) => `Battery lasts ${f.autonomyDays.toFixed(1)} dark days`,
    because: () => `${SOLAR_LIMITS.comfortableDays} are needed.`,
    do: ['A larger battery, or a lower load.'],
    mends: (_, offers) => offers.sun(),
    why: 'Fog stays longer than a day.',
  }),
  rule({
    id: 'power.battery-streams-all-day',
    question: 'Does a battery camera stream without a break?',
    source: 'a stream keeps radio and encoder awake',
    needs: ['hoursOnConstantDraw', 'shortMonths'],
    asks: (f) => f.hasConstantTap === true,
    fails: (f) => f.shortMonths.length > 0,
    severity: 'stop',
    title: (f) => `Battery empty in ${f.hoursOnConstantDraw.toFixed(0)} h of streaming`,
    because: () => 'A destination pulls its stream all day; a battery camera is built for standby.',
    do: ['Record on events only.', 'Power it by cable if it must stream all day.'],
    why: 'Streaming is what empties it.',
  }),
  rule({
    id: 'power.lithium-cold',
    question: 'Is lithium charged below 0 °C?',
    source: 'lithium cells are not charged below 0 °C',
    needs: ['isLithium', 'isOutdoors'],
    asks: isSunFed,
    isTight: (f) => f.isLithium && f.isOutdoors,
    severity: 'caution',
    title: () => 'Lithium battery: no charging below 0 °C',
    because: () => 'Below 0 °C and above 45 °C its charger must stop.',
    do: [
      'Make sure that the charger stops, or keep the battery indoors.',
      'No swollen or punctured cell; a base that does not burn.',
    ],
    why: 'Charged below 0 °C a cell ages in days and may burn weeks later.',
  }),
  rule({
    id: 'power.lead-cold',
    question: 'Is a lead battery in the cold?',
    source: 'lead loses about 1 % of its capacity a degree below 20 °C [A]',
    needs: ['isLithium', 'isOutdoors'],
    asks: isSunFed,
    isTight: (f) => !f.isLithium && f.isOutdoors,
    severity: 'caution',
    title: () => 'Lead battery loses capacity in the cold',
    because: () => 'At −10 °C about three tenths of it are missing.',
    do: ['Plan it 43 % larger (1 / 0.7), or keep it indoors.', 'Ventilate it: it gasses when it is charged.'],
    why: 'The dark month is the cold one.',
  }),
  rule({
    id: 'power.old-phone-unlimited',
    question: 'Is the charge of the old phone limited?',
    source: 'held at 40 to 80 % a cell lasts [A]',
    needs: ['chargeUnlimited'],
    asks: (f) => f.isOldPhone === true,
    isTight: (f) => f.chargeUnlimited,
    severity: 'fix',
    title: () => 'Old phone charged to 100 % all the time',
    because: () => 'No charge limit is set.',
    do: ['Limit it to 80 % in its system, or use a timer socket.'],
    mends: (_, offers) => offers.chargeLimit(),
    why: 'Full and warm is how a cell swells.',
  }),
  rule({
    id: 'power.old-phone-hot',
    question: 'Is the battery of the old phone too warm?',
    limits: ['power.cell-warm', 'power.cell-hot'],
    source: 'above 45 °C reduce, above 50 °C stop [A]',
    needs: ['batteryC', 'cellWarmC', 'cellHotC'],
    asks: (f) => f.isOldPhone === true && f.batteryC !== undefined,
    isTight: (f) => f.batteryC > f.cellWarmC,
    severity: 'fix',
    title: (f) =>
      f.batteryC > f.cellHotC ? `Battery at ${f.batteryC} °C: switch it off` : `Battery at ${f.batteryC} °C`,
    because: (f) => `Above ${f.cellWarmC} °C reduce its load, above ${f.cellHotC} °C switch it off.`,
    do: ['Lower frame rate and resolution, keep it out of the sun, with air behind it.'],
    why: 'Heat and full charge together destroy cells.',
  }),
  rule({
    id: 'power.old-phone-swollen',
    question: 'Is its battery swollen?',
    source: 'lithium cells',
    needs: ['isOldPhone'],
    asks: (f) => f.isOldPhone === true,
    judge: (f) => (f.isSwollen === undefined ? 'unknown' : failsIf(f.isSwollen)),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Swollen battery: stop at once',
        because: () => 'It was seen to be swollen.',
        do: ['Do not charge it, press it or open it.', 'Take it out of the building, to a collection point.'],
      },
      unknown: {
        severity: 'caution',
        title: () => 'Battery not looked at',
        because: () => 'Whether it is swollen is not known.',
        do: ['Lay it on a flat table: its back must not bulge, and its screen must not lift.'],
      },
    },
    why: 'A swollen cell can burn without warning.',
  }),
] as const;
