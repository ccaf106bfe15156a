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
const SOUND_WORDS: Readonly<Record<Sound, string>> = { none: 'none', hear: 'hears', talk: 'both ways' };
const asksForSound = ({ soundWanted }: F): boolean => soundWanted !== undefined && soundWanted !== 'none';
const SUPPLY_FREE_WAYS: ReadonlySet<string> = new Set(['poe', 'passive', 'solar']);

/** What its card says that the place and who draws it ask for, and the work of hanging it. */
export const CARD_RULES = [
  rule({
    id: 'choose.local-stream',
    question: 'Does it give a stream on this network?',
    source: 'model card: local stream',
    needs: ['localStream'],
    judge: (f) => STREAM_VERDICTS[f.localStream],
    label: () => 'stream on this network',
    said: (f) => LOCAL_STREAM_WORDS[f.localStream],
    reason: () => 'Whether a stream is given without the maker’s servers.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'It streams through its maker’s account only',
        because: () => 'There is no RTSP and no ONVIF on this network, so no destination can draw it.',
        do: ['Take another model.', 'Ask whether a release with a local stream exists for this very revision.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'It streams only after a reflash',
        because: () => 'As bought it gives no local stream.',
        do: [
          'Match board, flash, sensor and radio chip before it is bought.',
          'Keep a way back: a full copy of what is on it.',
        ],
      },
    },
    mends: (_, offers) => offers.models('choose.local-stream'),
    why: 'Without the maker’s servers an account-only camera shows nothing, and they decide for how long. A reflash ends warranty and approval marks, and a wrong image ends the camera. Only own equipment.',
  }),
  rule({
    id: 'choose.codec-not-taken',
    question: 'Does every destination take one of its codecs?',
    source: 'codecs of the destinations against those of the card',
    needs: ['missedBy', 'codecs', 'silentDrawers'],
    asks: (f) => (f.sessionsWanted ?? 0) > 0,
    judge: (f) => (f.missedBy.length > 0 ? 'will-not-work' : f.silentDrawers.length > 0 ? 'unknown' : 'ok'),
    label: () => 'every destination takes it',
    said: (f) => (f.missedBy.length > 0 ? `not ${f.missedBy.map(({ name }) => name).join(', ')}` : f.codecs.join(', ')),
    reason: (f) =>
      f.missedBy.length > 0
        ? `It gives ${f.codecs.join(', ')}.`
        : f.silentDrawers.length > 0
          ? `Nobody entered what ${f.silentDrawers.join(', ')} takes.`
          : 'Each takes one of its streams.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.missedBy.map(({ name }) => name).join(', ')} cannot show what it gives`,
        because: (f) =>
          `It gives ${f.codecs.join(', ')}; ${f.missedBy.map(({ name, takes }) => `${name} takes ${takes.join(', ')}`).join('; ')}.`,
        do: ['Take a model with a stream they take.', 'Put a relay between that re-encodes, and give it the power to.'],
      },
      unknown: {
        severity: 'note',
        title: (f) => `Whether ${f.silentDrawers.join(', ')} can show it is not known`,
        because: (f) => `It gives ${f.codecs.join(', ')}; nobody entered what ${f.silentDrawers.join(', ')} takes.`,
        do: ['Enter the codecs in the figures of the destination.'],
      },
    },
    mends: (_, offers) => offers.models('choose.codec-not-taken'),
    why: 'A codec that saves disk is no use where nobody can see it.',
  }),
  rule({
    id: 'choose.sessions',
    question: 'Does it serve as many as would draw it, and one to look with?',
    source: 'sessions of the card against who draws, and one to look with [A]',
    needs: ['sessions', 'sessionsWanted'],
    asks: (f) => (f.sessionsWanted ?? 0) > 0,
    judge: (f) => atLeast(f.sessions, f.sessionsWanted + 1, f.sessionsWanted),
    label: (f) => `${f.sessionsWanted ?? 0} draw it at once`,
    said: (f) => String(f.sessions),
    reason: () => 'One more is wanted to look with.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.sessionsWanted} would draw it, ${f.sessions} may`,
        because: (f) => `It serves ${f.sessions} at once.`,
        do: ['Draw it once through a relay.', 'Take a model that serves more.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.sessionsWanted} draw it, and no session is left`,
        because: (f) => `It serves ${f.sessions} at once.`,
        do: ['Draw it once through a relay, so that one stays free to look with.'],
      },
    },
    mends: (_, offers) => offers.models('choose.sessions'),
    why: 'Who comes last is refused: after a power cut anyone, and else whoever comes to find a fault.',
  }),
  rule({
    id: 'choose.no-sub-stream',
    question: 'Has it a small stream for viewers and detectors?',
    source: 'a wall of tiles draws small streams',
    needs: ['hasSub'],
    asks: (f) => f.wantsSub === true,
    isTight: (f) => !f.hasSub,
    label: () => 'small stream to view',
    said: (f) => (f.hasSub ? 'yes' : 'none'),
    reason: () => 'Viewers and detectors draw a small stream.',
    severity: 'fix',
    title: () => 'No small stream for viewers and detectors',
    because: () => 'They would decode the main stream, each for itself.',
    do: ['Take a model with a sub stream.', 'Count the main stream in their decode budget.'],
    mends: (_, offers) => offers.models('choose.no-sub-stream'),
    why: 'Nine tiles of a full picture stop a tablet.',
  }),
  rule({
    id: 'choose.weather',
    question: 'Does it stand the weather of its place?',
    source: 'IEC 60529',
    needs: ['ingress'],
    asks: (f) => f.outdoors === true,
    judge: (f) => judgeIngress(f.ingress),
    label: () => 'outdoors',
    said: (f) => `IP${f.ingress}`,
    reason: () => 'IEC 60529: dust and water that it keeps out.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `IP${f.ingress} does not stand rain`,
        because: () => 'Outdoors asks for IP54 under a roof, IP65 in the open.',
        do: ['Take a rated model.', 'Put it into a rated housing with a drip loop, no connector face up.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `IP${f.ingress} wants a roof`,
        because: () => 'It stands splashes, not a jet of water or driving rain.',
        do: ['Hang it under the eaves.'],
      },
    },
    mends: (_, offers) => offers.models('choose.weather'),
    why: 'It works until the first storm, and then its connector corrodes. Weather comes from the side.',
  }),
  rule({
    id: 'choose.no-sound',
    question: 'Does it hear or speak as the place asks?',
    source: 'need against model card',
    needs: ['soundWanted', 'sound'],
    asks: asksForSound,
    fails: (f) => SOUND_ORDER.indexOf(f.sound) < SOUND_ORDER.indexOf(f.soundWanted),
    label: (f) => (f.soundWanted === 'talk' ? 'speak through it' : 'sound'),
    said: (f) => SOUND_WORDS[f.sound],
    reason: () => 'Microphone, or microphone and loudspeaker.',
    severity: 'stop',
    title: (f) => (f.soundWanted === 'talk' ? 'Nobody can speak through it' : 'It does not hear'),
    because: (f) => (f.sound === 'none' ? 'It has no microphone.' : 'It has a microphone and no loudspeaker.'),
    do: ['Take a model with sound, or hang a door station beside it.'],
    mends: (_, offers) => offers.models('choose.no-sound'),
    why: 'Sound cannot be added later.',
  }),
  rule({
    id: 'choose.sound-is-asked',
    question: 'Is sound asked for, which needs more consent?',
    source: 'recording of sound is often held stricter than of pictures',
    needs: ['soundWanted'],
    asks: asksForSound,
    isTight: () => true,
    severity: 'note',
    title: () => 'Sound needs more consent than a picture',
    because: () => 'The need asks for sound.',
    do: ['Leave it off until somebody who knows local law said yes.'],
    why: 'In many places recording a conversation is an offence. This is no legal advice.',
  }),
  rule({
    id: 'choose.does-not-turn',
    question: 'Does it turn where the place asks for it?',
    source: 'need against model card',
    needs: ['panRangeDeg'],
    asks: (f) => f.turnsWanted === true,
    fails: (f) => f.panRangeDeg === 0,
    label: () => 'turns',
    said: (f) => (f.panRangeDeg > 0 ? `${f.panRangeDeg}°, ${f.tiltRangeDeg ?? '–'}°` : 'no'),
    reason: (f) => (f.panRangeDeg > 0 ? 'Pan and tilt that it has.' : 'It stands still.'),
    severity: 'stop',
    title: () => 'It stands still',
    because: () => 'The place asks for pan and tilt.',
    do: ['Take a moving model, or two that stand still.'],
    mends: (_, offers) => offers.models('choose.does-not-turn'),
    why: 'Digital panning shows less of the same picture.',
  }),
  rule({
    id: 'choose.no-supply-in-box',
    question: 'Is a supply in the box, or none needed?',
    source: 'model card: what is in the box',
    needs: ['ways'],
    isTight: (f) => f.supplyInBox === false && !f.ways.some((way) => SUPPLY_FREE_WAYS.has(way)),
    label: () => 'power',
    said: (f) => f.ways.join(', '),
    reason: (f) =>
      f.supplyInBox === undefined
        ? 'Whether a supply is in the box is not known.'
        : f.supplyInBox
          ? 'A supply is in the box.'
          : 'No supply is in the box.',
    severity: 'note',
    title: () => 'No supply is in the box',
    because: (f) => `It is fed by ${f.ways.join(', ')}.`,
    do: ['Order a certified supply of its voltage and enough current with it.'],
    why: 'A camera without its supply is a second visit.',
  }),
  rule({
    id: 'choose.account-features-lost',
    question: 'What is gone without the maker’s account?',
    source: 'model card: lost without the account',
    needs: ['lostWithoutAccount'],
    isTight: (f) => f.lostWithoutAccount.length > 0,
    label: () => 'lost without the account',
    said: (f) => (f.lostWithoutAccount.length > 0 ? f.lostWithoutAccount.join(', ') : 'nothing'),
    reason: () => 'What the maker’s servers do, and nobody else.',
    severity: 'note',
    title: (f) => `Lost without its account: ${f.lostWithoutAccount.join(', ')}`,
    because: () => 'These are done by the maker’s servers.',
    do: ['Ask the customer whether they count on them.'],
    why: 'What was in the advertisement is missed later.',
  }),
  rule({
    id: 'choose.gives-other-size',
    question: 'Does it give the size that its card says, by a probe?',
    source: 'picture size by a probe against the model card',
    needs: ['seenSize', 'cardSize', 'givesFewerPixels'],
    asks: (f) => f.seenSize !== undefined && f.cardSize !== undefined,
    isTight: (f) => f.seenSize !== f.cardSize,
    label: () => 'picture by a probe',
    said: (f) => f.seenSize,
    reason: (f) => `Its card says ${f.cardSize}.`,
    isQuiet: true,
    severity: (f) => (f.givesFewerPixels ? 'fix' : 'note'),
    title: (f) => `It gives ${f.seenSize}; its card says ${f.cardSize}`,
    because: () => 'Measured by a probe of its main stream. The detail above is worked out from what was measured.',
    do: (f) =>
      f.givesFewerPixels
        ? ['Set its main stream to its full size and probe again.', 'If it gives no more, correct its card.']
        : ['Correct its card.'],
    why: 'Many cameras are delivered with a small main stream, and nobody looks again.',
  }),
  rule({
    id: 'choose.gives-other-codec',
    question: 'Does it give a codec that its card names, by a probe?',
    source: 'codec by a probe against the model card',
    needs: ['seenCodec', 'cardCodecs'],
    asks: (f) => f.seenCodec !== undefined && f.cardCodecs !== undefined,
    isTight: (f) => !f.cardCodecs.includes(f.seenCodec),
    severity: 'watch',
    title: (f) => `It gives ${f.seenCodec}; its card names ${f.cardCodecs.join(', ')}`,
    because: () => 'Measured by a probe of its main stream.',
    do: ['Look whether its encoder is set otherwise; else correct its card.'],
    why: 'Who draws it was chosen by the card.',
  }),
  rule({
    id: 'choose.ladder-work',
    question: 'Is this work on a ladder?',
    source: 'work at height',
    needs: ['mountHeightM'],
    isTight: (f) => f.mountHeightM > LADDER_M,
    severity: 'note',
    title: (f) => `It hangs at ${metres(f.mountHeightM)}`,
    because: () => `Above ${LADDER_M} m this is ladder work.`,
    do: ['Firm ground, one out for four up, a second person, no wind.', 'Look for cables and pipes before drilling.'],
    why: 'Local rules decide who may do it.',
  }),
] as const;
