import { atLeast, type Verdict } from '../../base/verdict.ts';
import { LOCAL_STREAM_WORDS, type LocalStream, type Sound } from '../../document/chapters/models/model-card.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import { judgeIngress } from '../../site/judgements.ts';
import type { ChooseFacts, ChooseOffers } from './choose-facts.ts';

const rule = rulesFor<ChooseFacts, ChooseOffers, SiteCommand>();
const metres = (value: number): string => `${value.toFixed(1)} m`;
/** A second person at the foot of the ladder from here on. [A] */
const LADDER_M = 3;

type F = Facts<ChooseFacts>;
const STREAM_VERDICTS: Readonly<Record<LocalStream, Verdict>> = {
  both: 'ok',
  rtsp: 'ok',
  onvif: 'ok',
  'account-only': 'will-not-work',
  'after-reflash': 'tight',
};
const SOUND_ORDER: readonly Sound[] = ['none', 'hear', 'talk'];
const SOUND_WORDS: Readonly<Record<Sound, string>> = { none: 'none', hear: 'hears', talk: 'two-way' };
const asksForSound = ({ soundWanted }: F): boolean => soundWanted !== undefined && soundWanted !== 'none';
const SUPPLY_FREE_WAYS: ReadonlySet<string> = new Set(['poe', 'passive', 'solar']);

