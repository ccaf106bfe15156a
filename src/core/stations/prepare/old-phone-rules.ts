import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { PrepareFacts, PrepareOffers } from './prepare-facts.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();
const isOldPhone = (f: Facts<PrepareFacts>): boolean => f.isOldPhone === true;

/** An old handset as a camera. */
export const OLD_PHONE_RULES = [
  rule({
    id: 'prepare.old-phone-heat',
    question: 'Does the old phone stay cool with this load, in its place?',
    limits: [
      'power.cell-warm',
      'power.cell-hot',
      'handset.open',
      'handset.metal',
      'handset.closed',
      'handset.capacity',
    ],
    source: 'room + R·P·(1 − e^(−t/RC)) [A]; from 45 °C less, from 50 °C stop [A]',
    needs: ['steadyC', 'minutesToWarm', 'roomC', 'oldPhoneW', 'cellWarmC', 'cellHotC'],
    asks: isOldPhone,
    judge: (f) => (f.steadyC > f.cellHotC ? 'will-not-work' : f.steadyC > f.cellWarmC ? 'tight' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Old phone reaches ${Math.round(f.steadyC)} °C: too hot`,
        because: (f) => heatWords(f),
        do: ['Reduce everything: lower resolution and frame rate, screen off, air behind it, a cooler place.'],
      },
      tight: {
        severity: 'fix',
        title: (f) =>
          `Old phone gets too warm${f.minutesToWarm === null ? '' : ` after ${sayMinutes(f.minutesToWarm)}`}`,
        because: (f) => heatWords(f),
        do: ['Lower resolution and frame rate, screen off, air behind it.'],
      },
    },
    mends: (_, offers) => offers.cooler(),
    why: 'A warm phone drops frames to protect itself; one that stays warm on its charger swells.',
  }),
  rule({
    id: 'prepare.old-phone-heated',
    question: 'Does something else heat the old phone?',
    source: 'P·t/C: all that its own watts can warm it in an hour, no heat leaving it; nine tenths of that [A]',
    needs: ['isHeatedElsewhere'],
    asks: (f) => isOldPhone(f) && f.isHeatedElsewhere !== undefined,
    isTight: (f) => f.isHeatedElsewhere,
    severity: 'fix',
    title: () => 'Old phone heated by something else',
    because: (f) => `It was read warmer than ${f.oldPhoneW?.toFixed(1) ?? 'its own'} W can make it within an hour.`,
    do: [
      'Look for the sun on it, a heater, or its charger beneath it, and move it.',
      'Read its battery again after an hour.',
    ],
    why: 'Its own settings do not cool it then, and how warm it gets is not known from that reading.',
  }),
  rule({
    id: 'prepare.old-phone-screen',
    question: 'Is the screen of the old phone off?',
    source: 'a lit screen is the largest heat source of a phone [A]',
    needs: ['screen'],
    asks: isOldPhone,
    isTight: (f) => f.screen === 'bright',
    severity: 'caution',
    title: () => 'Screen stays on',
    because: () => 'It takes a watt, and shows everybody that it films.',
    do: ['Let the screen switch off while the server runs; dim it where the system does not.'],
    mends: (_, offers) => offers.screenOff(),
    why: 'It burns in, it warms the cell, and at night it lights the room.',
  }),
  rule({
    id: 'prepare.old-phone-restart',
    question: 'Does it stream again after a restart?',
    source: 'power fails now and then [A]',
    needs: ['startsItself'],
    asks: isOldPhone,
    isTight: (f) => !f.startsItself,
    severity: 'fix',
    title: () => 'No stream after a restart',
    because: () => 'Somebody must unlock it and start its server.',
    do: ['Set the server to start with the system, no screen lock, no battery saver for it.'],
    why: 'It restarts for an update one night, and nobody notices until the picture is needed.',
  }),
  rule({
    id: 'prepare.old-phone-mac',
    question: 'Is its MAC address fixed?',
    source: 'IEEE 802: a locally administered address may change with each connection',
    needs: ['hasFixedMac'],
    asks: isOldPhone,
    isTight: (f) => !f.hasFixedMac,
    severity: 'fix',
    title: () => 'Random MAC address',
    because: () => 'It uses a random MAC address for this network.',
    do: ['Switch the random MAC address off for this network, then plan a DHCP reservation with the fixed one.'],
    why: 'A reservation goes by the MAC address: after the next change the phone has another IP address, and every tap fails.',
  }),
  rule({
    id: 'prepare.old-phone-feedback',
    question: 'Is its audio played in the room where it listens?',
    source: 'microphone and speaker in one room',
    needs: ['sendsSound', 'isHeardNearby'],
    asks: (f) => isOldPhone(f) && f.sendsSound === true,
    isTight: (f) => f.isHeardNearby,
    severity: 'fix',
    title: () => 'Acoustic feedback',
    because: () => 'Its audio is played in the room where its microphone is.',
    do: ['Switch its audio off, or mute what plays it there.'],
    mends: (_, offers) => offers.soundOff(),
    why: 'A second of delay makes an echo, less makes a whistle that nobody traces to a camera.',
  }),
  rule({
    id: 'prepare.old-phone-cloud',
    question: 'Does its stream stay in the house?',
    source: 'local first [A]',
    needs: ['way'],
    asks: isOldPhone,
    isTight: (f) => f.way === 'account',
    severity: 'fix',
    title: () => 'Stream goes through the maker’s cloud',
    because: () => 'It leaves the house and comes back, and no destination here pulls it.',
    do: ['Install a server on the phone itself, which offers RTSP or snapshots over HTTP.'],
    mends: (_, offers) => offers.localWay(),
    why: 'It stops with the internet, with the account, or with the maker.',
  }),
  rule({
    id: 'prepare.old-phone-lens',
    question: 'Is the better lens used?',
    source: 'the front lens has the smaller sensor [A]',
    needs: ['lens', 'wantsDetail'],
    asks: isOldPhone,
    isTight: (f) => f.lens === 'front' && f.wantsDetail,
    severity: 'caution',
    title: () => 'Front lens: less detail',
    because: () => 'The need asks for more than to monitor.',
    do: ['Use the rear lens.'],
    mends: (_, offers) => offers.backLens(),
    why: 'Half the pixels and a smaller sensor: in the evening the difference is a face.',
  }),
  rule({
    id: 'prepare.old-phone-dark',
    question: 'Has it an illuminator for the night?',
    source: 'a phone has no IR illuminator',
    needs: ['atNight', 'hasLight'],
    asks: (f) => isOldPhone(f) && f.atNight === true,
    fails: (f) => !f.hasLight,
    severity: 'fix',
    title: () => 'No picture at night',
    because: () => 'The need includes the night, and it has no illuminator.',
    do: ['Leave a lamp on there, or choose a camera with an illuminator.'],
    why: 'Its sensor filters infrared out: an external IR illuminator does not help either.',
  }),
  rule({
    id: 'prepare.old-phone-loop',
    question: 'Does its own recording last as long as needed?',
    source: 'storage ÷ bit rate, nine tenths of it usable [A]',
    needs: ['loopHours', 'loopHoursWanted'],
    asks: (f) => isOldPhone(f) && f.loopHoursWanted !== undefined,
    judge: (f) => atLeast(f.loopHours, f.loopHoursWanted * 1.2, f.loopHoursWanted),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: (f) => `Recording overwritten after ${sayHours(f.loopHours)}`,
        because: (f) => `${sayHours(f.loopHoursWanted)} are needed.`,
        do: ['Use a larger SD card, or a lower bit rate.'],
      },
      tight: {
        severity: 'caution',
        title: (f) => `Recording lasts ${sayHours(f.loopHours)}: just enough`,
        because: (f) => `${sayHours(f.loopHoursWanted)} are needed; a busy day has a higher bit rate.`,
        do: ['Use a larger SD card, or a lower bit rate.'],
      },
    },
    mends: (_, offers) => offers.loopWanted(),
    why: 'The oldest hour is overwritten, and that is the one somebody asks for.',
  }),
] as const;

export const sayMinutes = (minutes: number): string =>
  minutes < 1 ? 'a minute' : minutes < 120 ? `${Math.floor(minutes)} min` : `${Math.floor(minutes / 60)} h`;
export const sayHours = (hours: number): string =>
  hours < 48
    ? `${Number((Math.floor(hours * 10) / 10).toFixed(1))} h`
    : `${Number((Math.floor((hours / 24) * 10) / 10).toFixed(1))} days`;

type HeatFacts = Pick<PrepareFacts, 'steadyC' | 'roomC' | 'oldPhoneW' | 'cellWarmC'> & Facts<PrepareFacts>;
const heatWords = (f: HeatFacts): string =>
  `${f.oldPhoneW.toFixed(1)} W in a room of ${f.roomC} °C lead to ${f.steadyC.toFixed(0)} °C${f.isHeatRead ? ', as it was measured there' : ''}; from ${f.cellWarmC} °C on it does less.`;
