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
    source: 'protocols of the destination',
    needs: ['destination', 'protocol', 'protocolsTaken'],
    asks: (f) => f.protocolsTaken !== undefined,
    fails: (f) => !f.protocolsTaken.includes(f.protocol),
    severity: 'stop',
    title: (f) => `${PROTOCOL_WORDS[f.protocol]} not taken by ${f.destination}`,
    because: (f) => `It takes ${sayProtocols(f.protocolsTaken)}.`,
    do: ['Add a relay that offers what it takes.', 'Look for an add-on to it that pulls RTSP.'],
    why: 'A stream that it cannot request does not exist for it.',
  }),
  rule({
    id: 'tap.no-ptz',
    question: 'Can PTZ be used where it is viewed live?',
    source: 'RTSP carries pictures alone; protocols of the destination',
    needs: ['destination', 'protocolsTaken'],
    asks: (f) => f.isSteeredLive === true && f.protocolsTaken !== undefined,
    isTight: (f) => !f.protocolsTaken.includes('onvif'),
    severity: 'caution',
    title: (f) => `No PTZ from ${f.destination}`,
    because: (f) => `A stream alone carries no PTZ, and it takes ${sayProtocols(f.protocolsTaken)} only.`,
    do: [
      'Say so before it is promised.',
      'Use PTZ from a viewer that supports ONVIF, or let it run its own preset tour.',
    ],
    why: 'Whoever bought a PTZ camera expects to move it where they view it.',
  }),
  rule({
    id: 'tap.sound-not-taken',
    question: 'Does the destination take the audio of the stream?',
    source: 'audio codecs of the destination',
    needs: ['destination', 'soundCodec', 'soundsTaken'],
    asks: (f) => f.soundCodec !== undefined && f.soundsTaken !== undefined,
    isTight: (f) => !f.soundsTaken.includes(f.soundCodec),
    severity: 'caution',
    title: (f) => `Audio not taken by ${f.destination}`,
    because: (f) => `It comes as ${saySounds([f.soundCodec])}; ${f.destination} takes ${saySounds(f.soundsTaken)}.`,
    do: (f) => [
      `Set the audio of the camera to ${saySounds(f.soundsTaken.slice(0, 1))}.`,
      'Add a relay that offers what it takes.',
    ],
    why: 'The picture comes and the audio is missing; some destinations then drop both.',
  }),
  rule({
    id: 'tap.sound-recorded',
    question: 'Is speech recorded?',
    source: 'laws on recording speech differ from place to place; audio as the stream describes it',
    needs: ['records', 'soundCodec'],
    asks: (f) => f.soundCodec !== undefined,
    isTight: (f) => f.records,
    severity: 'note',
    title: () => 'Speech is recorded',
    because: (f) => `Its stream carries audio (${saySounds([f.soundCodec])}), and this destination records it.`,
    do: [
      'Ask what the law says there: in many places speech may not be recorded without consent.',
      'Switch the audio off in the camera where nobody needs it.',
    ],
    why: 'A picture of a door is one thing; a conversation in front of it is another, and whoever records it is liable.',
  }),
  rule({
    id: 'tap.picture-too-large',
    question: 'Is the resolution within what the destination takes?',
    source: 'largest resolution of the destination',
    needs: ['destination', 'widthPx', 'heightPx', 'mostWidthPx', 'mostHeightPx'],
    asks: (f) => f.mostWidthPx !== undefined,
    fails: (f) => isLarger(f),
    severity: 'stop',
    title: (f) => `${size(f.widthPx, f.heightPx)} too large for ${f.destination}`,
    because: (f) => `It takes up to ${size(f.mostWidthPx, f.mostHeightPx)}.`,
    do: ['Let it pull a smaller stream.', 'Set the encoder to a resolution that it takes.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'Beyond its limit a decoder shows nothing, or falls back to the processor and stutters.',
  }),
  rule({
    id: 'tap.too-many-frames',
    question: 'Is the frame rate within what the destination takes?',
    source: 'highest frame rate of the destination',
    needs: ['destination', 'streamFps', 'mostFps'],
    asks: (f) => f.mostFps !== undefined,
    isTight: (f) => Math.round(f.streamFps * 10) > Math.round(f.mostFps * 10),
    severity: 'fix',
    title: (f) => `Frame rate ${sayFps(f.streamFps)} too high for ${f.destination}`,
    because: (f) => `It takes up to ${sayFps(f.mostFps)}.`,
    do: ['Set the encoder to a lower frame rate.', 'Let it pull a stream with a lower frame rate.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'Excess frames are dropped, and the picture jerks.',
  }),
  rule({
    id: 'tap.rate-too-high',
    question: 'Is the bit rate within what the destination takes?',
    source: 'highest bit rate of the destination',
    needs: ['destination', 'rateKbps', 'mostKbps'],
    asks: (f) => f.mostKbps !== undefined,
    fails: (f) => f.rateKbps > f.mostKbps * (1 + 1e-9),
    severity: 'stop',
    title: (f) => `Bit rate ${sayRate(f.rateKbps)} too high for ${f.destination}`,
    because: (f) => `It takes up to ${sayRate(f.mostKbps)} a stream.`,
    do: ['Lower the bit rate at the encoder.', 'Let it pull a stream with a lower bit rate.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'Too high a bit rate fills its buffer, and the picture breaks up when something moves.',
  }),
  rule({
    id: 'tap.decoders',
    question: 'Can the destination decode all that it shows and analyses?',
    source: 'streams that the destination decodes at once',
    needs: ['destination', 'decodesUsed', 'decodes'],
    asks: (f) => f.isDecoded === true && f.decodes !== undefined,
    fails: (f) => f.decodesUsed > f.decodes,
    severity: 'stop',
    title: (f) => `${f.destination} decodes ${f.decodes} at once, ${f.decodesUsed} needed`,
    because: (f) => `It shows or analyses ${sayMany(f.decodesUsed, 'stream')}.`,
    do: ['Show fewer at once.', 'Let another destination do the analysis.'],
    why: 'The last ones stay black, and which these are changes from day to day.',
  }),
  rule({
    id: 'tap.licences',
    question: 'Are there licences for all that it pulls?',
    source: 'channels pulled against the licences included; packs at the least cost',
    needs: ['destination', 'licencesUsed', 'licencesIncluded', 'licencePacks'],
    asks: (f) => f.licencesIncluded !== undefined,
    judge: (f) => (f.licencesUsed <= f.licencesIncluded ? 'ok' : f.licencePacks === '' ? 'will-not-work' : 'tight'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          `Licences of ${f.destination}: ${sayCount(f.licencesIncluded)} included, ${sayCount(f.licencesUsed)} used`,
        because: () => 'No packs of more licences are entered.',
        do: ['Enter the packs that are sold for it.', 'Send fewer cameras there.'],
      },
      tight: {
        severity: 'fix',
        title: (f) =>
          `Licences of ${f.destination}: ${sayCount(f.licencesUsed)} used, ${sayCount(f.licencesIncluded)} included`,
        because: (f) => `The cheapest way to the missing ones: ${f.licencePacks}.`,
        do: ['Buy them with the order, or send fewer cameras there.'],
      },
    },
    why: 'A recorder short of licences shows the next channel as a name without a picture.',
  }),
] as const;
