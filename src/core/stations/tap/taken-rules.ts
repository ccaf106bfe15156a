import { sayCount, sayFps, sayMany, sayRate } from '../../base/say.ts';
import { PROTOCOL_WORDS, type Protocol } from '../../document/chapters/destinations/destination.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { saySounds } from '../../figures/written-figures.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { TapFacts, TapOffers } from './tap-facts.ts';

const rule = rulesFor<TapFacts, TapOffers, SiteCommand>();
const size = (width: number, height: number): string => `${width}×${height}`;

const sayProtocols = (protocols: readonly Protocol[]): string =>
  protocols.map((protocol) => PROTOCOL_WORDS[protocol]).join(', ');

/** A picture that is turned on its side is as large as it was. */
function isLarger(f: Pick<TapFacts, 'widthPx' | 'heightPx' | 'mostWidthPx' | 'mostHeightPx'>): boolean {
  const long = Math.max(f.widthPx, f.heightPx) > Math.max(f.mostWidthPx, f.mostHeightPx);
  return long || f.widthPx * f.heightPx > f.mostWidthPx * f.mostHeightPx;
}

/** Asked only where the destination's figures say a limit: then a stream of which that is not known is not known to fit. */
export const TAKEN_RULES = [
  rule({
    id: 'tap.protocol-not-taken',
    question: 'Does the destination take its protocol?',
    source: 'protocols among the figures of the destination',
    needs: ['destination', 'protocol', 'protocolsTaken'],
    asks: (f) => f.protocolsTaken !== undefined,
    fails: (f) => !f.protocolsTaken.includes(f.protocol),
    severity: 'stop',
    title: (f) => `${f.destination} does not take ${PROTOCOL_WORDS[f.protocol]}`,
    because: (f) => `It takes ${sayProtocols(f.protocolsTaken)}.`,
    do: ['Put a relay between that gives what it takes.', 'Look for an addition to it that draws RTSP.'],
    why: 'A stream that it cannot ask for is not there.',
  }),
  rule({
    id: 'tap.no-steering',
    question: 'Can it be turned from where it is seen live?',
    source: 'RFC 2326 carries pictures alone; protocols among the figures of the destination',
    needs: ['destination', 'protocolsTaken'],
    asks: (f) => f.isSteeredLive === true && f.protocolsTaken !== undefined,
    isTight: (f) => !f.protocolsTaken.includes('onvif'),
    severity: 'watch',
    title: (f) => `${f.destination} shows it, and cannot turn it`,
    because: (f) => `A stream alone carries no steering, and it takes ${sayProtocols(f.protocolsTaken)} only.`,
    do: ['Say so before it is promised.', 'Turn it from a viewer that speaks ONVIF, or let it go its own rounds.'],
    why: 'Whoever bought a camera that turns expects to turn it where they see it.',
  }),
  rule({
    id: 'tap.sound-not-taken',
    question: 'Does the destination take the sound of the stream?',
    source: 'codecs of sound among the figures of the destination',
    needs: ['destination', 'soundCodec', 'soundsTaken'],
    asks: (f) => f.soundCodec !== undefined && f.soundsTaken !== undefined,
    isTight: (f) => !f.soundsTaken.includes(f.soundCodec),
    severity: 'watch',
    title: (f) => `${f.destination} does not take its sound`,
    because: (f) => `It comes as ${saySounds([f.soundCodec])}; ${f.destination} takes ${saySounds(f.soundsTaken)}.`,
    do: (f) => [
      `Set the sound of the camera to ${saySounds(f.soundsTaken.slice(0, 1))}.`,
      'Put a relay between that gives what it takes.',
    ],
    why: 'The picture comes and the sound is missing; some destinations then drop both.',
  }),
  rule({
    id: 'tap.sound-recorded',
    question: 'Are people’s words recorded?',
    source: 'laws on the spoken word differ from place to place; sound as the stream describes it',
    needs: ['records', 'soundCodec'],
    asks: (f) => f.soundCodec !== undefined,
    isTight: (f) => f.records,
    severity: 'note',
    title: () => 'What people say is recorded',
    because: (f) => `Its stream carries sound (${saySounds([f.soundCodec])}), and this destination records it.`,
    do: [
      'Ask what the law says there: in many places words may not be recorded without consent.',
      'Turn the sound off in the camera where nobody needs it.',
    ],
    why: 'A picture of a door is one thing; a talk before it is another, and whoever records it answers for that.',
  }),
  rule({
    id: 'tap.picture-too-large',
    question: 'Is the picture within what the destination takes?',
    source: 'largest picture among the figures of the destination',
    needs: ['destination', 'widthPx', 'heightPx', 'mostWidthPx', 'mostHeightPx'],
    asks: (f) => f.mostWidthPx !== undefined,
    fails: (f) => isLarger(f),
    severity: 'stop',
    title: (f) => `${size(f.widthPx, f.heightPx)} is too large for ${f.destination}`,
    because: (f) => `It takes up to ${size(f.mostWidthPx, f.mostHeightPx)}.`,
    do: ['Let it draw a smaller stream.', 'Set the encoder of the camera to a size that it takes.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'Beyond its limit a decoder shows nothing, or falls back to the processor and stutters.',
  }),
  rule({
    id: 'tap.too-many-frames',
    question: 'Are its frames a second within what the destination takes?',
    source: 'most frames a second among the figures of the destination',
    needs: ['destination', 'streamFps', 'mostFps'],
    asks: (f) => f.mostFps !== undefined,
    isTight: (f) => Math.round(f.streamFps * 10) > Math.round(f.mostFps * 10),
    severity: 'fix',
    title: (f) => `${sayFps(f.streamFps)} frames a second are more than ${f.destination} takes`,
    because: (f) => `It takes up to ${sayFps(f.mostFps)}.`,
    do: ['Set the encoder to fewer frames.', 'Let it draw a stream with fewer.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'What is too many is dropped, and what is dropped is seen as a jerk.',
  }),
  rule({
    id: 'tap.rate-too-high',
    question: 'Is its rate within what the destination takes?',
    source: 'highest rate among the figures of the destination',
    needs: ['destination', 'rateKbps', 'mostKbps'],
    asks: (f) => f.mostKbps !== undefined,
    fails: (f) => f.rateKbps > f.mostKbps * (1 + 1e-9),
    severity: 'stop',
    title: (f) => `${sayRate(f.rateKbps)} is more than ${f.destination} takes`,
    because: (f) => `It takes up to ${sayRate(f.mostKbps)} a stream.`,
    do: ['Lower the rate at the encoder.', 'Let it draw a leaner stream.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'Too high a rate fills its buffer, and the picture breaks where something moves.',
  }),
  rule({
    id: 'tap.decoders',
    question: 'Does the destination decode all that it shows and searches?',
    source: 'streams that the destination decodes at once, by its figures',
    needs: ['destination', 'decodesUsed', 'decodes'],
    asks: (f) => f.isDecoded === true && f.decodes !== undefined,
    fails: (f) => f.decodesUsed > f.decodes,
    severity: 'stop',
    title: (f) => `${f.destination} decodes ${f.decodes} at once, not ${f.decodesUsed}`,
    because: (f) => `${sayMany(f.decodesUsed, 'stream')} are shown or searched by it.`,
    do: ['Show fewer at once.', 'Let another destination look for something in them.'],
    why: 'The last ones stay black, and which these are changes from day to day.',
  }),
  rule({
    id: 'tap.seats',
    question: 'Are there seats for all that it draws?',
    source: 'channels that are drawn against the seats that are included; packs by the least cost',
    needs: ['destination', 'seatsUsed', 'seatsIncluded', 'seatPacks'],
    asks: (f) => f.seatsIncluded !== undefined,
    judge: (f) => (f.seatsUsed <= f.seatsIncluded ? 'ok' : f.seatPacks === '' ? 'will-not-work' : 'tight'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.destination} has ${sayMany(f.seatsIncluded, 'seat')}, ${sayCount(f.seatsUsed)} are used`,
        because: () => 'No packs of more are among its figures.',
        do: ['Enter the packs that are sold for it.', 'Draw fewer cameras there.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${sayCount(f.seatsUsed)} of ${sayMany(f.seatsIncluded, 'seat')} of ${f.destination} are used`,
        because: (f) => `The cheapest way to the missing ones: ${f.seatPacks}.`,
        do: ['Buy them with the order, or draw fewer cameras there.'],
      },
    },
    why: 'A recorder that counts channels shows the next one as a name without a picture.',
  }),
] as const;
