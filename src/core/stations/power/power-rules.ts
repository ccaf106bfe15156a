import { sayUpTo } from '../../base/say.ts';
import { atMost, THRESHOLD_SLACK } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import { POE_LIMITS } from '../../power/poe.ts';
import { BATTERY_RULES } from './battery-rules.ts';
import { LINK_RULES } from './link-rules.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';
import { WANTED_RULES } from './power-wanted.ts';

const rule = rulesFor<PowerFacts, PowerOffers, SiteCommand>();
const volts = (value: number): string => `${value.toFixed(1)} V`;
const watts = (value: number): string => `${Number(value.toFixed(1))} W`;
const list = (names: readonly string[]): string => names.join(', ');
const besides = (names: readonly string[]): string =>
  names.length === 0 ? '' : `; ${list(names)} ${names.length === 1 ? 'hangs' : 'hang'} on it too`;
/** [A] A voltage worth taking a higher supply for: 12 to 24 V. */
const HIGHER = 1.5;
/** Its light takes nothing, or it has none: day and night are one. */
const isSameByDay = ({ runDayVolts, runNightVolts }: Facts<PowerFacts>): boolean =>
  runDayVolts !== undefined && runNightVolts !== undefined && runDayVolts - runNightVolts < 0.05;
const POE = 'IEEE 802.3 clause 33 and 145';
const COPPER = 'IEC 60228, constant power over a loop';

