import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
import { judgeDetail, readText, TEXT_LIMITS } from '../../optics/detail-levels.ts';
import { PINHOLE_VALID_TO_DEG } from '../../optics/picture-geometry.ts';
import type { ChooseFacts, ChooseOffers } from './choose-facts.ts';
import { hasGap, judgeLight, judgeNear, judgeWidth } from './judgements.ts';

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
const ratedOf = (f: { lightReachM: number; lightRatedM?: number | undefined }): number =>
  f.lightRatedM ?? f.lightReachM;

/** What the picture would show of the place, by day and by night. */
export const PICTURE_RULES = [
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
] as const;
