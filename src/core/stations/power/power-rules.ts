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
    id: 'power.way-not-offered',
    question: 'Is it fed in a way that its card names?',
    source: 'model card: ways of power',
    needs: ['way', 'waysOffered'],
    asks: (f) => f.way !== undefined,
    fails: (f) => !f.waysOffered.includes(f.way),
    severity: 'stop',
    title: (f) => `It is not fed by ${f.way}`,
    because: (f) => `Its card names ${list(f.waysOffered)}.`,
    do: ['Feed it in a way that it takes.'],
    mends: (_, offers) => offers.ways(),
    why: 'A plug that fits is not a voltage that fits.',
  }),
  rule({
    id: 'power.feeder-feeds-nothing',
    question: 'Does that gear feed in this way at all?',
    source: 'kind of gear against the way of power',
    needs: ['feeder', 'feederFeeds', 'way'],
    asks: (f) => f.feederFeeds !== undefined,
    fails: (f) => !f.feederFeeds,
    severity: 'stop',
    title: (f) => `${f.feeder} does not feed it`,
    because: (f) => `It is to be fed by ${f.way}, and this gear gives none.`,
    do: [
      'Join it to a switch whose ports feed, an injector or a supply.',
      'Put an injector between, as gear of its own.',
    ],
    mends: (_, offers) => offers.feeders(),
    why: 'A link light is not power.',
  }),
  rule({
    id: 'power.supply-volts-high',
    question: 'Is the supply above what its input stands?',
    source: 'model card: range of its input',
    needs: ['feeder', 'supplyVolts', 'maxVolts'],
    asks: (f) => f.supplyVolts !== undefined,
    fails: (f) => f.supplyVolts > f.maxVolts * (1 + 1e-6),
    severity: 'stop',
    title: (f) => `${f.feeder} gives ${f.supplyVolts} V, it takes ${f.maxVolts}`,
    because: () => 'With little load the whole voltage of the supply stands at its input, however long the run.',
    do: ['Take a supply of its voltage, or a converter at the camera.'],
    mends: (_, offers) => offers.feeders(),
    why: 'Too much burns its input at once, and perhaps more than that.',
  }),
  rule({
    id: 'power.supply-volts-low',
    question: 'Is the supply below what it needs, before any wire?',
    source: 'model card: range of its input',
    needs: ['feeder', 'supplyVolts', 'minVolts'],
    asks: (f) => f.supplyVolts !== undefined,
    fails: (f) => f.supplyVolts <= f.minVolts,
    severity: 'stop',
    title: (f) => `${f.feeder} gives ${f.supplyVolts} V, it needs more than ${f.minVolts}`,
    because: () => 'Already at the supply it is too little, before any wire takes of it.',
    do: ['Take a supply of its voltage.'],
    mends: (_, offers) => offers.feeders(),
    why: 'It starts, and dies when its light comes on.',
  }),
  rule({
    id: 'power.switch-budget',
    question: 'Do the watts of a switch or an injector suffice for all on it?',
    limits: ['power.poe-headroom'],
    source: `${POE}; a tenth of the budget stays free [A]`,
    needs: ['feeder', 'reservedW', 'budgetW', 'fedBeside'],
    asks: (f) => f.budgetW !== undefined,
    judge: (f) => atMost(f.reservedW, f.budgetW - (f.headroomWantedW ?? 0), f.budgetW),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.feeder} is over its budget`,
        because: (f) => `${watts(f.reservedW)} are asked of it, and it has ${watts(f.budgetW)}${besides(f.fedBeside)}.`,
        do: [
          'Move a camera to a switch with room.',
          'Take a switch with a larger budget, or an injector for one port.',
        ],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.feeder} is nearly full`,
        because: (f) => `${watts(f.budgetW - f.reservedW)} of ${watts(f.budgetW)} are left.`,
        do: ['Leave room for heaters in winter, or move one camera.'],
      },
    },
    mends: (_, offers) => offers.feeders(),
    why: 'The switch turns ports off, the highest number first, and at night when the lights come on. The next camera is always asked for.',
  }),
  rule({
    id: 'power.no-port-left',
    question: 'Is there a port that feeds for everything?',
    source: 'ports that feed',
    needs: ['feeder', 'portsUsed', 'poePorts'],
    asks: (f) => f.portsUsed !== undefined,
    fails: (f) => f.portsUsed > f.poePorts,
    severity: 'stop',
    title: (f) => `${f.feeder} has ${f.poePorts} ports that feed`,
    because: (f) => `${f.portsUsed} things are to be fed by it.`,
    do: ['Move one, or add a switch.'],
    mends: (_, offers) => offers.feeders(),
    why: 'Not every port of a switch feeds.',
  }),
  rule({
    id: 'power.class-above-switch',
    question: 'Does the switch grant a class that feeds its night?',
    source: POE,
    needs: ['feeder', 'classAsked', 'isUnderPowered'],
    asks: (f) => f.isPoe === true,
    fails: (f) => f.isUnderPowered,
    severity: 'stop',
    title: (f) => `${f.feeder} cannot give class ${f.classAsked}`,
    because: () => 'The class that it grants is below what the camera takes at night.',
    do: ['Take a switch of a higher type for this camera.'],
    mends: (_, offers) => offers.feeders(),
    why: 'It starts by day, and restarts each evening when its light goes on.',
  }),
  rule({
    id: 'power.class-contradicts-watts',
    question: 'Does the class of its card give the watts of its card?',
    source: `${POE}: what a class may take`,
    needs: ['takesW', 'classGivesW'],
    asks: (f) => f.classGivesW !== undefined && f.takesW !== undefined,
    fails: (f) => f.takesW > f.classGivesW * (1 + THRESHOLD_SLACK),
    severity: 'stop',
    title: (f) => `Its card contradicts itself: class ${f.classAsked ?? ''} and ${watts(f.takesW)}`,
    because: (f) => `That class gives ${watts(f.classGivesW)}, whatever switch it hangs on.`,
    do: ['Read the label of the camera, and put its class or its watts right in the card.'],
    why: 'A switch believes the class: what asks for less than it takes restarts each evening.',
  }),
  rule({
    id: 'power.gear-unfed',
    question: 'Are the access points on its way fed?',
    source: `${POE}: class, ports and budget of what hangs on the same switch`,
    needs: ['unfed'],
    asks: (f) => f.unfed !== undefined,
    fails: (f) => f.unfed.length > 0,
    severity: 'stop',
    title: (f) => `No power for ${list(f.unfed)}`,
    because: () => 'Its class, its port or its watts are more than that switch gives.',
    do: ['Feed it from a supply of its own, or from a switch of a higher type with room.'],
    why: 'An access point without power takes every camera on it along.',
  }),
  rule({
    id: 'power.cable',
    question: 'Does enough voltage arrive over the network cable?',
    limits: ['power.poe-ohm'],
    source: `${POE}; channel of 100 m (ISO/IEC 11801)`,
    needs: ['cableVerdict', 'cableM', 'feeder'],
    asks: (f) => f.isPoe === true,
    judge: (f) => f.cableVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Too little arrives over ${f.cableM.toFixed(0)} m`,
        because: (f) => `Less than ${POE_LIMITS.deadVolts} V are left of what ${f.feeder} gives.`,
        do: ['Shorten the cable, or put a switch or an extender halfway.'],
      },
      tight: {
        severity: 'fix',
        title: (f) =>
          f.cableM > POE_LIMITS.channelM
            ? `${f.cableM.toFixed(0)} m is longer than a channel`
            : `Only ${volts(f.cableVolts ?? 0)} arrive`,
        because: (f) =>
          `${volts(f.cableVolts ?? 0)} behind ${f.cableM.toFixed(0)} m; ${POE_LIMITS.comfortableVolts} V and ${POE_LIMITS.channelM} m are sure.`,
        do: ['Put a switch or an extender that feeds between.'],
      },
    },
    why: 'A converter that starves draws more current, and the cable takes still more. It may link on the bench and drop packets in the heat.',
  }),
  rule({
    id: 'power.copper-clad',
    question: 'Is the run copper-clad aluminium?',
    limits: ['power.copper-clad'],
    source: 'aluminium under copper: about 1.55 times the resistance [A]',
    needs: ['isCopperClad'],
    asks: (f) => f.isCopperClad !== undefined,
    isTight: (f) => f.isCopperClad,
    severity: 'watch',
    title: () => 'Copper-clad aluminium in the run',
    because: () => 'It is counted with its higher resistance.',
    do: ['Take solid copper for what feeds.'],
    mends: (_, offers) => offers.solidCopper(),
    why: 'It warms, it breaks at the plug, and power over it is not within the standard.',
  }),
  rule({
    id: 'power.copper-between-buildings',
    question: 'Does copper leave the building?',
    source: 'surge and earthing: local code',
    needs: ['isCopperOutside'],
    asks: (f) => f.isCopperOutside !== undefined,
    isTight: (f) => f.isCopperOutside,
    severity: 'fix',
    title: () => 'Copper leaves the building',
    because: () => 'A run in the open or between buildings brings surges and earth currents in.',
    do: [
      'Fibre to a switch in that building, which then feeds.',
      'Surge protection at both ends, earthed as local code says, by a licensed trade.',
    ],
    why: 'Lightning nearby is enough: 48 V gear dies first, then the switch.',
  }),
  rule({
    id: 'power.passive-volts-wrong',
    question: 'Does its input stand what a passive injector gives?',
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
        title: (f) => `${f.feeder} gives ${f.passiveVolts} V, it takes ${f.minVolts ?? '–'} to ${f.maxVolts ?? '–'}`,
        because: () => 'A passive injector puts its voltage on the cable whoever is plugged in.',
        do: ['Take an injector of its voltage.', 'Mark the cable: nothing else may be plugged in there.'],
      },
      unknown: {
        severity: 'fix',
        title: (f) => `Whether it stands ${f.passiveVolts} V is not known`,
        because: () =>
          'A passive injector puts its voltage on the cable, and the card does not say what its input takes.',
        do: ['Read its label and enter the range of its input in the card, before anything is plugged in.'],
      },
    },
    // Where the range is not known, no other injector is known to be right.
    mends: (f, offers) => (f.maxVolts === undefined || f.minVolts === undefined ? [] : offers.feeders()),
    why: 'Too much burns its input at once; home-made injectors burn more than that.',
  }),
  rule({
    id: 'power.run',
    question: 'Does enough voltage arrive over a low-voltage run?',
    limits: ['power.usb-contacts'],
    source: `${COPPER}; the lowest tenth is tight [A]`,
    needs: ['runVerdict', 'runM', 'runLongestM', 'runPick', 'minVolts'],
    asks: (f) => f.isRun === true,
    judge: (f) => f.runVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${isSameByDay(f) ? 'Too' : 'At night too'} little arrives over ${f.runM.toFixed(1)} m`,
        because: (f) =>
          `It needs ${volts(f.minVolts)}; this wire holds ${f.runLongestM < 0.1 ? 'over no length' : `up to ${sayUpTo(f.runLongestM)}`}. ${f.runPick}`,
        do: (f) => [
          (f.maxVolts ?? 0) >= HIGHER * (f.supplyVolts ?? Number.POSITIVE_INFINITY)
            ? 'Take thicker copper, a higher voltage, or a supply nearer by.'
            : 'Take thicker copper, or a supply nearer by.',
        ],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${volts(f.runNightVolts ?? 0)} arrive${isSameByDay(f) ? '' : ' at night'}, with little to spare`,
        because: (f) => `It needs ${volts(f.minVolts)}. ${f.runPick}`,
        do: ['Take the next thicker wire.'],
      },
    },
    mends: (_, offers) => offers.thickerWire(),
    why: 'One looks by day, when its light is off. Plugs age, and warm copper resists more.',
  }),
  rule({
    id: 'power.supply-too-small',
    question: 'Does the supply give the current of all on it?',
    source: 'current of all that hangs on it',
    needs: ['feeder', 'supplyAmps', 'supplyLoadA'],
    asks: (f) => f.supplyAmps !== undefined,
    fails: (f) => f.supplyLoadA > f.supplyAmps * (1 + 1e-6),
    severity: 'stop',
    title: (f) => `${f.feeder} gives ${f.supplyAmps} A, ${f.supplyLoadA.toFixed(2)} A are drawn`,
    because: () => 'With lights on, all at once.',
    do: ['Take a supply with current to spare, certified and enclosed.'],
    mends: (_, offers) => offers.feeders(),
    why: 'An overdrawn supply lowers its voltage, or shuts off, or burns.',
  }),
] as const;

/** What feeds a camera, and whether its picture gets through. */
export const POWER_RULES = [...FEED_RULES, ...BATTERY_RULES, ...LINK_RULES, ...WANTED_RULES] as const;
