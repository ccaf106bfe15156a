import { sayMany } from '../../base/say.ts';
import { atLeast } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { PowerFacts, PowerOffers } from './power-facts.ts';

const rule = rulesFor<PowerFacts, PowerOffers, SiteCommand>();
const list = (names: readonly string[]): string => names.join(', ');
const percent = (share: number): string => `${Math.round(share * 100)} %`;

const carried = (f: { wireMbps: number; wireCapacityMbps: number; isWireShared?: boolean | undefined }): string =>
  `${f.wireMbps.toFixed(1)} of ${f.wireCapacityMbps > 0 ? f.wireCapacityMbps.toFixed(0) : 'an unknown number of'} Mbit/s${f.isWireShared ? ', shared by all powerline adaptors on one mains' : ''}`;

/** Air and wires between a camera and who draws it. */
export const LINK_RULES = [
  rule({
    id: 'air.band-not-spoken',
    question: 'Does it support the band of its access point?',
    source: 'model card: Wi-Fi bands',
    needs: ['band', 'bandsOffered', 'accessPoint'],
    asks: (f) => f.accessPoint !== undefined,
    fails: (f) => !f.bandsOffered.includes(f.band),
    severity: 'stop',
    title: (f) => `No ${f.band} GHz radio`.replace('sub-GHz GHz', 'sub-GHz'),
    because: (f) =>
      `${f.accessPoint} is on ${f.band}; its model card names ${f.bandsOffered.length > 0 ? list(f.bandsOffered) : 'no radio'}.`,
    do: ['Link it to an access point on its band, or by cable.'],
    mends: (_, offers) => offers.accessPoints(),
    why: 'It will not even see the network.',
  }),
  rule({
    id: 'air.signal',
    question: 'Is its Wi-Fi signal strong enough?',
    limits: ['air.signal-ok', 'air.signal-tight'],
    source: 'free-space loss and walls; −67 and −75 dBm [A]',
    needs: ['rssiDbm', 'signalOk', 'signalTight', 'accessPoint', 'signalPath'],
    asks: (f) => f.accessPoint !== undefined,
    judge: (f) => atLeast(f.rssiDbm, f.signalOk, f.signalTight),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Out of range of ${f.accessPoint}`,
        because: (f) => `${Math.round(f.rssiDbm)} dBm, ${f.signalPath}; ${f.signalTight} are needed.`,
        do: ['A cable, or an access point on its side of the wall.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Weak signal: ${Math.round(f.rssiDbm)} dBm`,
        because: (f) => `${f.signalPath}; from ${f.signalOk} dBm a stream is safe.`,
        do: ['Move the access point, or turn the camera’s antenna away from metal.'],
      },
    },
    mends: (_, offers) => offers.accessPoints(),
    why: 'At the edge of its range a device sends slowly and takes airtime from all others; beyond it, it connects on a dry day, and never again.',
  }),
  rule({
    id: 'air.signal-not-measured',
    question: 'Was its signal measured, or only computed?',
    source: 'known how: assumed < measured',
    needs: ['rssiIsMeasured', 'rssiDbm'],
    asks: (f) => f.accessPoint !== undefined,
    isTight: (f) => !f.rssiIsMeasured,
    severity: 'note',
    title: (f) => `Signal of ${Math.round(f.rssiDbm)} dBm computed, not measured`,
    because: () => 'From the plan: distance and walls only.',
    do: ['Hold a phone at its place, and enter the signal it shows.'],
    why: 'A mirror, a boiler or wet stone are not on the plan.',
  }),
  rule({
    id: 'air.airtime',
    question: 'Is there airtime left on its channel, and on overlapping ones?',
    limits: ['air.airtime-ok', 'air.airtime-tight', 'link.unknown-stream'],
    source: 'airtime = rate / (PHY rate × efficiency); 40 % comfortable, 60 % at most [A]',
    needs: ['airVerdict', 'airtime', 'airtimeOk', 'airtimeTight', 'accessPoint', 'airtimeSharers'],
    asks: (f) => f.accessPoint !== undefined,
    judge: (f) => f.airVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Channel of ${f.accessPoint} overloaded`,
        because: (f) =>
          `${Number.isFinite(f.airtime) ? percent(f.airtime) : 'More than all'} of its airtime is used${f.airtimeSharers.length > 0 ? `, with ${list(f.airtimeSharers)}` : ''}.`,
        do: ['Connect the device with the highest airtime by cable.', 'Pull sub streams over Wi-Fi.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Channel of ${f.accessPoint} busy ${percent(f.airtime)} of the time`,
        because: (f) => `Cameras alone; ${percent(f.airtimeOk)} leave room for phones and neighbours.`,
        do: ['Put guests on another channel.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `Airtime of ${f.accessPoint} not known`,
        because: () => 'A signal, a rate or the channel of an access point on its band is missing.',
        do: [
          'Place both ends on the plan or enter the signal, and choose model cards for all devices on it.',
          'Enter the channel of each access point of its band.',
        ],
      },
    },
    mends: (f, offers) => (f.airVerdict === 'unknown' ? [] : offers.accessPoints()),
    why: 'Airtime, not bit rate, is what runs out: Wi-Fi is shared, and a slow device takes the most of it.',
  }),
  rule({
    id: 'link.load',
    question: 'Does every link on its way have the capacity?',
    limits: ['link.ok', 'link.tight', 'link.unknown-stream'],
    source: 'sum of all streams on it; 50 % comfortable, 75 % at most [A]',
    needs: ['wire', 'wireVerdict', 'wireMbps', 'wireCapacityMbps', 'wireOk', 'wireTight'],
    asks: (f) => f.wire !== undefined,
    judge: (f) => f.wireVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Link overloaded: ${f.wire}`,
        because: (f) => `${carried(f)}.`,
        do: ['Plan a faster link there.', 'Add a relay behind it that pulls each camera once over it.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Link more than half full: ${f.wire}`,
        because: (f) => `${carried(f)}.`,
        do: ['Leave capacity for backups at night.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `Load of ${f.wire} not known`,
        because: (f) =>
          `${carried(f)}${(f.wireUnknown ?? 0) > 0 ? `, and ${sayMany(f.wireUnknown ?? 0, 'stream')} of unknown rate on it` : ''}.`,
        do: (f) =>
          f.wireCapacityMbps > 0
            ? ['Choose a model card for each camera that is pulled over it, or probe them.']
            : ['Enter the sync rate of its powerline adaptors, or its capacity.'],
      },
    },
    why: 'Streams come in bursts. Key frames leave at line rate: a full link drops exactly these.',
  }),
  rule({
    id: 'link.switch-ports',
    question: 'Is there a port for every cable?',
    source: 'cables that end at a switch against its ports',
    needs: ['cablesOn', 'switchPorts', 'fullestSwitch'],
    asks: (f) => f.cablesOn !== undefined,
    fails: (f) => f.cablesOn > f.switchPorts,
    severity: 'stop',
    title: (f) => `${f.fullestSwitch}: ${f.switchPorts} ports`,
    because: (f) => `${f.cablesOn} cables end at it.`,
    do: ['Plan a larger switch, or move a cable to another.'],
    why: 'The cable without a port is found on the day of mounting.',
  }),
  rule({
    id: 'link.powerline-guessed',
    question: 'Is powerline on its way?',
    limits: ['air.powerline'],
    source: 'sync rate × 0.4 [A]',
    needs: ['crossesPowerline'],
    asks: (f) => f.crossesPowerline === true,
    isTight: (f) => f.crossesPowerline,
    severity: 'caution',
    title: () => 'Powerline: measure it for a day',
    because: () => 'Its throughput is four tenths of its sync rate, until a dimmer is turned on.',
    do: [
      'Probe for packet loss in the evening, when everything runs.',
      'Plug it into the wall, not into a power strip.',
    ],
    why: 'It is the least predictable of all links.',
  }),
  rule({
    id: 'link.not-joined',
    question: 'Are links planned to every destination?',
    source: 'links of the plan',
    needs: ['unjoined'],
    asks: (f) => f.isDrawn === true,
    isTight: (f) => f.unjoined.length > 0,
    severity: 'fix',
    title: (f) => `No link to ${list(f.unjoined)}`,
    because: () => 'Its stream goes there, and no link leads there.',
    do: ['Link the camera, the gear and the destination on the plan or here.'],
    mends: (_, offers) => offers.joins(),
    why: 'What is not linked on paper is forgotten on the ladder.',
  }),
] as const;
