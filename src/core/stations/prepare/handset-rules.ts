import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { PrepareFacts, PrepareOffers } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();
const isHandset = (f: Facts<PrepareFacts>): boolean => f.isHandset === true;

/** An old handset as a camera. */
export const HANDSET_RULES = [
  rule({
    id: 'prepare.handset-heat',
    question: 'Does a handset stay cool with what it does, where it is?',
    limits: [
      'power.cell-warm',
      'power.cell-hot',
      'handset.open',
      'handset.metal',
      'handset.closed',
      'handset.capacity',
    ],
    source: 'room + R·P·(1 − e^(−t/RC)) [A]; from 45 °C less, from 50 °C stop [A]',
    needs: ['steadyC', 'minutesToWarm', 'roomC', 'handsetW', 'cellWarmC', 'cellHotC'],
    asks: isHandset,
    judge: (f) => (f.steadyC > f.cellHotC ? 'will-not-work' : f.steadyC > f.cellWarmC ? 'tight' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `It ends at ${Math.round(f.steadyC)} °C: too hot to stay on`,
        because: (f) => heatWords(f),
        do: ['Less of everything: a smaller picture, fewer frames, its screen off, air behind it, a cooler place.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `It gets too warm${f.minutesToWarm === null ? '' : ` after ${sayMinutes(f.minutesToWarm)}`}`,
        because: (f) => heatWords(f),
        do: ['A smaller picture, fewer frames, its screen off, air behind it.'],
      },
    },
    mends: (_, offers) => offers.cooler(),
    why: 'A warm handset drops frames to save itself; one that stays warm on its charger swells.',
  }),
  rule({
    id: 'prepare.handset-screen',
    question: 'Is the screen of a handset dark?',
    source: 'a lit screen is the most that a handset heats [A]',
    needs: ['screen'],
    asks: isHandset,
    isTight: (f) => f.screen === 'bright',
    severity: 'watch',
    title: () => 'Its screen stays lit',
    because: () => 'It takes a watt, and shows everybody that it films.',
    do: ['Let its screen go dark while the server runs; dim it where the system will not.'],
    mends: (_, offers) => offers.screenOff(),
    why: 'It burns in, it warms the cell, and at night it lights the room.',
  }),
  rule({
    id: 'prepare.handset-restart',
    question: 'Does it stream again by itself after a restart?',
    source: 'power fails now and then [A]',
    needs: ['startsItself'],
    asks: isHandset,
    isTight: (f) => !f.startsItself,
    severity: 'fix',
    title: () => 'After a restart it gives no picture by itself',
    because: () => 'Somebody must unlock it and open its server.',
    do: ['Set the server to start with the system, no lock on the screen, no saving of battery for it.'],
    why: 'It restarts for an update one night, and nobody notices until the picture is wanted.',
  }),
  rule({
    id: 'prepare.handset-mac',
    question: 'Does its hardware address stay the same?',
    source: 'IEEE 802: a locally administered address may change with each joining',
    needs: ['hasFixedMac'],
    asks: isHandset,
    isTight: (f) => !f.hasFixedMac,
    severity: 'fix',
    title: () => 'Its hardware address changes',
    because: () => 'It takes a random one for this network.',
    do: ['Switch the private address off for this network, then reserve its address by the true one.'],
    why: 'A reservation goes by it: after the next change the handset has another address, and every tap is lost.',
  }),
  rule({
    id: 'prepare.handset-howl',
    question: 'Is its sound played in the room that it listens to?',
    source: 'microphone and speaker in one room',
    needs: ['sendsSound', 'isHeardNearby'],
    asks: (f) => isHandset(f) && f.sendsSound === true,
    isTight: (f) => f.isHeardNearby,
    severity: 'fix',
    title: () => 'It will howl',
    because: () => 'Its sound is played in the room that it listens to.',
    do: ['Switch its sound off, or mute what plays it there.'],
    mends: (_, offers) => offers.soundOff(),
    why: 'A second of delay makes an echo, less makes a whistle that nobody traces to a camera.',
  }),
  rule({
    id: 'prepare.handset-way',
    question: 'Does its picture stay in the house?',
    source: 'local first [A]',
    needs: ['way'],
    asks: isHandset,
    isTight: (f) => f.way === 'account',
    severity: 'fix',
    title: () => 'Its picture goes by the account of a maker',
    because: () => 'It leaves the house and comes back, and no destination here draws it.',
    do: ['Take a server on the handset itself, which gives RTSP or pictures by HTTP.'],
    mends: (_, offers) => offers.localWay(),
    why: 'It stops with the internet, with the account, or with the maker.',
  }),
  rule({
    id: 'prepare.handset-lens',
    question: 'Is the better lens used?',
    source: 'the lens at the front has the smaller sensor [A]',
    needs: ['lens', 'wantsDetail'],
    asks: isHandset,
    isTight: (f) => f.lens === 'front' && f.wantsDetail,
    severity: 'watch',
    title: () => 'The lens at the front shows less',
    because: () => 'Its place asks for more than that something is there.',
    do: ['Take the lens at the back.'],
    mends: (_, offers) => offers.backLens(),
    why: 'Half the pixels and a smaller sensor: in the evening the difference is a face.',
  }),
  rule({
    id: 'prepare.handset-dark',
    question: 'Has it a light for the dark?',
    source: 'a handset has no infrared light',
    needs: ['atNight', 'hasLight'],
    asks: (f) => isHandset(f) && f.atNight === true,
    fails: (f) => !f.hasLight,
    severity: 'fix',
    title: () => 'At night it sees nothing',
    because: () => 'Its place is to be seen in the dark, and it has no light of its own.',
    do: ['Leave a lamp on there, or take a camera with a light.'],
    why: 'Its sensor filters infrared out: an array of diodes does not help either.',
  }),
  rule({
    id: 'prepare.handset-loop',
    question: 'Does its own recording last as long as is wanted?',
    source: 'card ÷ rate of the stream, nine tenths of it usable [A]',
    needs: ['loopHours', 'loopHoursWanted'],
    asks: (f) => isHandset(f) && f.loopHoursWanted !== undefined,
    judge: (f) => atLeast(f.loopHours, f.loopHoursWanted * 1.2, f.loopHoursWanted),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: (f) => `Its recording goes round after ${sayHours(f.loopHours)}`,
        because: (f) => `${sayHours(f.loopHoursWanted)} are wanted.`,
        do: ['Take a larger card, or a lower rate.'],
      },
      tight: {
        severity: 'watch',
        title: (f) => `Its recording lasts ${sayHours(f.loopHours)}, with little to spare`,
        because: (f) => `${sayHours(f.loopHoursWanted)} are wanted; a busy day has a higher rate.`,
        do: ['Take a larger card, or a lower rate.'],
      },
    },
    mends: (_, offers) => offers.loopWanted(),
    why: 'What goes round writes over the oldest hour, and that is the one somebody asks for.',
  }),
] as const;

export const sayMinutes = (minutes: number): string =>
  minutes < 1 ? 'a minute' : minutes < 120 ? `${Math.floor(minutes)} min` : `${Math.floor(minutes / 60)} h`;
export const sayHours = (hours: number): string =>
  hours < 48
    ? `${Number((Math.floor(hours * 10) / 10).toFixed(1))} h`
    : `${Number((Math.floor((hours / 24) * 10) / 10).toFixed(1))} days`;

type HeatFacts = Pick<PrepareFacts, 'steadyC' | 'roomC' | 'handsetW' | 'cellWarmC'> & Facts<PrepareFacts>;
const heatWords = (f: HeatFacts): string =>
  `${f.handsetW.toFixed(1)} W in a room of ${f.roomC} °C lead to ${f.steadyC.toFixed(0)} °C${f.isHeatRead ? ', as it was read there' : ''}; from ${f.cellWarmC} °C on it does less.`;