/** What its card says that the place and who draws it ask for, and the work of hanging it. */
export const CARD_RULES = [
  rule({
    id: 'choose.local-stream',
    question: 'Does it offer a local stream?',
    source: 'model card: local stream',
    needs: ['localStream'],
    judge: (f) => STREAM_VERDICTS[f.localStream],
    label: () => 'local stream',
    said: (f) => LOCAL_STREAM_WORDS[f.localStream],
    reason: () => 'Whether a stream is available without the maker’s servers.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Streams through its maker’s account only',
        because: () => 'There is no RTSP and no ONVIF on this network, so no destination can pull it.',
        do: ['Choose another model.', 'Ask whether firmware with a local stream exists for this hardware revision.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Streams only after a reflash',
        because: () => 'As delivered it has no local stream.',
        do: [
          'Match board, flash chip, sensor and radio before it is bought.',
          'Keep a way back: a full copy of its original firmware.',
        ],
      },
    },
    mends: (_, offers) => offers.models('choose.local-stream'),
    why: 'Without the maker’s servers an account-only camera shows nothing, and the maker decides for how long. A reflash ends warranty and approval marks, and wrong firmware ends the camera. Only own equipment.',
  }),
  rule({
    id: 'choose.codec-not-taken',
    question: 'Does every destination take one of its codecs?',
    source: 'codecs of the destinations against those of the model card',
    needs: ['missedBy', 'codecs', 'silentDrawers'],
    asks: (f) => (f.sessionsWanted ?? 0) > 0,
    judge: (f) => (f.missedBy.length > 0 ? 'will-not-work' : f.silentDrawers.length > 0 ? 'unknown' : 'ok'),
    label: () => 'codec for every destination',
    said: (f) => (f.missedBy.length > 0 ? `not ${f.missedBy.map(({ name }) => name).join(', ')}` : f.codecs.join(', ')),
    reason: (f) =>
      f.missedBy.length > 0
        ? `It offers ${f.codecs.join(', ')}.`
        : f.silentDrawers.length > 0
          ? `The codecs of ${f.silentDrawers.join(', ')} are not entered.`
          : 'Each takes one of its streams.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Codec not taken by ${f.missedBy.map(({ name }) => name).join(', ')}`,
        because: (f) =>
          `It offers ${f.codecs.join(', ')}; ${f.missedBy.map(({ name, takes }) => `${name} takes ${takes.join(', ')}`).join('; ')}.`,
        do: ['Choose a model with a codec they take.', 'Add a relay that transcodes, with the power to do so.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `Codecs of ${f.silentDrawers.join(', ')} not known`,
        because: (f) => `It offers ${f.codecs.join(', ')}; what ${f.silentDrawers.join(', ')} takes is not entered.`,
        do: ['Enter the codecs of the destination.'],
      },
    },
    mends: (_, offers) => offers.models('choose.codec-not-taken'),
    why: 'A codec that saves disk is no use where nobody can view it.',
  }),
  rule({
    id: 'choose.sessions',
    question: 'Does it support enough sessions, and one to view with?',
    source: 'sessions of the model card against those that pull, and one to view with [A]',
    needs: ['sessions', 'sessionsWanted'],
    asks: (f) => (f.sessionsWanted ?? 0) > 0,
    judge: (f) => atLeast(f.sessions, f.sessionsWanted + 1, f.sessionsWanted),
    label: (f) => `${f.sessionsWanted ?? 0} would pull it at once`,
    said: (f) => String(f.sessions),
    reason: () => 'One more is wanted to view with.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.sessionsWanted} sessions needed, ${f.sessions} supported`,
        because: (f) => `It supports ${f.sessions} at once.`,
        do: ['Pull it once through a relay.', 'Choose a model with more sessions.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `All ${f.sessionsWanted} sessions in use`,
        because: (f) => `It supports ${f.sessions} at once.`,
        do: ['Pull it once through a relay, so that one stays free to view with.'],
      },
    },
    mends: (_, offers) => offers.models('choose.sessions'),
    why: 'Whoever connects last is refused: after a power failure any destination, otherwise whoever comes to find a fault.',
  }),
  rule({
    id: 'choose.no-sub-stream',
    question: 'Has it a sub stream for viewers and detectors?',
    source: 'a wall of tiles pulls sub streams',
    needs: ['hasSub'],
    asks: (f) => f.wantsSub === true,
    isTight: (f) => !f.hasSub,
    label: () => 'sub stream to view',
    said: (f) => (f.hasSub ? 'yes' : 'none'),
    reason: () => 'Viewers and detectors pull a sub stream.',
    severity: 'fix',
    title: () => 'No sub stream for viewers and detectors',
    because: () => 'They would decode the main stream, each for itself.',
    do: ['Choose a model with a sub stream.', 'Count the main stream in their decode budget.'],
    mends: (_, offers) => offers.models('choose.no-sub-stream'),
    why: 'Nine tiles in full resolution stop a tablet.',
  }),
  rule({
    id: 'choose.weather',
    question: 'Is its IP rating enough for its place?',
    source: 'IEC 60529',
    needs: ['ingress'],
    asks: (f) => f.outdoors === true,
    judge: (f) => judgeIngress(f.ingress),
    label: () => 'outdoors',
    said: (f) => `IP${f.ingress}`,
    reason: () => 'IEC 60529: protection against dust and water.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `IP${f.ingress}: not for rain`,
        because: () => 'Outdoors asks for IP54 under a roof, IP65 in the open.',
        do: [
          'Choose a model with a higher IP rating.',
          'Use a rated housing with a drip loop, no connector facing up.',
        ],
      },
      tight: {
        severity: 'fix',
        title: (f) => `IP${f.ingress}: under a roof only`,
        because: () => 'Outdoors asks for IP54 under a roof, IP65 in the open.',
        do: ['Mount it under the eaves.'],
      },
    },
    mends: (_, offers) => offers.models('choose.weather'),
    why: 'It works until the first storm, and then its connector corrodes. Rain comes from the side.',
  }),
  rule({
    id: 'choose.no-sound',
    question: 'Has it the audio that the need asks for?',
    source: 'need against model card',
    needs: ['soundWanted', 'sound'],
    asks: asksForSound,
    fails: (f) => SOUND_ORDER.indexOf(f.sound) < SOUND_ORDER.indexOf(f.soundWanted),
    label: (f) => (f.soundWanted === 'talk' ? 'two-way audio' : 'audio'),
    said: (f) => SOUND_WORDS[f.sound],
    reason: () => 'Microphone, or microphone and loudspeaker.',
    severity: 'stop',
    title: (f) => (f.soundWanted === 'talk' ? 'No loudspeaker' : 'No microphone'),
    because: (f) => (f.sound === 'none' ? 'It has no microphone.' : 'It has a microphone and no loudspeaker.'),
    do: ['Choose a model with two-way audio, or add a door station.'],
    mends: (_, offers) => offers.models('choose.no-sound'),
    why: 'Audio cannot be added later.',
  }),
  rule({
    id: 'choose.sound-is-asked',
    question: 'Is audio asked for, which needs more consent?',
    source: 'recording audio is often restricted more than recording pictures',
    needs: ['soundWanted'],
    asks: asksForSound,
    isTight: () => true,
    severity: 'note',
    title: () => 'Audio needs more consent than a picture',
    because: () => 'The need asks for audio.',
    do: ['Leave it off until somebody who knows local law has agreed.'],
    why: 'In many places recording a conversation is an offence. This is no legal advice.',
  }),
  rule({
    id: 'choose.does-not-turn',
    question: 'Has it the pan and tilt that the need asks for?',
    source: 'need against model card',
    needs: ['panRangeDeg'],
    asks: (f) => f.turnsWanted === true,
    fails: (f) => f.panRangeDeg === 0,
    label: () => 'turns',
    said: (f) => (f.panRangeDeg > 0 ? `${f.panRangeDeg}°, ${f.tiltRangeDeg ?? '–'}°` : 'no'),
    reason: (f) => (f.panRangeDeg > 0 ? 'Pan and tilt of the model.' : 'Fixed camera'),
    severity: 'stop',
    title: () => 'Fixed: no pan and tilt',
    because: () => 'The need asks for pan and tilt.',
    do: ['Choose a PTZ model, or two fixed ones.'],
    mends: (_, offers) => offers.models('choose.does-not-turn'),
    why: 'Digital panning shows less of the same picture.',
  }),
  rule({
    id: 'choose.no-supply-in-box',
    question: 'Is a power supply in the box, or none needed?',
    source: 'model card: what is in the box',
    needs: ['ways'],
    isTight: (f) => f.supplyInBox === false && !f.ways.some((way) => SUPPLY_FREE_WAYS.has(way)),
    label: () => 'power',
    said: (f) => f.ways.join(', '),
    reason: (f) =>
      f.supplyInBox === undefined
        ? 'Whether a power supply is in the box is not known.'
        : f.supplyInBox
          ? 'A power supply is in the box.'
          : 'No power supply is in the box.',
    severity: 'note',
    title: () => 'No power supply in the box',
    because: (f) => `Its power source is ${f.ways.join(', ')}.`,
    do: ['Order a certified power supply of its voltage and enough current with it.'],
    why: 'A camera without its power supply means a second visit.',
  }),
  rule({
    id: 'choose.account-features-lost',
    question: 'Which functions are lost without the maker’s account?',
    source: 'model card: lost without the account',
    needs: ['lostWithoutAccount'],
    isTight: (f) => f.lostWithoutAccount.length > 0,
    label: () => 'lost without the account',
    said: (f) => (f.lostWithoutAccount.length > 0 ? f.lostWithoutAccount.join(', ') : 'nothing'),
    reason: () => 'Functions provided by the maker’s servers.',
    severity: 'note',
    title: (f) => `Lost without the maker’s account: ${f.lostWithoutAccount.join(', ')}`,
    because: () => 'The maker’s servers provide these.',
    do: ['Ask the customer whether they rely on them.'],
    why: 'What was advertised is missed later.',
  }),
  rule({
    id: 'choose.gives-other-size',
    question: 'Is the resolution the one of its model card, by a probe?',
    source: 'resolution by a probe against the model card',
    needs: ['seenSize', 'cardSize', 'givesFewerPixels'],
    asks: (f) => f.seenSize !== undefined && f.cardSize !== undefined,
    isTight: (f) => f.seenSize !== f.cardSize,
    label: () => 'resolution by a probe',
    said: (f) => f.seenSize,
    reason: (f) => `Its model card says ${f.cardSize}.`,
    isQuiet: true,
    severity: (f) => (f.givesFewerPixels ? 'fix' : 'note'),
    title: (f) => `Resolution ${f.seenSize}; its model card says ${f.cardSize}`,
    because: () => 'Measured by a probe of its main stream. The detail above is computed from the measured resolution.',
    do: (f) =>
      f.givesFewerPixels
        ? [
            'Set its main stream to full resolution and probe again.',
            'If that is all it offers, correct its model card.',
          ]
        : ['Correct its model card.'],
    why: 'Many cameras are delivered with a low resolution set, and nobody checks again.',
  }),
  rule({
    id: 'choose.gives-other-codec',
    question: 'Is the codec one of its model card, by a probe?',
    source: 'codec by a probe against the model card',
    needs: ['seenCodec', 'cardCodecs'],
    asks: (f) => f.seenCodec !== undefined && f.cardCodecs !== undefined,
    isTight: (f) => !f.cardCodecs.includes(f.seenCodec),
    severity: 'caution',
    title: (f) => `Codec ${f.seenCodec}; its model card names ${f.cardCodecs.join(', ')}`,
    because: () => 'Measured by a probe of its main stream.',
    do: ['Check the encoder setting; otherwise correct its model card.'],
    why: 'Its destinations were chosen by the model card.',
  }),
  rule({
    id: 'choose.ladder-work',
    question: 'Is this work on a ladder?',
    source: 'work at height',
    needs: ['mountHeightM'],
    isTight: (f) => f.mountHeightM > LADDER_M,
    severity: 'note',
    title: (f) => `Ladder work: mounted at ${metres(f.mountHeightM)}`,
    because: () => `Above ${LADDER_M} m this is ladder work.`,
    do: ['Firm ground, one out for four up, a second person, no wind.', 'Check for cables and pipes before drilling.'],
    why: 'Local rules decide who may do it.',
  }),
] as const;
