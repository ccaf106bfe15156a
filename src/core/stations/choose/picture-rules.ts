import { sayFrom } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import { judgeDetail, readText, TEXT_LIMITS } from '../../optics/detail-levels.ts';
import { PINHOLE_VALID_TO_DEG } from '../../optics/picture-geometry.ts';
import { hasGap, judgeLight, judgeNear, judgeWidth } from '../../site/judgements.ts';
import type { ChooseFacts, ChooseOffers } from './choose-facts.ts';

const rule = rulesFor<ChooseFacts, ChooseOffers, SiteCommand>();
const metres = (value: number): string => `${value.toFixed(1)} m`;
const brief = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} m`;
const LEVELS = 'EN/IEC 62676-4, operational levels';

type F = Facts<ChooseFacts>;
/** A number of a view that is wider than the formula is good for says so. */
const guessed = ({ isBeyondModel }: F, said: string): string => (isBeyondModel ? `≈ ${said}` : said);
const guess = ({ isBeyondModel, hfovDeg }: F, reason: string): string =>
  isBeyondModel
    ? `${reason} ${Math.round(hfovDeg ?? 0)}° is wider than the formula covers: an estimate until it is measured.`
    : reason;
/** Of what is missing, rounded up: a strip that is there is never 0.0 m wide. */
const seenOf = (m: number): string => (m < 0.05 ? 'none of them' : `${metres(m)} of them`);
const atLeastMetres = (m: number): string => sayFrom(Math.max(0.1, m - 1e-6));

/** Leaves and dark ground are outdoors; indoors walls give the light back. */
const reach = (f: { lightReachM: number; outdoors?: boolean | undefined }): string =>
  f.outdoors === false
    ? `${brief(f.lightReachM)} indoors`
    : `about ${brief(f.lightReachM)} over dark ground and wet leaves`;

const placeOf = (f: Facts<ChooseFacts>): string =>
  f.isLowestAtEdge === true ? 'at the edge of the zone' : 'on the target';
const ratedOf = (f: { lightReachM: number; lightRatedM?: number | undefined }): number =>
  f.lightRatedM ?? f.lightReachM;

/** What the picture would show of the place, by day and by night. */
export const PICTURE_RULES = [
  rule({
    id: 'choose.detail',
    question: 'Is the pixel density high enough over the whole zone?',
    limits: ['optics.face-height'],
    source: `${LEVELS}; a fifth below is tight [A]`,
    needs: ['pxPerM', 'wantedPxPerM', 'level', 'distanceM', 'isInView'],
    asks: (f) => f.wantedPxPerM !== undefined,
    judge: (f) => (f.isInView ? judgeDetail(f.pxPerM, f.wantedPxPerM) : 'unknown'),
    label: (f) => `${f.level ?? 'see'} at ${f.distanceM} m`,
    said: (f) => (f.isInView ? guessed(f, `${Math.round(f.pxPerM)} px/m`) : 'not in view'),
    reason: (f) => guess(f, `${Math.round(f.pxPerM)} px/m; ${f.wantedPxPerM} needed.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Pixel density too low to ${f.level} at ${f.distanceM} m`,
        because: (f) => `${Math.round(f.pxPerM)} px/m ${placeOf(f)}; ${f.level} needs ${f.wantedPxPerM}.`,
        do: ['Use a longer focal length, or a higher resolution.', 'Mount it nearer, or plan a lower level.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Pixel density just below ${f.level} at ${f.distanceM} m`,
        because: (f) => `${Math.round(f.pxPerM)} px/m ${placeOf(f)}; ${f.wantedPxPerM} are needed.`,
        do: ['Zoom in a little, or mount it nearer.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.detail'), ...offers.models('choose.detail')],
    why: 'What the sensor did not capture, no software restores.',
  }),
  rule({
    id: 'choose.text',
    question: 'Are characters large enough to be read?',
    limits: ['optics.text-height'],
    source: '12 px a character are guessed, 20 are read [A]; from above a character shrinks by the cosine',
    needs: ['textPxPerM', 'charHeightMm', 'isInView'],
    asks: (f) => f.charHeightMm !== undefined,
    judge: (f) => (f.isInView ? readText(f.textPxPerM, f.charHeightMm).verdict : 'unknown'),
    label: (f) => `read ${f.charHeightMm ?? ''} mm characters`,
    said: (f) =>
      f.isInView ? guessed(f, `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(0)} px`) : 'not in view',
    reason: (f) =>
      guess(
        f,
        `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a character; 20 are read, 12 guessed.`,
      ),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.charHeightMm} mm characters not readable`,
        because: (f) =>
          `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a character; ${TEXT_LIMITS.guessablePx} at least.`,
        do: ['Use optical zoom: digital zoom adds no pixels.', 'Use larger characters, or add a second camera nearby.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `${f.charHeightMm} mm characters guessed, not read`,
        because: (f) =>
          `${readText(f.textPxPerM, f.charHeightMm).pxPerChar.toFixed(1)} px a character; ${TEXT_LIMITS.readablePx} are read.`,
        do: ['Zoom in until a character has 20 pixels.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.text'), ...offers.models('choose.text')],
    why: 'An unreadable label is noticed only when somebody needs it; below 20 px B and 8 look alike.',
  }),
  rule({
    id: 'choose.target-out-of-view',
    question: 'Is the target in the picture?',
    source: 'projection of the lens, rectilinear or equidistant: its rays against both half angles',
    needs: ['isInView', 'distanceM'],
    fails: (f) => !f.isInView,
    label: () => 'target in the picture',
    said: (f) => (f.isInView ? 'yes' : 'no'),
    isQuiet: true,
    severity: 'stop',
    title: (f) => `Target at ${f.distanceM} m outside the picture`,
    because: () => 'At this height, tilt and zoom the target lies outside the picture.',
    do: ['Change the tilt, or zoom out.'],
    mends: (_, offers) => [
      ...offers.mountings('choose.target-out-of-view'),
      ...offers.models('choose.target-out-of-view'),
    ],
    why: 'The sharpest picture of the wrong place shows nothing.',
  }),
  rule({
    id: 'choose.zone-near',
    question: 'Is the ground visible where the zone begins?',
    source: 'nearest point = height / tan(tilt + half the angle of view); a fifth more is tight [A]',
    needs: ['seenFromM', 'zoneFromM'],
    judge: (f) => judgeNear(f.seenFromM, f.zoneFromM),
    label: (f) => `visible from ${f.zoneFromM ?? 0} m`,
    said: (f) => (Number.isFinite(f.seenFromM) ? brief(f.seenFromM) : 'no ground'),
    reason: (f) =>
      Number.isFinite(f.seenFromM)
        ? `The ground is not visible up to ${brief(f.seenFromM)}.`
        : 'It looks above the ground.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => (Number.isFinite(f.seenFromM) ? `Blind up to ${metres(f.seenFromM)}` : 'Ground not visible'),
        because: (f) => `The zone begins at ${metres(f.zoneFromM)}.`,
        do: ['Tilt it down, mount it lower, or zoom out.', 'Let another camera cover the area below this one.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `First ${atLeastMetres(f.seenFromM - f.zoneFromM)} of the zone not visible`,
        because: (f) => `The ground is visible from ${metres(f.seenFromM)}; the zone begins at ${metres(f.zoneFromM)}.`,
        do: ['Tilt it down a little, or mount it lower.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-near'), ...offers.models('choose.zone-near')],
    why: 'Whoever knows it walks along the wall.',
  }),
  rule({
    id: 'choose.face-near',
    question: 'Are faces visible where the zone begins?',
    limits: ['optics.face-height'],
    source: 'nearest point at the height of a face; a fifth more is tight [A]',
    needs: ['faceSeenFromM', 'zoneFromM'],
    asks: (f) => f.wantsFaces === true,
    judge: (f) => judgeNear(f.faceSeenFromM, f.zoneFromM),
    label: (f) => `faces from ${f.zoneFromM ?? 0} m`,
    said: (f) => (Number.isFinite(f.faceSeenFromM) ? brief(f.faceSeenFromM) : 'no faces'),
    reason: (f) =>
      Number.isFinite(f.faceSeenFromM)
        ? `Faces are visible from ${brief(f.faceSeenFromM)}.`
        : 'The view never reaches the height of a face.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          Number.isFinite(f.faceSeenFromM) ? `Faces cut off up to ${metres(f.faceSeenFromM)}` : 'Faces never visible',
        because: (f) => `The zone begins at ${metres(f.zoneFromM)}; whoever stands there is seen without a head.`,
        do: ['Mount it at the height of a face, tilt it up, or use a taller angle of view.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Faces cut off on the first ${atLeastMetres(f.faceSeenFromM - f.zoneFromM)} of the zone`,
        because: (f) => `Faces are visible from ${metres(f.faceSeenFromM)}.`,
        do: ['Tilt it up a little, or mount it a little higher.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.face-near'), ...offers.models('choose.face-near')],
    why: 'Whoever rings stands close: a door station that shows a coat identifies nobody.',
  }),
  rule({
    id: 'choose.too-steep-for-faces',
    question: 'Is the view down on faces too steep?',
    limits: ['optics.steep'],
    source: 'depression above 30° spoils faces [A]',
    needs: ['depressionDeg', 'steepDeg'],
    asks: (f) => f.wantsFaces === true,
    isTight: (f) => f.depressionDeg > f.steepDeg,
    label: () => 'faces not from above',
    said: (f) => `${Math.round(f.depressionDeg)}° down`,
    isQuiet: true,
    severity: 'fix',
    title: (f) => `View down on faces ${Math.round(f.depressionDeg)}° steep`,
    because: (f) => `Beyond ${f.steepDeg}° a hat or a fringe hides the face.`,
    do: ['Mount it lower, or farther away.'],
    mends: (_, offers) => offers.mountings('choose.too-steep-for-faces'),
    why: 'Pixels do not help when they show the top of a head.',
  }),
  rule({
    id: 'choose.zone-width',
    question: 'Are both ends of the zone in the picture?',
    source: 'both ends of the zone against the angle of view, horizontally and vertically; a tenth short is tight [A]',
    needs: ['zoneSeenM', 'zoneWidthM', 'viewWidthM', 'distanceM'],
    judge: (f) => judgeWidth(f.zoneSeenM, f.zoneWidthM),
    label: (f) => `${f.zoneWidthM ?? ''} m wide`,
    said: (f) =>
      guessed(f, judgeWidth(f.zoneSeenM, f.zoneWidthM) === 'ok' ? brief(f.viewWidthM) : `${brief(f.zoneSeenM)} of it`),
    reason: (f) =>
      guess(f, `The picture is ${brief(f.viewWidthM)} wide there and covers ${brief(f.zoneSeenM)} of the zone.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${metres(f.zoneWidthM)} needed, ${seenOf(f.zoneSeenM)} in the picture`,
        because: (f) =>
          f.viewWidthM < 0.05
            ? `The picture does not reach the target at ${f.distanceM} m.`
            : f.viewWidthM >= f.zoneWidthM
              ? `At ${f.distanceM} m the picture is ${metres(f.viewWidthM)} wide, beside the zone.`
              : `At ${f.distanceM} m the picture is ${metres(f.viewWidthM)} wide.`,
        do: (f) =>
          f.viewWidthM < 0.05
            ? ['Tilt it so that the target is in the picture.']
            : f.viewWidthM >= f.zoneWidthM
              ? ['Turn it to the middle of the zone.', 'Use a lens for each side.']
              : ['Zoom out, or use a wider lens.', 'Share the width between two cameras.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Edge of the zone cut off at ${f.distanceM} m`,
        because: (f) => `${metres(f.zoneWidthM)} needed, ${seenOf(f.zoneSeenM)} in the picture.`,
        do: ['Zoom out a little, or mount it farther back.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-width'), ...offers.models('choose.zone-width')],
    why: 'What leaves the picture at the side is lost.',
  }),
  rule({
    id: 'choose.lenses-leave-gap',
    question: 'Is there a gap between its two lenses?',
    source: 'gap = axes apart − half of both views',
    needs: ['gapDeg'],
    asks: (f) => f.gapDeg !== undefined,
    isTight: (f) => hasGap(f.gapDeg),
    label: () => 'no gap between its lenses',
    said: (f) => (hasGap(f.gapDeg) ? `${Math.round(f.gapDeg)}° unseen` : 'no gap'),
    isQuiet: true,
    severity: 'fix',
    title: (f) => `Gap of ${Math.round(f.gapDeg)}° between its lenses`,
    because: () => 'Their axes are farther apart than half of both angles of view.',
    do: ['Set the lenses closer, or zoom one out.'],
    mends: (_, offers) => offers.models('choose.lenses-leave-gap'),
    why: 'Two pictures look like one, and the gap is not noticed until it matters.',
  }),
  rule({
    id: 'choose.view-beyond-model',
    question: 'Is the angle of view within what its projection covers?',
    source: 'rectilinear lenses to about 100°, fisheye lenses by F·θ where their angle was measured [A]',
    needs: ['isBeyondModel', 'hfovDeg', 'projection'],
    isTight: (f) => f.isBeyondModel,
    label: () => 'angle of view that can be computed',
    said: (f) => `${Math.round(f.hfovDeg)}°`,
    isQuiet: true,
    severity: 'fix',
    title: (f) => `Angle of view ${Math.round(f.hfovDeg)}°: wider than the formula covers`,
    because: (f) =>
      f.projection === 'pinhole'
        ? `No lens is rectilinear beyond ${PINHOLE_VALID_TO_DEG}°: the density at its edges differs by a tenth to a third.`
        : `Beyond ${PINHOLE_VALID_TO_DEG}° a fisheye lens differs from its focal length by a tenth to a third.`,
    do: (f) =>
      f.projection === 'pinhole'
        ? ['If it is a fisheye, say so in its model card, and enter the measured angle of view.']
        : ['Tape two marks at a known distance and enter the measured angle of view.'],
    why: 'Wide lenses distort: the middle has more pixels a metre, the edge fewer than computed.',
  }),
  rule({
    id: 'choose.light',
    question: 'Does its illuminator reach the target at night?',
    limits: ['optics.dark-ground'],
    source: 'irradiance ∝ 1/d² along the ray; half the range on dark ground or wet leaves [A]',
    needs: ['lightKind', 'lightReachM', 'slantM', 'distanceM'],
    asks: (f) => f.atNight === true,
    judge: (f) => (f.lightKind === 'none' ? 'will-not-work' : judgeLight(f.lightReachM, ratedOf(f), f.slantM)),
    label: () => 'illumination at night',
    said: (f) => (f.lightKind === 'none' ? 'no illuminator' : brief(f.lightReachM)),
    reason: (f) =>
      f.lightKind === 'none'
        ? 'It has no illuminator.'
        : `${brief(ratedOf(f))} rated, ${reach(f)}; it is ${brief(f.slantM)} to the target.`,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.lightKind === 'none' ? 'No illuminator for the night' : `Illuminator range ends before ${f.distanceM} m`,
        because: (f) =>
          f.lightKind === 'none'
            ? 'The need includes the night, and the camera has no illuminator.'
            : `${metres(ratedOf(f))} rated, ${reach(f)}; from the camera it is ${metres(f.slantM)}.`,
        do: (f) =>
          f.lightKind === 'none'
            ? ['Light the place, or choose a model with an IR illuminator or white light.']
            : ['Put a light near the target.', 'Choose a model with a longer illuminator range.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Illuminator range just reaches the target',
        because: (f) => `${metres(ratedOf(f))} rated, ${reach(f)}; from the camera it is ${metres(f.slantM)}.`,
        do: ['Try it at night before it is fixed.', 'Add a light where people walk.'],
      },
    },
    mends: (_, offers) => offers.models('choose.light'),
    why: 'By day every camera sees. Twice the distance takes four times the light, and data sheets measure against a white wall.',
  }),
  rule({
    id: 'choose.light-narrower-than-view',
    question: 'Does its illuminator cover its angle of view and the zone?',
    source: 'illuminator angle against the angle of view of all lenses, and of the zone',
    needs: ['lightAngleDeg', 'spanDeg', 'zoneSpanDeg'],
    asks: (f) => f.atNight === true && f.lightKind !== 'none',
    isTight: (f) => f.lightAngleDeg < f.spanDeg - 1e-9,
    label: () => 'illuminator as wide as the view',
    said: (f) => `${Math.round(f.lightAngleDeg)}°`,
    reason: (f) =>
      `Its illuminator is ${Math.round(f.lightAngleDeg)}° wide, its angle of view ${Math.round(f.spanDeg)}°.`,
    severity: (f) => (f.lightAngleDeg < f.zoneSpanDeg - 1e-9 ? 'fix' : 'caution'),
    title: (f) => (f.lightAngleDeg < f.zoneSpanDeg - 1e-9 ? 'Ends of the zone dark at night' : 'Corners dark at night'),
    because: (f) =>
      `Its illuminator is ${Math.round(f.lightAngleDeg)}° wide, its angle of view ${Math.round(f.spanDeg)}°; the zone takes ${Math.round(f.zoneSpanDeg)}°.`,
    do: ['Aim it so that what matters is in the middle, or add a light.'],
    mends: (_, offers) => offers.models('choose.light-narrower-than-view'),
    why: 'Exposure follows the bright middle, and the edges go black.',
  }),
] as const;