/** What feeds a camera over a wire, and whether that holds. */
const FEED_RULES = [
  rule({
    id: 'power.source-not-offered',
    question: 'Is its power source one that its model card names?',
    source: 'model card: power sources',
    needs: ['way', 'waysOffered'],
    asks: (f) => f.way !== undefined,
    fails: (f) => !f.waysOffered.includes(f.way),
    severity: 'stop',
    title: (f) => `Power source not supported: ${f.way}`,
    because: (f) => `Its model card names ${list(f.waysOffered)}.`,
    do: ['Choose a power source that it supports.'],
    mends: (_, offers) => offers.ways(),
    why: 'A plug that fits is not a voltage that fits.',
  }),
  rule({
    id: 'power.gear-supplies-nothing',
    question: 'Does that gear supply this kind of power?',
    source: 'kind of gear against the power source',
    needs: ['feeder', 'feederFeeds', 'way'],
    asks: (f) => f.feederFeeds !== undefined,
    fails: (f) => !f.feederFeeds,
    severity: 'stop',
    title: (f) => `${f.feeder} does not power it`,
    because: (f) => `Its power source is ${f.way}, and this gear supplies none.`,
    do: [
      'Link it to a switch with PoE, an injector or a power supply.',
      'Add an injector between them, as separate gear.',
    ],
    mends: (_, offers) => offers.feeders(),
    why: 'A link LED does not mean power.',
  }),
  rule({
    id: 'power.supply-volts-high',
    question: 'Does its input tolerate the supply voltage?',
    source: 'model card: range of its input',
    needs: ['feeder', 'supplyVolts', 'maxVolts'],
    asks: (f) => f.supplyVolts !== undefined,
    fails: (f) => f.supplyVolts > f.maxVolts * (1 + 1e-6),
    severity: 'stop',
    title: (f) => `Overvoltage: ${f.feeder} supplies ${f.supplyVolts} V, at most ${f.maxVolts} V allowed`,
    because: () => 'At low load the whole supply voltage reaches its input, however long the cable.',
    do: ['Use a power supply of its voltage, or a converter at the camera.'],
    mends: (_, offers) => offers.feeders(),
    why: 'Overvoltage destroys its input at once, and may start a fire.',
  }),
  rule({
    id: 'power.supply-volts-low',
    question: 'Is the supply voltage below what it needs, before any cable?',
    source: 'model card: range of its input',
    needs: ['feeder', 'supplyVolts', 'minVolts'],
    asks: (f) => f.supplyVolts !== undefined,
    fails: (f) => f.supplyVolts <= f.minVolts,
    severity: 'stop',
    title: (f) => `Undervoltage: ${f.feeder} supplies ${f.supplyVolts} V, more than ${f.minVolts} V needed`,
    because: () => 'The supply voltage is already too low, before any drop in the cable.',
    do: ['Use a power supply of its voltage.'],
    mends: (_, offers) => offers.feeders(),
    why: 'It starts, and fails when its illuminator comes on.',
  }),
  rule({
    id: 'power.switch-budget',
    question: 'Is the PoE budget enough for all devices on it?',
    limits: ['power.poe-headroom'],
    source: `${POE}; a tenth of the budget stays free [A]`,
    needs: ['feeder', 'reservedW', 'budgetW', 'fedBeside'],
    asks: (f) => f.budgetW !== undefined,
    judge: (f) => atMost(f.reservedW, f.budgetW - (f.headroomWantedW ?? 0), f.budgetW),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `PoE budget exceeded: ${f.feeder}`,
        because: (f) =>
          `${watts(f.reservedW)} are reserved, and the budget is ${watts(f.budgetW)}${besides(f.fedBeside)}.`,
        do: [
          'Move a camera to a switch with capacity.',
          'Use a switch with a larger PoE budget, or an injector for one port.',
        ],
      },
      tight: {
        severity: 'fix',
        title: (f) => `PoE budget nearly used: ${f.feeder}`,
        because: (f) => `${watts(f.budgetW - f.reservedW)} of ${watts(f.budgetW)} are left.`,
        do: ['Leave room for heaters in winter, or move one camera.'],
      },
    },
    mends: (_, offers) => offers.feeders(),
    why: 'The switch turns ports off, the highest number first, and at night when illuminators come on.',
  }),
  rule({
    id: 'power.no-port-left',
    question: 'Is there a PoE port for every device?',
    source: 'PoE ports',
    needs: ['feeder', 'portsUsed', 'poePorts'],
    asks: (f) => f.portsUsed !== undefined,
    fails: (f) => f.portsUsed > f.poePorts,
    severity: 'stop',
    title: (f) => `${f.feeder}: ${f.poePorts} PoE ports`,
    because: (f) => `${f.portsUsed} devices are to be powered by it.`,
    do: ['Move one, or add a switch.'],
    mends: (_, offers) => offers.feeders(),
    why: 'Not every port of a switch supplies PoE.',
  }),
  rule({
    id: 'power.class-above-switch',
    question: 'Does the switch grant a PoE class that covers its night load?',
    source: POE,
    needs: ['feeder', 'classAsked', 'isUnderPowered'],
    asks: (f) => f.isPoe === true,
    fails: (f) => f.isUnderPowered,
    severity: 'stop',
    title: (f) => `PoE class ${f.classAsked} not available from ${f.feeder}`,
    because: () => 'The class that it grants is below what the camera takes at night.',
    do: ['Use a switch with a higher PoE type for this camera.'],
    mends: (_, offers) => offers.feeders(),
    why: 'It starts by day, and restarts each evening when its illuminator comes on.',
  }),
  rule({
    id: 'power.class-contradicts-watts',
    question: 'Do PoE class and watts of its model card agree?',
    source: `${POE}: what a class may take`,
    needs: ['takesW', 'classGivesW'],
    asks: (f) => f.classGivesW !== undefined && f.takesW !== undefined,
    fails: (f) => f.takesW > f.classGivesW * (1 + THRESHOLD_SLACK),
    severity: 'stop',
    title: (f) => `Model card contradicts itself: class ${f.classAsked ?? ''} and ${watts(f.takesW)}`,
    because: (f) => `That class supplies ${watts(f.classGivesW)}, whatever switch it is on.`,
    do: ['Read the label of the camera, and correct class or watts in the model card.'],
    why: 'A switch goes by the class: what takes more than its class restarts each evening.',
  }),
  rule({
    id: 'power.gear-unfed',
    question: 'Are the access points on its way powered?',
    source: `${POE}: class, ports and budget of what is on the same switch`,
    needs: ['unfed'],
    asks: (f) => f.unfed !== undefined,
    fails: (f) => f.unfed.length > 0,
    severity: 'stop',
    title: (f) => `No power for ${list(f.unfed)}`,
    because: () => 'Its class, its port or its watts exceed what that switch supplies.',
    do: ['Power it from a supply of its own, or from a switch of a higher PoE type with capacity.'],
    why: 'An access point without power takes every camera on it down.',
  }),
  rule({
    id: 'power.cable',
    question: 'Is the voltage drop over the network cable small enough?',
    limits: ['power.poe-ohm'],
    source: `${POE}; channel of 100 m (ISO/IEC 11801)`,
    needs: ['cableVerdict', 'cableM', 'feeder'],
    asks: (f) => f.isPoe === true,
    judge: (f) => f.cableVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Voltage drop too large over ${f.cableM.toFixed(0)} m of network cable`,
        because: (f) => `Less than ${POE_LIMITS.deadVolts} V are left of what ${f.feeder} supplies.`,
        do: ['Shorten the cable, or add a switch or an extender halfway.'],
      },
      tight: {
        severity: 'fix',
        title: (f) =>
          f.cableM > POE_LIMITS.channelM
            ? `Cable too long: ${f.cableM.toFixed(0)} m`
            : `Low voltage at the camera: ${volts(f.cableVolts ?? 0)}`,
        because: (f) =>
          `${volts(f.cableVolts ?? 0)} after ${f.cableM.toFixed(0)} m; ${POE_LIMITS.comfortableVolts} V and ${POE_LIMITS.channelM} m are safe.`,
        do: ['Add a PoE switch or an extender in between.'],
      },
    },
    why: 'At a low voltage the converter draws more current, and the cable drops still more. It may work on the bench and drop packets in the heat.',
  }),
  rule({
    id: 'power.copper-clad',
    question: 'Is the cable copper-clad aluminium?',
    limits: ['power.copper-clad'],
    source: 'aluminium under copper: about 1.55 times the resistance [A]',
    needs: ['isCopperClad'],
    asks: (f) => f.isCopperClad !== undefined,
    isTight: (f) => f.isCopperClad,
    severity: 'caution',
    title: () => 'Copper-clad aluminium cable',
    because: () => 'It is calculated with its higher resistance.',
    do: ['Use solid copper for power.'],
    mends: (_, offers) => offers.solidCopper(),
    why: 'It heats up, it breaks at the plug, and PoE over it is outside the standard.',
  }),
  rule({
    id: 'power.copper-between-buildings',
    question: 'Does copper leave the building?',
    source: 'surge protection and earthing: local code',
    needs: ['isCopperOutside'],
    asks: (f) => f.isCopperOutside !== undefined,
    isTight: (f) => f.isCopperOutside,
    severity: 'fix',
    title: () => 'Copper cable leaves the building',
    because: () => 'A cable outdoors or between buildings brings surges and earth currents in.',
    do: [
      'Fibre to a switch in that building, with PoE from there.',
      'Surge protection at both ends, earthed as local code requires, by a licensed trade.',
    ],
    why: 'A lightning strike nearby is enough: 48 V gear fails first, then the switch.',
  }),
  rule({
    id: 'power.passive-volts-wrong',
    question: 'Does its input tolerate the voltage of a passive injector?',
    source: 'model card: range of its input; nothing is negotiated',
    needs: ['passiveVolts', 'feeder'],
    asks: (f) => f.passiveVolts !== undefined,
    judge: (f) => {
      const { passiveVolts: given, minVolts, maxVolts } = f;
      if (given > (maxVolts ?? given) || given < (minVolts ?? given)) return 'will-not-work';
      return maxVolts === undefined || minVolts === undefined ? 'unknown' : 'ok';
    },
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          `${f.feeder} supplies ${f.passiveVolts} V, allowed are ${f.minVolts ?? '–'} to ${f.maxVolts ?? '–'} V`,
        because: () => 'A passive injector puts its voltage on the cable whatever is connected.',
        do: ['Use an injector of its voltage.', 'Label the cable: nothing else may be connected there.'],
      },
      unknown: {
        severity: 'fix',
        title: (f) => `Whether it tolerates ${f.passiveVolts} V is not known`,
        because: () =>
          'A passive injector puts its voltage on the cable, and the model card does not give the input range.',
        do: ['Read its label and enter the input range in the model card, before it is connected.'],
      },
    },
    // Where the range is not known, no other injector is known to be right.
    mends: (f, offers) => (f.maxVolts === undefined || f.minVolts === undefined ? [] : offers.feeders()),
    why: 'Overvoltage destroys its input at once; home-made injectors may start a fire.',
  }),
  rule({
    id: 'power.run',
    question: 'Is the voltage drop over a low-voltage cable small enough?',
    limits: ['power.usb-contacts'],
    source: `${COPPER}; the lowest tenth is tight [A]`,
    needs: ['runVerdict', 'runM', 'runLongestM', 'runPick', 'minVolts'],
    asks: (f) => f.isRun === true,
    judge: (f) => f.runVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          `${isSameByDay(f) ? 'Voltage drop too large' : 'Voltage drop too large at night'} over ${f.runM.toFixed(1)} m`,
        because: (f) =>
          `It needs ${volts(f.minVolts)}; this cable holds ${f.runLongestM < 0.1 ? 'over no length' : `up to ${sayUpTo(f.runLongestM)}`}. ${f.runPick}`,
        do: (f) => [
          (f.maxVolts ?? 0) >= HIGHER * (f.supplyVolts ?? Number.POSITIVE_INFINITY)
            ? 'Use a thicker cable, a higher voltage, or a power supply nearby.'
            : 'Use a thicker cable, or a power supply nearby.',
        ],
      },
      tight: {
        severity: 'fix',
        title: (f) =>
          `${volts(f.runNightVolts ?? 0)} left at the camera${isSameByDay(f) ? '' : ' at night'}: just enough`,
        because: (f) => `It needs ${volts(f.minVolts)}. ${f.runPick}`,
        do: ['Use the next thicker cable.'],
      },
    },
    mends: (_, offers) => offers.thickerWire(),
    why: 'A check by day misses it, with the illuminator off. Plugs age, and warm copper has a higher resistance.',
  }),
  rule({
    id: 'power.supply-too-small',
    question: 'Does the power supply deliver the current for all devices on it?',
    source: 'current of all devices on it',
    needs: ['feeder', 'supplyAmps', 'supplyLoadA'],
    asks: (f) => f.supplyAmps !== undefined,
    fails: (f) => f.supplyLoadA > f.supplyAmps * (1 + 1e-6),
    severity: 'stop',
    title: (f) => `Supply overloaded: ${f.feeder} delivers ${f.supplyAmps} A, ${f.supplyLoadA.toFixed(2)} A needed`,
    because: () => 'With illuminators on, all at once.',
    do: ['Use a power supply with current to spare, certified and enclosed.'],
    mends: (_, offers) => offers.feeders(),
    why: 'An overloaded supply drops its voltage, shuts off, or burns.',
  }),
] as const;

/** What feeds a camera, and whether its picture gets through. */
export const POWER_RULES = [...FEED_RULES, ...BATTERY_RULES, ...LINK_RULES, ...WANTED_RULES] as const;
