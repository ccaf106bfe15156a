import { rulesFor } from '../../findings/rule.ts';
import type { PowerFacts } from './power-facts.ts';

const rule = rulesFor<PowerFacts>();
const list = (names: readonly string[]): string => names.join(', ');
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Air and wires between a camera and who draws it. */
export const LINK_RULES = [
  rule({
    id: 'air.band-not-spoken',
    severity: 'stop',
    source: 'model card: radio bands',
    needs: ['band', 'bandsOffered', 'accessPoint'],
    fails: (f) => !f.bandsOffered.includes(f.band),
    title: (f) => `It does not speak ${f.band} GHz`.replace('sub-GHz GHz', 'sub-GHz'),
    because: (f) =>
      `${f.accessPoint} is on ${f.band}; its card names ${f.bandsOffered.length > 0 ? list(f.bandsOffered) : 'no radio'}.`,
    do: ['Join it to an access point of its band, or by wire.'],
    why: 'It will not even see the network.',
  }),
  rule({
    id: 'air.signal-lost',
    severity: 'stop',
    source: 'free-space loss and walls; −75 dBm [A]',
    needs: ['rssiDbm', 'signalTight', 'accessPoint', 'signalPath'],
    fails: (f) => f.rssiDbm < f.signalTight,
    title: (f) => `${f.accessPoint} does not reach it`,
    because: (f) => `${Math.round(f.rssiDbm)} dBm, ${f.signalPath}; ${f.signalTight} are needed.`,
    do: ['A cable, or an access point on its side of the wall.'],
    why: 'It joins once on a dry day, and never after.',
  }),
  rule({
    id: 'air.signal-weak',
    severity: 'fix',
    source: 'free-space loss and walls; −67 dBm [A]',
    needs: ['rssiDbm', 'signalOk', 'signalTight', 'signalPath'],
    fails: (f) => f.rssiDbm < f.signalOk && f.rssiDbm >= f.signalTight,
    title: (f) => `A weak signal, ${Math.round(f.rssiDbm)} dBm`,
    because: (f) => `${f.signalPath}; from ${f.signalOk} dBm on a picture is safe.`,
    do: ['Move the access point, or turn the camera’s antenna out of the metal.'],
    why: 'At the edge it talks slowly, and takes the air from all others.',
  }),
  rule({
    id: 'air.signal-not-measured',
    severity: 'note',
    source: 'known how: assumed < measured',
    needs: ['rssiIsMeasured', 'rssiDbm'],
    fails: (f) => !f.rssiIsMeasured,
    title: (f) => `${Math.round(f.rssiDbm)} dBm is worked out, not read`,
    because: () => 'From the plan: distance, walls, nothing else.',
    do: ['Hold a phone where it will hang, and enter what it reads.'],
    why: 'A mirror, a boiler or wet stone are not on the plan.',
  }),
  rule({
    id: 'air.airtime-full',
    severity: 'stop',
    source: 'airtime = rate / (rate on the air × efficiency); 60 % [A]',
    needs: ['airtime', 'airtimeTight', 'accessPoint', 'airtimeSharers'],
    fails: (f) => f.airtime > f.airtimeTight * (1 + 1e-6),
    title: (f) => `${f.accessPoint} has no air left`,
    because: (f) =>
      `${Number.isFinite(f.airtime) ? percent(f.airtime) : 'More than all'} of its time is taken${f.airtimeSharers.length > 0 ? `, with ${list(f.airtimeSharers)}` : ''}.`,
    do: ['Bring the heaviest one to a wire.', 'Draw small streams over the air, or record on events.'],
    why: 'Wi-Fi is one lane for all: a slow talker takes the most of it.',
  }),
  rule({
    id: 'air.airtime-tight',
    severity: 'fix',
    source: '40 % at ease, 60 % at most [A]',
    needs: ['airtime', 'airtimeOk', 'airtimeTight', 'accessPoint'],
    fails: (f) => f.airtime > f.airtimeOk * (1 + 1e-6) && f.airtime <= f.airtimeTight * (1 + 1e-6),
    title: (f) => `${f.accessPoint} is busy ${percent(f.airtime)} of the time`,
    because: (f) => `Cameras alone; ${percent(f.airtimeOk)} leave room for phones and neighbours.`,
    do: ['Keep guests on another channel.'],
    why: 'Airtime, not megabits, is what runs out.',
  }),
  rule({
    id: 'link.over',
    severity: 'stop',
    source: 'sum of all streams on it; 75 % [A]',
    needs: ['wire', 'wireMbps', 'wireCapacityMbps', 'wireTight'],
    fails: (f) => f.wireMbps > f.wireCapacityMbps * f.wireTight * (1 + 1e-6),
    title: (f) => `${f.wire} cannot carry it`,
    because: (f) => `${f.wireMbps.toFixed(1)} of ${f.wireCapacityMbps.toFixed(0)} Mbit/s.`,
    do: ['A faster uplink, or draw each camera once through a relay.'],
    why: 'Key frames leave at line rate: a full wire drops just these.',
  }),
  rule({
    id: 'link.tight',
    severity: 'fix',
    source: 'sum of all streams on it; 50 % at ease [A]',
    needs: ['wire', 'wireMbps', 'wireCapacityMbps', 'wireOk', 'wireTight'],
    fails: (f) =>
      f.wireMbps > f.wireCapacityMbps * f.wireOk * (1 + 1e-6) &&
      f.wireMbps <= f.wireCapacityMbps * f.wireTight * (1 + 1e-6),
    title: (f) => `${f.wire} is more than half full`,
    because: (f) => `${f.wireMbps.toFixed(1)} of ${f.wireCapacityMbps.toFixed(0)} Mbit/s.`,
    do: ['Leave it room for what is copied at night.'],
    why: 'Streams come in bursts.',
  }),
  rule({
    id: 'link.powerline-guessed',
    severity: 'watch',
    source: 'sync rate × 0.4 [A]',
    needs: ['crossesPowerline', 'wireCapacityMbps'],
    fails: (f) => f.crossesPowerline,
    title: () => 'Powerline: measure it for a day',
    because: () => 'What it carries is four tenths of its sync rate, until a dimmer is turned on.',
    do: ['Probe for loss in the evening, when everything runs.', 'Plug it into the wall, not into a strip.'],
    why: 'It is the least predictable of all wires.',
  }),
  rule({
    id: 'link.not-joined',
    severity: 'fix',
    source: 'links of the plan',
    needs: ['unjoined'],
    fails: (f) => f.unjoined.length > 0,
    title: (f) => `No way to ${list(f.unjoined)}`,
    because: () => 'It is to be drawn there, and no link leads there.',
    do: ['Join the camera, the gear and the destination on the plan or here.'],
    why: 'What is not joined on paper is not joined on the ladder.',
  }),
] as const;
