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
    ? `${reason} ${Math.round(hfovDeg ?? 0)}° is wider than the formula is good for: a guess until it is measured.`
    : reason;
/** Of what is missing, rounded up: a strip that is there is never 0.0 m wide. */
const seenOf = (m: number): string => (m < 0.05 ? 'none of them' : `${metres(m)} of them`);
const atLeastMetres = (m: number): string => sayFrom(Math.max(0.1, m - 1e-6));

/** Leaves and dark ground are outdoors; indoors walls give the light back. */
const reach = (f: { lightReachM: number; outdoors?: boolean | undefined }): string =>
  f.outdoors === false
    ? `${brief(f.lightReachM)} indoors`
    : `about ${brief(f.lightReachM)} over dark ground and wet leaves`;

const ratedOf = (f: { lightReachM: number; lightRatedM?: number | undefined }): number =>
  f.lightRatedM ?? f.lightReachM;

/** What the picture would show of the place, by day and by night. */
export const PICTURE_RULES = [
  rule({
    id: 'choose.detail',
    question: 'Do enough pixels fall on a metre where the target stands?',
    limits: ['optics.face-height'],
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
    question: 'Does a letter get enough pixels to be read?',
    limits: ['optics.text-height'],
    source: '12 px a letter are guessed, 20 are read [A]; from above a letter shrinks by the cosine',
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
    question: 'Is the target in the picture at all?',
    source: 'projection of the lens, rectilinear or equidistant: its rays against both half angles',
    needs: ['isInView', 'distanceM'],
    fails: (f) => !f.isInView,
    label: () => 'target in the picture',
    said: (f) => (f.isInView ? 'yes' : 'no'),
    isQuiet: true,
    severity: 'stop',
    title: (f) => `It looks past what stands at ${f.distanceM} m`,
    because: () => 'The target lies outside the picture at this height, tilt and zoom.',
    do: ['Change the tilt, or zoom out.'],
    mends: (_, offers) => [
      ...offers.mountings('choose.target-out-of-view'),
      ...offers.models('choose.target-out-of-view'),
    ],
    why: 'The sharpest picture of the wrong place shows nothing.',
  }),
  rule({
    id: 'choose.zone-near',
    question: 'Is the ground seen where the zone begins?',
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
        title: (f) => `The first ${atLeastMetres(f.seenFromM - f.zoneFromM)} of the zone are unseen`,
        because: (f) => `It sees the ground from ${metres(f.seenFromM)} on; the zone begins at ${metres(f.zoneFromM)}.`,
        do: ['Tilt it down a little, or hang it lower.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-near'), ...offers.models('choose.zone-near')],
    why: 'Who knows it walks along the wall.',
  }),
  rule({
    id: 'choose.face-near',
    question: 'Is a face seen where the zone begins?',
    limits: ['optics.face-height'],
    source: 'near edge at the height of a face; a fifth more is tight [A]',
    needs: ['faceSeenFromM', 'zoneFromM'],
    asks: (f) => f.wantsFaces === true,
    judge: (f) => judgeNear(f.faceSeenFromM, f.zoneFromM),
    label: (f) => `faces from ${f.zoneFromM ?? 0} m on`,
    said: (f) => (Number.isFinite(f.faceSeenFromM) ? brief(f.faceSeenFromM) : 'no faces'),
    reason: (f) =>
      Number.isFinite(f.faceSeenFromM)
        ? `A face comes into the picture at ${brief(f.faceSeenFromM)}.`
        : 'It never looks as high as a face.',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          Number.isFinite(f.faceSeenFromM)
            ? `Nearer than ${metres(f.faceSeenFromM)} the picture cuts off faces`
            : 'It never sees a face',
        because: (f) => `The zone begins at ${metres(f.zoneFromM)}; who stands there is seen without a head.`,
        do: ['Hang it at the height of a face, tilt it up, or take a higher view.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Faces are cut off on the first ${atLeastMetres(f.faceSeenFromM - f.zoneFromM)} of the zone`,
        because: (f) => `A face comes into the picture at ${metres(f.faceSeenFromM)}.`,
        do: ['Tilt it up a little, or hang it a little higher.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.face-near'), ...offers.models('choose.face-near')],
    why: 'Who rings stands close: a door station that shows a coat identifies nobody.',
  }),
  rule({
    id: 'choose.too-steep-for-faces',
    question: 'Are faces looked down on too steeply?',
    limits: ['optics.steep'],
    source: 'depression above 30° spoils faces [A]',
    needs: ['depressionDeg', 'steepDeg'],
    asks: (f) => f.wantsFaces === true,
    isTight: (f) => f.depressionDeg > f.steepDeg,
    label: () => 'faces not from above',
    said: (f) => `${Math.round(f.depressionDeg)}° down`,
    isQuiet: true,
    severity: 'fix',
    title: (f) => `It looks ${Math.round(f.depressionDeg)}° down on faces`,
    because: (f) => `Beyond ${f.steepDeg}° a hat or a fringe hides the face.`,
    do: ['Hang it lower, or look from farther away.'],
    mends: (_, offers) => offers.mountings('choose.too-steep-for-faces'),
    why: 'Pixels do not help when they show the crown of a head.',
  }),
  rule({
    id: 'choose.zone-width',
    question: 'Are both ends of the zone in view?',
    source: 'both ends of the zone against the view, in width and height; a tenth short is tight [A]',
    needs: ['zoneSeenM', 'zoneWidthM', 'viewWidthM', 'distanceM'],
    judge: (f) => judgeWidth(f.zoneSeenM, f.zoneWidthM),
    label: (f) => `${f.zoneWidthM ?? ''} m wide`,
    said: (f) =>
      guessed(f, judgeWidth(f.zoneSeenM, f.zoneWidthM) === 'ok' ? brief(f.viewWidthM) : `${brief(f.zoneSeenM)} of it`),
    reason: (f) => guess(f, `It sees ${brief(f.viewWidthM)} across there, ${brief(f.zoneSeenM)} of the zone.`),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${metres(f.zoneWidthM)} wanted, ${seenOf(f.zoneSeenM)} in view`,
        because: (f) =>
          f.viewWidthM < 0.05
            ? `The picture does not reach what stands at ${f.distanceM} m.`
            : f.viewWidthM >= f.zoneWidthM
              ? `At ${f.distanceM} m the picture is ${metres(f.viewWidthM)} wide, and looks beside the zone.`
              : `At ${f.distanceM} m the picture is ${metres(f.viewWidthM)} wide.`,
        do: (f) =>
          f.viewWidthM < 0.05
            ? ['Tilt it so that the target stands in the picture.']
            : f.viewWidthM >= f.zoneWidthM
              ? ['Turn it to the middle of the zone.', 'Take a lens for each side.']
              : ['Zoom out, or take a wider lens.', 'Share the width between two cameras.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `The edge of the zone is cut off at ${f.distanceM} m`,
        because: (f) => `${metres(f.zoneWidthM)} wanted, ${seenOf(f.zoneSeenM)} in view.`,
        do: ['Zoom out a little, or hang it farther back.'],
      },
    },
    mends: (_, offers) => [...offers.mountings('choose.zone-width'), ...offers.models('choose.zone-width')],
    why: 'What leaves at the side is gone.',
  }),
  rule({
    id: 'choose.lenses-leave-gap',
    question: 'Do two lenses leave a strip between them?',
    source: 'gap = axes apart − half of both views',
    needs: ['gapDeg'],
    asks: (f) => f.gapDeg !== undefined,
    isTight: (f) => hasGap(f.gapDeg),
    label: () => 'nothing between its lenses',
    said: (f) => (hasGap(f.gapDeg) ? `${Math.round(f.gapDeg)}° unseen` : 'no gap'),
    isQuiet: true,
    severity: 'fix',
    title: (f) => `${Math.round(f.gapDeg)}° between its lenses are seen by neither`,
    because: () => 'Their axes stand farther apart than half of both views.',
    do: ['Set the lenses closer, or zoom one out.'],
    mends: (_, offers) => offers.models('choose.lenses-leave-gap'),
    why: 'Two pictures look like one, and the strip between is not missed until it matters.',
  }),
  rule({
    id: 'choose.view-beyond-model',
    question: 'Is the view wider than its projection is good for?',
    source: 'straight lenses to about 100°, bending ones by F·θ where their width was measured [A]',
    needs: ['isBeyondModel', 'hfovDeg', 'projection'],
    isTight: (f) => f.isBeyondModel,
    label: () => 'view that can be computed',
    said: (f) => `${Math.round(f.hfovDeg)}°`,
    isQuiet: true,
    severity: 'fix',
    title: (f) => `${Math.round(f.hfovDeg)}° is wider than the formula is good for`,
    because: (f) =>
      f.projection === 'pinhole'
        ? `No lens draws straight beyond ${PINHOLE_VALID_TO_DEG}°: at its edges a tenth to a third less, or more.`
        : `Beyond ${PINHOLE_VALID_TO_DEG}° a bending lens differs from its focal length by a tenth to a third.`,
    do: (f) =>
      f.projection === 'pinhole'
        ? ['Where it bends straight edges, say so in its card, and enter the view that was measured.']
        : ['Tape two marks at a known distance and enter the view that was measured.'],
    why: 'Wide lenses bend: the middle gets more, the edge less than computed.',
  }),
  rule({
    id: 'choose.light',
    question: 'Does its light reach the target at night?',
    limits: ['optics.dark-ground'],
    source: 'irradiance ∝ 1/d² along the ray; half the reach on dark ground or wet leaves [A]',
    needs: ['lightKind', 'lightReachM', 'slantM', 'distanceM'],
    asks: (f) => f.atNight === true,
    judge: (f) => (f.lightKind === 'none' ? 'will-not-work' : judgeLight(f.lightReachM, ratedOf(f), f.slantM)),
    label: () => 'light at night',
    said: (f) => (f.lightKind === 'none' ? 'no light' : brief(f.lightReachM)),
    reason: (f) =>
      f.lightKind === 'none'
        ? 'It has no light of its own.'
        : `${brief(ratedOf(f))} rated, ${reach(f)}; it is ${brief(f.slantM)} to the target.`,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) =>
          f.lightKind === 'none' ? 'It has no light for the night' : `Its light ends before ${f.distanceM} m`,
        because: (f) =>
          f.lightKind === 'none'
            ? 'The place is to be seen at night, and the camera brings no light.'
            : `${metres(ratedOf(f))} rated, ${reach(f)}; from the camera it is ${metres(f.slantM)}.`,
        do: (f) =>
          f.lightKind === 'none'
            ? ['Light the place, or take a model with infrared or white light.']
            : ['Put a light near the target.', 'Take a model whose light reaches.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Its light ends where the target stands',
        because: (f) => `${metres(ratedOf(f))} rated, ${reach(f)}; from the camera it is ${metres(f.slantM)}.`,
        do: ['Try it at night before it is fixed.', 'Add a light where people walk.'],
      },
    },
    mends: (_, offers) => offers.models('choose.light'),
    why: 'By day all cameras see. Twice as far takes four times the light, and data sheets light a white wall.',
  }),
  rule({
    id: 'choose.light-narrower-than-view',
    question: 'Is its light as wide as its view, and as the zone?',
    source: 'angle of light against the angle of all its views, and of the zone',
    needs: ['lightAngleDeg', 'spanDeg', 'zoneSpanDeg'],
    asks: (f) => f.atNight === true && f.lightKind !== 'none',
    isTight: (f) => f.lightAngleDeg < f.spanDeg - 1e-9,
    label: () => 'light as wide as the view',
    said: (f) => `${Math.round(f.lightAngleDeg)}°`,
    reason: (f) => `Its light is ${Math.round(f.lightAngleDeg)}° wide, its view ${Math.round(f.spanDeg)}°.`,
    severity: (f) => (f.lightAngleDeg < f.zoneSpanDeg - 1e-9 ? 'fix' : 'watch'),
    title: (f) =>
      f.lightAngleDeg < f.zoneSpanDeg - 1e-9
        ? 'The ends of the zone stay dark at night'
        : 'The corners stay dark at night',
    because: (f) =>
      `Its light is ${Math.round(f.lightAngleDeg)}° wide, its view ${Math.round(f.spanDeg)}°; the zone takes ${Math.round(f.zoneSpanDeg)}°.`,
    do: ['Aim it so that what matters is in the middle, or add a light.'],
    mends: (_, offers) => offers.models('choose.light-narrower-than-view'),
    why: 'Exposure follows the bright middle, and the rim goes black.',
  }),
] as const;
