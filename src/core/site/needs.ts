import { assumed, type ChangedAssumptions } from '../assumptions/assumptions.ts';
import { isWorse } from '../base/verdict.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Mounting } from '../document/chapters/cameras/mounting.ts';
import type { Need } from '../document/chapters/cameras/need.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { nearEdgeM, type SpotView, spotView } from '../optics/ground-view.ts';
import { type Lens, wholeLenses } from '../optics/lens.ts';
import { type LensView, lensView, longestZoom } from '../optics/lens-view.ts';
import { type Aim, dualLens } from '../optics/picture-geometry.ts';
import { type AcrossStretch, type Drawn, draw, seenAcross, zoneSeenM } from '../optics/projection.ts';
import { judgeNear, judgeWidth } from './judgements.ts';

const DEG = Math.PI / 180;
/** [A] Head height of a ladder that one person still manages. */
const USUAL_HEIGHT_M = 3;

/** Height at which the detail is wanted: of a face, or of text where only text is asked for. */
export const lookHeightM = (need: Need | null, assumptions: ChangedAssumptions): number =>
  assumed(assumptions, need?.level || !need?.text ? 'optics.face-height' : 'optics.text-height');

/** Where the zone begins: never beyond where it ends. What was said of it stays, for when the target moves away again. */
export const zoneFromM = ({ nearM, distanceM }: Pick<Need, 'nearM' | 'distanceM'>): number =>
  Math.min(nearM, distanceM);

/** Of the view, from its rim to what is still aimed at. */
const RIM_DEG = 1;

/**
 * Where a camera would hang if nobody said: at three metres, its axis between the target and where the zone begins. A lens
 * that does not see both keeps the target in view, and gets as near as it can.
 */
export function usualMounting(need: Need, assumptions: ChangedAssumptions, model?: Model): Mounting {
  const downTo = (heightM: number, aheadM: number): number => Math.atan2(USUAL_HEIGHT_M - heightM, aheadM) / DEG;
  const far = downTo(lookHeightM(need, assumptions), need.distanceM);
  const middle = (far + downTo(0, zoneFromM(need))) / 2;
  const lowest = Math.min(...wholeLenses(model ?? NO_LENS).map((lens) => lensView(lens, 1).vfovDeg / 2)) - RIM_DEG;
  const tilt = Math.min(middle, Number.isFinite(lowest) ? far + Math.max(0, lowest) : far);
  return { heightM: USUAL_HEIGHT_M, tiltDownDeg: Math.round(tilt), headingDeg: 0, zoom: null };
}
const NO_LENS = { lenses: [] };

/** [A] Where nobody said how it hangs, nor what for. */
const UNSAID: Mounting = { heightM: USUAL_HEIGHT_M, tiltDownDeg: 15, headingDeg: 0, zoom: null };

/** How a camera hangs: as planned, else as its need suggests. */
export const mountingOf = (
  { mounting, need }: Pick<Camera, 'mounting' | 'need'>,
  assumptions: ChangedAssumptions,
  model?: Model,
): Mounting => mounting ?? (need ? usualMounting(need, assumptions, model) : UNSAID);

export const aimOf = ({ heightM, tiltDownDeg }: Mounting): Aim => ({ mountHeightM: heightM, tiltDownDeg });

/**
 * The lens at the zoom that was set, else as long as the zone stays in view: both its ends, and its near edge as far as the
 * wide end sees it.
 * @param lookM height at which the detail is wanted
 */
export function viewThrough(lens: Lens, need: Need, mounting: Mounting, lookM: number): LensView {
  if (mounting.zoom !== null) return lensView(lens, mounting.zoom);
  const aim = aimOf(mounting);
  const near = (view: LensView) => judgeNear(groundFromM(view, aim), zoneFromM(need));
  const nearAtWide = near(lensView(lens, 1));
  const ends = [-need.widthM / 2, 0, need.widthM / 2].map((rightM) => ({
    aheadM: need.distanceM,
    rightM,
    heightM: lookM,
  }));
  const zoom = longestZoom(
    lens,
    (view) => ends.every((end) => draw(view, aim, end).isInView) && !isWorse(near(view), nearAtWide),
  );
  return lensView(lens, zoom);
}

const groundFromM = (view: LensView, aim: Aim): number => nearEdgeM(aim, view.vfovDeg, 0) ?? Number.POSITIVE_INFINITY;

/** How a lens serves a need. */
export interface LensService {
  readonly view: LensView;
  readonly face: SpotView;
  readonly text: SpotView;
  /** What it sees of the line on which the target stands, at the height that is looked at. */
  readonly across: AcrossStretch | null;
  /** Near edge of what is seen on the ground, m; `Infinity` when the ground is not seen. */
  readonly seenFromM: number;
  /** The same at the height of a face. */
  readonly faceSeenFromM: number;
}

export function serve(lens: Lens, need: Need, mounting: Mounting, assumptions: ChangedAssumptions): LensService {
  const lookM = lookHeightM(need, assumptions);
  const view = viewThrough(lens, need, mounting, lookM);
  const aim = aimOf(mounting);
  const faceM = assumed(assumptions, 'optics.face-height');
  return {
    view,
    face: spotView(view, aim, need.distanceM, faceM),
    text: spotView(view, aim, need.distanceM, assumed(assumptions, 'optics.text-height')),
    across: seenAcross(view, aim, need.distanceM, lookM),
    seenFromM: groundFromM(view, aim),
    faceSeenFromM: nearEdgeM(aim, view.vfovDeg, faceM) ?? Number.POSITIVE_INFINITY,
  };
}

