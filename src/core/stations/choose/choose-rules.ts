import { atLeast, type Verdict } from '../../base/verdict.ts';
import { LOCAL_STREAM_WORDS, type LocalStream, type Sound } from '../../document/chapters/models/model-card.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
import { judgeDetail, readText, TEXT_LIMITS } from '../../optics/detail-levels.ts';
import { PINHOLE_VALID_TO_DEG } from '../../optics/picture-geometry.ts';
import type { ChooseFacts, ChooseOffers } from './choose-facts.ts';
import { hasGap, judgeIngress, judgeLight, judgeNear, judgeWidth } from './judgements.ts';

const rule = rulesFor<ChooseFacts, ChooseOffers, SiteCommand>();
const metres = (value: number): string => `${value.toFixed(1)} m`;
const brief = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} m`;
const LEVELS = 'EN/IEC 62676-4, operational levels';
/** A second person at the foot of the ladder from here on. [A] */
const LADDER_M = 3;

type F = Facts<ChooseFacts>;
/** A number of a view that is wider than the formula is good for says so. */
const guessed = ({ isBeyondModel }: F, said: string): string => (isBeyondModel ? `≈ ${said}` : said);
const guess = ({ isBeyondModel, hfovDeg }: F, reason: string): string =>
  isBeyondModel
    ? `${reason} ${Math.round(hfovDeg ?? 0)}° is wider than the formula is good for: a guess until it is measured.`
    : reason;
const ratedOf = (f: { lightReachM: number; lightRatedM?: number | undefined }): number =>
  f.lightRatedM ?? f.lightReachM;

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

/** What a model makes of the place it is meant for, in the order in which one would ask. */
export const CHOOSE_RULES = [
  rule({
    id: 'choose.detail',
    source: `${LEVELS}; a fifth below is tight [A]`,
    needs: ['pxPerM', 'wantedPxPerM', 'level', 'distanceM', 'isInView'],
    asks: (f) => f.wantedPxPerM !== undefined,
    judge: (f) => (f.isInView ? judgeDetail(f.pxPerM, f.wantedPxPerM) : 'unknown'),
    label: (f) => `${f.level ?? 'see'} at ${f.distanceM} m`,
    said: (f) => (f.isInView ? guessed(f, `${Math.round(f.pxPerM)} px/m`) : 'not in view'),
    reason: (f) => guess(f, `${Math.round(f.pxPerM)} px/m; ${f.wantedPxPerM} wanted.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Too few pixels to ${f.level} at ${f.distanceM} m`,
        because: (f) => `${Math.round(f.pxPerM)} px/m arrive; ${f.level} wants ${f.wantedPxPerM}.`,
        do: ['Take a longer lens, or more pixels.', 'Hang it nearer, or ask for less.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Just short of ${f.level} at ${f.distanceM} m`,
        because: (f) => `${Math.round(f.pxPerM)} px/m arrive; ${f.wantedPxPerM} are wanted.`,
        do: ['Zoom in a little, or hang it nearer.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.detail'), ...offers.models('choose.detail')],
    why: 'What the sensor did not see, no program brings back.',
  }),
  rule({
    id: 'choose.text',
    source: '12 px a letter are guessed, 20 are read [A]',
    needs: ['textPxPerM', 'charHeightMm', 'isInView'],
    asks: (f) => f.charHeightMm !== undefined,
    judge: (f) => (f.isInView ? readText(f.textPxPerM, f.charHeightMm).verdict : 'unknown'),
    label: (f) => `read ${f.charHeightMm ?? ''} mm letters`,
    said: (f) =>
      f.isInView ? guessed(f, `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(0)} px`) : 'not in view',
    reason: (f) =>
      guess(f, `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a letter; 20 are read, 12 guessed.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.charHeightMm} mm letters cannot be read`,
        because: (f) =>
          `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a letter; ${TEXT_LIMITS.guessablePx} at least.`,
        do: ['Take an optical zoom: digital zoom adds no pixel.', 'Write it larger, or hang a second camera near.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.charHeightMm} mm letters are guessed, not read`,
        because: (f) =>
          `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a letter; ${TEXT_LIMITS.readablePx} are read.`,
        do: ['Zoom in until a letter has 20 pixels.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.text'), ...offers.models('choose.text')],
    why: 'A label that cannot be read is found out when somebody asks for it; B and 8 look alike below that.',
  }),
  rule({
    id: 'choose.target-out-of-view',
    source: 'pinhole model: depression against tilt and half the view',
    needs: ['isInView', 'distanceM'],
    judge: (f) => failsIf(!f.isInView),
    label: () => 'target in the picture',
    said: (f) => (f.isInView ? 'yes' : 'no'),
    isQuiet: true,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `It looks past what stands at ${f.distanceM} m`,
        because: () => 'The target lies outside the picture at this height, tilt and zoom.',
        do: ['Change the tilt, or zoom out.'],
      },
    },
    mends: (_, offers) => [
      ...offers.mountings('choose.target-out-of-view'),
      ...offers.models('choose.target-out-of-view'),
    ],
    why: 'The sharpest picture of the wrong place shows nothing.',
  }),
  rule({
    id: 'choose.zone-near',
    source: 'near edge = height / tan(tilt + half the view); a fifth more is tight [A]',
    needs: ['seenFromM', 'zoneFromM'],
    judge: (f) => judgeNear(f.seenFromM, f.zoneFromM),
    label: (f) => `seen from ${f.zoneFromM ?? 0} m on`,
    said: (f) => (Number.isFinite(f.seenFromM) ? brief(f.seenFromM) : 'no ground'),
    reason: (f) =>
      Number.isFinite(f.seenFromM) ? `The ground is unseen up to ${brief(f.seenFromM)}.` : 'It looks above the ground.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          Number.isFinite(f.seenFromM) ? `Unseen up to ${metres(f.seenFromM)}` : 'It does not see the ground',
        because: (f) => `The zone begins at ${metres(f.zoneFromM)}.`,
        do: ['Tilt it down, hang it lower, or zoom out.', 'Let another camera look under this one.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `The first ${metres(f.seenFromM - f.zoneFromM)} of the zone are unseen`,
        because: (f) => `It sees the ground from ${metres(f.seenFromM)} on; the zone begins at ${metres(f.zoneFromM)}.`,
        do: ['Tilt it down a little, or hang it lower.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-near'), ...offers.models('choose.zone-near')],
    why: 'Who knows it walks along the wall.',
  }),
  rule({
    id: 'choose.too-steep-for-faces',
    source: 'depression above 30° spoils faces [A]',
    needs: ['depressionDeg', 'steepDeg'],
    asks: (f) => f.wantsFaces === true,
    judge: (f) => tightIf(f.depressionDeg > f.steepDeg),
    label: () => 'faces not from above',
    said: (f) => `${Math.round(f.depressionDeg)}° down`,
    isQuiet: true,
    when: {
      tight: {
        severity: 'fix',
        title: (f) => `It looks ${Math.round(f.depressionDeg)}° down on faces`,
        because: (f) => `Beyond ${f.steepDeg}° a hat or a fringe hides the face.`,
        do: ['Hang it lower, or look from farther away.'],
      },
    },
    mends: (_, offers) => offers.mountings('choose.too-steep-for-faces'),
    why: 'Pixels do not help when they show the crown of a head.',
  }),
  rule({
    id: 'choose.zone-width',
    source: 'scene width = 2·d·tan(view / 2); a tenth short is tight [A]',
    needs: ['viewWidthM', 'zoneWidthM', 'distanceM'],
    judge: (f) => judgeWidth(f.viewWidthM, f.zoneWidthM),
    label: (f) => `${f.zoneWidthM ?? ''} m wide`,
    said: (f) => guessed(f, brief(f.viewWidthM)),
    reason: (f) => guess(f, `It sees ${brief(f.viewWidthM)} across there.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${metres(f.zoneWidthM)} wanted, ${metres(f.viewWidthM)} in view`,
        because: (f) => `At ${f.distanceM} m the picture is ${metres(f.viewWidthM)} wide.`,
        do: ['Zoom out, or take a wider lens.', 'Share the width between two cameras.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `The edge of the zone is cut off at ${f.distanceM} m`,
        because: (f) => `${metres(f.zoneWidthM)} wanted, ${metres(f.viewWidthM)} in view.`,
        do: ['Zoom out a little, or hang it farther back.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-width'), ...offers.models('choose.zone-width')],
    why: 'What leaves at the side is gone.',
  }),
  rule({
    id: 'choose.lenses-leave-gap',
    source: 'gap = axes apart − half of both views',
    needs: ['gapDeg'],
    asks: (f) => f.gapDeg !== undefined,
    judge: (f) => tightIf(hasGap(f.gapDeg)),
    label: () => 'nothing between its lenses',
    said: (f) => (hasGap(f.gapDeg) ? `${Math.round(f.gapDeg)}° unseen` : 'no gap'),
    isQuiet: true,
    when: {
      tight: {
        severity: 'fix',
        title: (f) => `${Math.round(f.gapDeg)}° between its lenses are seen by neither`,
        because: () => 'Their axes stand farther apart than half of both views.',
        do: ['Set the lenses closer, or zoom one out.'],
      },
    },
    mends: (_, offers) => offers.models('choose.lenses-leave-gap'),
    why: 'Two pictures look like one, and the strip between is not missed until it matters.',
  }),
  rule({
    id: 'choose.view-beyond-model',
    source: 'pinhole model good to about 100° [A]',
    needs: ['isBeyondModel', 'hfovDeg'],
    judge: (f) => tightIf(f.isBeyondModel),
    label: () => 'view that can be computed',
    said: (f) => `${Math.round(f.hfovDeg)}°`,
    isQuiet: true,
    when: {
      tight: {
        severity: 'fix',
        title: (f) => `${Math.round(f.hfovDeg)}° is wider than the formula is good for`,
        because: () => `Beyond ${PINHOLE_VALID_TO_DEG}° edges differ from it by a tenth to a third.`,
        do: ['Tape two marks at a known distance and enter the view that was measured.'],
      },
    },
    why: 'Wide lenses bend: the middle gets more, the edge less than computed.',
  }),
  rule({
    id: 'choose.light',
    source: 'irradiance ∝ 1/d²; half the reach on dark ground or wet leaves [A]',
    needs: ['lightKind', 'lightReachM', 'distanceM'],
    asks: (f) => f.atNight === true,
    judge: (f) =>
      f.lightKind === 'none' ? 'will-not-work' : judgeLight(f.lightReachM, f.lightRatedM ?? f.lightReachM, f.distanceM),
    label: () => 'light at night',
    said: (f) => (f.lightKind === 'none' ? 'no light' : brief(f.lightReachM)),
    reason: (f) =>
      f.lightKind === 'none'
        ? 'It has no light of its own.'
        : `${brief(ratedOf(f))} rated, about ${brief(f.lightReachM)} over dark ground.`,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.lightKind === 'none' ? 'It has no light for the night' : `Its light ends before ${f.distanceM} m`,
        because: (f) =>
          f.lightKind === 'none'
            ? 'The place is to be seen at night, and the camera brings no light.'
            : `${metres(ratedOf(f))} rated, about ${metres(f.lightReachM)} over dark ground.`,
        do: (f) =>
          f.lightKind === 'none'
            ? ['Light the place, or take a model with infrared or white light.']
            : ['Put a light near the target.', 'Take a model whose light reaches.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Its light ends where the target stands',
        because: (f) => `${metres(ratedOf(f))} rated, about ${metres(f.lightReachM)} over dark ground and wet leaves.`,
        do: ['Try it at night before it is fixed.', 'Add a light where people walk.'],
      },
    },
    mends: (_, offers) => offers.models('choose.light'),
    why: 'By day all cameras see. Twice as far takes four times the light, and data sheets light a white wall.',
  }),
  rule({
    id: 'choose.light-narrower-than-view',
    source: 'angle of light against the angle of view',
    needs: ['lightAngleDeg', 'hfovDeg'],
    asks: (f) => f.atNight === true && f.lightKind !== 'none',
    judge: (f) => tightIf(f.lightAngleDeg < f.hfovDeg - 1e-9),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'The corners stay dark at night',
        because: (f) => `Its light is ${Math.round(f.lightAngleDeg)}° wide, its view ${Math.round(f.hfovDeg)}°.`,
        do: ['Aim it so that what matters is in the middle, or add a light.'],
      },
    },
    mends: (_, offers) => offers.models('choose.light-narrower-than-view'),
    why: 'Exposure follows the bright middle, and the rim goes black.',
  }),
  rule({
    id: 'choose.local-stream',
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
    source: 'codecs of the destinations against those of the card',
    needs: ['missedBy', 'codecs'],
    asks: (f) => (f.sessionsWanted ?? 0) > 0,
    judge: (f) => failsIf(f.missedBy.length > 0),
    label: () => 'every destination takes it',
    said: (f) => (f.missedBy.length > 0 ? `not ${f.missedBy.map(({ name }) => name).join(', ')}` : f.codecs.join(', ')),
    reason: (f) => (f.missedBy.length > 0 ? `It gives ${f.codecs.join(', ')}.` : 'Each takes one of its streams.'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.missedBy.map(({ name }) => name).join(', ')} cannot show what it gives`,
        because: (f) =>
          `It gives ${f.codecs.join(', ')}; ${f.missedBy.map(({ name, takes }) => `${name} takes ${takes.join(', ')}`).join('; ')}.`,
        do: ['Take a model with a stream they take.', 'Put a relay between that re-encodes, and give it the power to.'],
      },
    },
    mends: (_, offers) => offers.models('choose.codec-not-taken'),
    why: 'A codec that saves disk is no use where nobody can see it.',
  }),
  rule({
    id: 'choose.sessions',
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
    source: 'a wall of tiles draws small streams',
    needs: ['hasSub'],
    asks: (f) => f.wantsSub === true,
    judge: (f) => tightIf(!f.hasSub),
    label: () => 'small stream to view',
    said: (f) => (f.hasSub ? 'yes' : 'none'),
    reason: () => 'Viewers and detectors draw a small stream.',
    when: {
      tight: {
        severity: 'fix',
        title: () => 'No small stream for viewers and detectors',
        because: () => 'They would decode the main stream, each for itself.',
        do: ['Take a model with a sub stream.', 'Count the main stream in their decode budget.'],
      },
    },
    mends: (_, offers) => offers.models('choose.no-sub-stream'),
    why: 'Nine tiles of a full picture stop a tablet.',
  }),
  rule({
    id: 'choose.weather',
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
    source: 'need against model card',
    needs: ['soundWanted', 'sound'],
    asks: asksForSound,
    judge: (f) => failsIf(SOUND_ORDER.indexOf(f.sound) < SOUND_ORDER.indexOf(f.soundWanted)),
    label: (f) => (f.soundWanted === 'talk' ? 'speak through it' : 'sound'),
    said: (f) => SOUND_WORDS[f.sound],
    reason: () => 'Microphone, or microphone and loudspeaker.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => (f.soundWanted === 'talk' ? 'Nobody can speak through it' : 'It does not hear'),
        because: (f) => (f.sound === 'none' ? 'It has no microphone.' : 'It has a microphone and no loudspeaker.'),
        do: ['Take a model with sound, or hang a door station beside it.'],
      },
    },
    mends: (_, offers) => offers.models('choose.no-sound'),
    why: 'Sound cannot be added later.',
  }),
  rule({
    id: 'choose.sound-is-asked',
    source: 'recording of sound is often held stricter than of pictures',
    needs: ['soundWanted'],
    asks: asksForSound,
    judge: () => 'tight',
    when: {
      tight: {
        severity: 'note',
        title: () => 'Sound needs more consent than a picture',
        because: () => 'The need asks for sound.',
        do: ['Leave it off until somebody who knows local law said yes.'],
      },
    },
    why: 'In many places recording a conversation is an offence. This is no legal advice.',
  }),
  rule({
    id: 'choose.does-not-turn',
    source: 'need against model card',
    needs: ['panRangeDeg'],
    asks: (f) => f.turnsWanted === true,
    judge: (f) => failsIf(f.panRangeDeg === 0),
    label: () => 'turns',
    said: (f) => (f.panRangeDeg > 0 ? `${f.panRangeDeg}°, ${f.tiltRangeDeg ?? '–'}°` : 'no'),
    reason: (f) => (f.panRangeDeg > 0 ? 'Pan and tilt that it has.' : 'It stands still.'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'It stands still',
        because: () => 'The place asks for pan and tilt.',
        do: ['Take a moving model, or two that stand still.'],
      },
    },
    mends: (_, offers) => offers.models('choose.does-not-turn'),
    why: 'Digital panning shows less of the same picture.',
  }),
  rule({
    id: 'choose.no-supply-in-box',
    source: 'model card: what is in the box',
    needs: ['ways'],
    judge: (f) => tightIf(f.supplyInBox === false && !f.ways.some((way) => SUPPLY_FREE_WAYS.has(way))),
    label: () => 'power',
    said: (f) => f.ways.join(', '),
    reason: (f) =>
      f.supplyInBox === undefined
        ? 'Whether a supply is in the box is not known.'
        : f.supplyInBox
          ? 'A supply is in the box.'
          : 'No supply is in the box.',
    when: {
      tight: {
        severity: 'note',
        title: () => 'No supply is in the box',
        because: (f) => `It is fed by ${f.ways.join(', ')}.`,
        do: ['Order a certified supply of its voltage and enough current with it.'],
      },
    },
    why: 'A camera without its supply is a second visit.',
  }),
  rule({
    id: 'choose.account-features-lost',
    source: 'model card: lost without the account',
    needs: ['lostWithoutAccount'],
    judge: (f) => tightIf(f.lostWithoutAccount.length > 0),
    label: () => 'lost without the account',
    said: (f) => (f.lostWithoutAccount.length > 0 ? f.lostWithoutAccount.join(', ') : 'nothing'),
    reason: () => 'What the maker’s servers do, and nobody else.',
    when: {
      tight: {
        severity: 'note',
        title: (f) => `Without its account: no ${f.lostWithoutAccount.join(', no ')}`,
        because: () => 'These are done by the maker’s servers.',
        do: ['Ask the customer whether they count on them.'],
      },
    },
    why: 'What was in the advertisement is missed later.',
  }),
  rule({
    id: 'choose.ladder-work',
    source: 'work at height',
    needs: ['mountHeightM'],
    judge: (f) => tightIf(f.mountHeightM > LADDER_M),
    when: {
      tight: {
        severity: 'note',
        title: (f) => `It hangs at ${metres(f.mountHeightM)}`,
        because: () => `Above ${LADDER_M} m this is ladder work.`,
        do: [
          'Firm ground, one out for four up, a second person, no wind.',
          'Look for cables and pipes before drilling.',
        ],
      },
    },
    why: 'Local rules decide who may do it.',
  }),
] as const;
