import { sayMany } from '../../base/say.ts';
import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';

const rule = rulesFor<PowerFacts, PowerOffers, SiteCommand>();
const list = (names: readonly string[]): string => names.join(', ');
const percent = (share: number): string => `${Math.round(share * 100)} %`;

const carried = (f: { wireMbps: number; wireCapacityMbps: number; isWireShared?: boolean | undefined }): string =>
  `${f.wireMbps.toFixed(1)} of ${f.wireCapacityMbps > 0 ? f.wireCapacityMbps.toFixed(0) : 'nobody knows how many'} Mbit/s${f.isWireShared ? ', with all plugs of the house on one mains' : ''}`;

/** Air and wires between a camera and who draws it. */
export const LINK_RULES = [
  rule({
    id: 'air.band-not-spoken',
    question: 'Does it speak the band of its access point?',
    source: 'model card: radio bands',
    needs: ['band', 'bandsOffered', 'accessPoint'],
    asks: (f) => f.accessPoint !== undefined,
    fails: (f) => !f.bandsOffered.includes(f.band),
    severity: 'stop',
    title: (f) => `It does not speak ${f.band} GHz`.replace('sub-GHz GHz', 'sub-GHz'),
    because: (f) =>
      `${f.accessPoint} is on ${f.band}; its card names ${f.bandsOffered.length > 0 ? list(f.bandsOffered) : 'no radio'}.`,
    do: ['Join it to an access point of its band, or by wire.'],
    mends: (_, offers) => offers.accessPoints(),
    why: 'It will not even see the network.',
  }),
  rule({
    id: 'air.signal',
    question: 'Is its signal strong enough?',
    limits: ['air.signal-ok', 'air.signal-tight'],
    source: 'free-space loss and walls; −67 and −75 dBm [A]',
    needs: ['rssiDbm', 'signalOk', 'signalTight', 'accessPoint', 'signalPath'],
    asks: (f) => f.accessPoint !== undefined,
    judge: (f) => atLeast(f.rssiDbm, f.signalOk, f.signalTight),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.accessPoint} does not reach it`,
        because: (f) => `${Math.round(f.rssiDbm)} dBm, ${f.signalPath}; ${f.signalTight} are needed.`,
        do: ['A cable, or an access point on its side of the wall.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `A weak signal, ${Math.round(f.rssiDbm)} dBm`,
        because: (f) => `${f.signalPath}; from ${f.signalOk} dBm on a picture is safe.`,
        do: ['Move the access point, or turn the camera’s antenna out of the metal.'],
      },
    },
    mends: (_, offers) => offers.accessPoints(),
    why: 'At the edge it talks slowly and takes the air from all others; beyond it, it joins once on a dry day, and never after.',
  }),
  rule({
    id: 'air.signal-not-measured',
    question: 'Was its signal read, or only worked out?',
    source: 'known how: assumed < measured',
    needs: ['rssiIsMeasured', 'rssiDbm'],
    asks: (f) => f.accessPoint !== undefined,
    isTight: (f) => !f.rssiIsMeasured,
    severity: 'note',
    title: (f) => `${Math.round(f.rssiDbm)} dBm is worked out, not read`,
    because: () => 'From the plan: distance, walls, nothing else.',
    do: ['Hold a phone where it will hang, and enter what it reads.'],
    why: 'A mirror, a boiler or wet stone are not on the plan.',
  }),
  rule({
    id: 'air.airtime',
    question: 'Is there air left on its channel, and on those that overlap it?',
    limits: ['air.airtime-ok', 'air.airtime-tight', 'link.unknown-stream'],
    source: 'airtime = rate / (rate on the air × efficiency); 40 % at ease, 60 % at most [A]',
    needs: ['airVerdict', 'airtime', 'airtimeOk', 'airtimeTight', 'accessPoint', 'airtimeSharers'],
    asks: (f) => f.accessPoint !== undefined,
    judge: (f) => f.airVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.accessPoint} has no air left`,
        because: (f) =>
          `${Number.isFinite(f.airtime) ? percent(f.airtime) : 'More than all'} of its time is taken${f.airtimeSharers.length > 0 ? `, with ${list(f.airtimeSharers)}` : ''}.`,
        do: ['Bring the heaviest one to a wire.', 'Draw small streams over the air.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.accessPoint} is busy ${percent(f.airtime)} of the time`,
        because: (f) => `Cameras alone; ${percent(f.airtimeOk)} leave room for phones and neighbours.`,
        do: ['Keep guests on another channel.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `How busy the air of ${f.accessPoint} is, is not known`,
        because: () => 'A signal, a rate or the channel of one of its band is missing.',
        do: [
          'Place both ends on the plan or enter the signal, and choose models for all that talk there.',
          'Enter the channel of each access point of its band.',
        ],
      },
    },
    mends: (f, offers) => (f.airVerdict === 'unknown' ? [] : offers.accessPoints()),
    why: 'Airtime, not megabits, is what runs out: Wi-Fi is one lane for all, and a slow talker takes the most of it.',
  }),
  rule({
    id: 'link.load',
    question: 'Does every wire on its way carry what crosses it?',
    limits: ['link.ok', 'link.tight', 'link.unknown-stream'],
    source: 'sum of all streams on it; 50 % at ease, 75 % at most [A]',
    needs: ['wire', 'wireVerdict', 'wireMbps', 'wireCapacityMbps', 'wireOk', 'wireTight'],
    asks: (f) => f.wire !== undefined,
    judge: (f) => f.wireVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.wire} cannot carry it`,
        because: (f) => `${carried(f)}.`,
        do: ['A faster link there.', 'A relay behind it draws each camera once over it.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.wire} is more than half full`,
        because: (f) => `${carried(f)}.`,
        do: ['Leave it room for what is copied at night.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `How full ${f.wire} is, is not known`,
        because: (f) =>
          `${carried(f)}${(f.wireUnknown ?? 0) > 0 ? `, and on it ${sayMany(f.wireUnknown ?? 0, 'stream')} of which nobody knows the rate` : ''}.`,
        do: (f) =>
          f.wireCapacityMbps > 0
            ? ['Choose a model for each camera that is drawn over it, or probe them.']
            : ['Join its ends by plugs, with their sync rate, or enter what it carries.'],
      },
    },
    why: 'Streams come in bursts. Key frames leave at line rate: a full wire drops just these.',
  }),
  rule({
    id: 'link.switch-ports',
    question: 'Has every cable a port?',
    source: 'cables that end at a switch against its ports',
    needs: ['cablesOn', 'switchPorts', 'fullestSwitch'],
    asks: (f) => f.cablesOn !== undefined,
    fails: (f) => f.cablesOn > f.switchPorts,
    severity: 'stop',
    title: (f) => `${f.fullestSwitch} has ${f.switchPorts} ports`,
    because: (f) => `${f.cablesOn} cables end at it.`,
    do: ['Take a larger switch, or move a cable to another.'],
    why: 'The cable that finds no port is found on the day of mounting.',
  }),
  rule({
    id: 'link.powerline-guessed',
    question: 'Does it cross powerline?',
    limits: ['air.powerline'],
    source: 'sync rate × 0.4 [A]',
    needs: ['crossesPowerline'],
    asks: (f) => f.crossesPowerline === true,
    isTight: (f) => f.crossesPowerline,
    severity: 'watch',
    title: () => 'Powerline: measure it for a day',
    because: () => 'What it carries is four tenths of its sync rate, until a dimmer is turned on.',
    do: ['Probe for loss in the evening, when everything runs.', 'Plug it into the wall, not into a strip.'],
    why: 'It is the least predictable of all wires.',
  }),
  rule({
    id: 'link.not-joined',
    question: 'Do links lead to every destination?',
    source: 'links of the plan',
    needs: ['unjoined'],
    asks: (f) => f.isDrawn === true,
    isTight: (f) => f.unjoined.length > 0,
    severity: 'fix',
    title: (f) => `No way to ${list(f.unjoined)}`,
    because: () => 'It is to be drawn there, and no link leads there.',
    do: ['Join the camera, the gear and the destination on the plan or here.'],
    mends: (_, offers) => offers.joins(),
    why: 'What is not joined on paper is not joined on the ladder.',
  }),
] as const;