/** Pixels of a metre where the zone has fewest. */
export interface ZoneDetail {
  readonly facePxPerM: number;
  /** Of what stands upright there, or lies across: the lower of both. */
  readonly textPxPerM: number;
  /** It is lower at an end than in the middle: a lens that bends draws its rim smaller. */
  readonly isLowestAtEdge: boolean;
}

/** [A] Between two of these the detail of a zone changes by less than a judgement tells. */
const PLACES_OF_ZONE = [-1, -0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75, 1] as const;
/** Inside of where a view ends, m. */
const RIM_M = 0.001;
/** Lower by less than this is as in the middle. */
const AS_IN_MIDDLE = 0.98;

/** A camera that turns looks at each place in its middle. */
function detailOfZone(
  best: LensService,
  all: readonly LensService[],
  need: Need,
  mounting: Mounting,
  assumptions: ChangedAssumptions,
  turns: boolean,
): ZoneDetail {
  const aim = aimOf(mounting);
  const [faceM, textM] = [assumed(assumptions, 'optics.face-height'), assumed(assumptions, 'optics.text-height')];
  const half = need.widthM / 2;
  // where a view ends inside the zone it has least too
  const rims = all.flatMap(({ across }) => (across ? [across.fromM + RIM_M, across.toM - RIM_M] : []));
  const placesM = [...PLACES_OF_ZONE.map((place) => place * half), ...rims.filter((atM) => Math.abs(atM) < half)];
  const lowest = (heightM: number, middle: number, of: (drawn: Drawn) => number): number => {
    let least = middle;
    for (const rightM of turns ? [] : placesM) {
      const spot = { aheadM: need.distanceM, rightM, heightM };
      const own = draw(best.view, aim, spot);
      const others = own.isInView
        ? [own]
        : all.map(({ view }) => draw(view, aim, spot)).filter(({ isInView }) => isInView);
      if (others.length > 0) least = Math.min(least, Math.max(...others.map(of)));
    }
    return least;
  };
  const text = (one: Pick<SpotView, 'pxPerM' | 'uprightPxPerM'>): number => Math.min(one.pxPerM, one.uprightPxPerM);
  const facePxPerM = lowest(faceM, best.face.pxPerM, ({ acrossPxPerM }) => acrossPxPerM);
  return {
    facePxPerM,
    textPxPerM: lowest(textM, text(best.text), ({ acrossPxPerM: pxPerM, uprightPxPerM }) =>
      text({ pxPerM, uprightPxPerM }),
    ),
    isLowestAtEdge: facePxPerM < best.face.pxPerM * AS_IN_MIDDLE,
  };
}

/** How all lenses of a camera serve a need. */
export interface CameraService {
  /** The lens that is judged: of those that see the target and what lies beside it, the one that gives it most. */
  readonly best: LensService;
  /** In the order of the card. */
  readonly all: readonly LensService[];
  /** Lowest detail over the zone, from end to end; what its lenses do not see of it counts as width. */
  readonly zoneDetail: ZoneDetail;
  /** From the leftmost that is seen at the target to the rightmost, by all lenses together, m. */
  readonly widthM: number;
  /** Of the zone, from end to end: what its ends lose is missing. */
  readonly zoneSeenM: number;
  /** From the left edge of all views to the right one, degrees. */
  readonly spanDeg: number;
  /** Seen by neither of two lenses. */
  readonly gapDeg: number;
}

/**
 * The lens that a camera is judged by, and what its lenses share and leave open. A long lens that sees less than the zone
 * counts where the camera turns it; where it stands still, what walks past beside it is not seen by it.
 * @returns `null` when the card names no lens whose figures are whole
 */
export function serveBest(
  model: Model,
  need: Need,
  mounting: Mounting,
  assumptions: ChangedAssumptions,
): CameraService | null {
  const all = wholeLenses(model).map((lens) => serve(lens, need, mounting, assumptions));
  const spot = need.level || !need.text ? 'face' : 'text';
  const turns = (model.panRangeDeg ?? 0) > 0;
  const seesZone = ({ across }: LensService): boolean =>
    judgeWidth(zoneSeenM([across], need.widthM), need.widthM) !== 'will-not-work';
  const rank = (one: LensService): number => (one[spot].isInView ? (turns || seesZone(one) ? 2 : 1) : 0);
  const best = all.toSorted((a, b) => rank(b) - rank(a) || b[spot].pxPerM - a[spot].pxPerM)[0];
  if (!best) return null;
  const stretches = all.flatMap(({ across }) => across ?? []);
  const edges = (side: 1 | -1): readonly number[] =>
    all.map(({ view }) => view.lens.axisDeg + (side * view.hfovDeg) / 2);
  const [a, b] = all;
  return {
    best,
    all,
    zoneDetail: detailOfZone(best, all, need, mounting, assumptions, turns),
    widthM:
      stretches.length === 0
        ? 0
        : Math.max(...stretches.map(({ toM }) => toM)) - Math.min(...stretches.map(({ fromM }) => fromM)),
    zoneSeenM: zoneSeenM(stretches, need.widthM),
    spanDeg: Math.min(360, Math.max(...edges(1)) - Math.min(...edges(-1))),
    gapDeg:
      a && b ? dualLens(a.view.hfovDeg, b.view.hfovDeg, Math.abs(b.view.lens.axisDeg - a.view.lens.axisDeg)).gapDeg : 0,
  };
}

/** The need in a line, as one would say it at the door. */
export function sayNeed(need: Need): string {
  const parts = [
    need.level ? `${need.level} a person` : null,
    need.text ? `read ${need.text.charHeightMm} mm characters` : null,
  ].filter((part) => part !== null);
  const what = parts.length > 0 ? parts.join(', ') : 'see';
  return `${what[0]?.toUpperCase()}${what.slice(1)} at ${need.distanceM} m, ${need.widthM} m wide, ${need.atNight ? 'day and night' : 'by day'}`;
}
