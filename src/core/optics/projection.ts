import type { LensView } from './lens-view.ts';
import type { Aim } from './picture-geometry.ts';

const DEG = Math.PI / 180;

/** A point from the foot of the camera, m: ahead along its heading, to its right, above the ground. */
export interface Spot {
  readonly aheadM: number;
  readonly rightM: number;
  readonly heightM: number;
}

/** Where a point falls in a picture, and how large a metre is drawn there. */
export interface Drawn {
  /** Along the optical axis of the lens; not above 0 is behind a straight lens. */
  readonly depthM: number;
  /** Along the ray. */
  readonly slantM: number;
  /** Below the horizontal, as seen from the camera. */
  readonly depressionDeg: number;
  readonly isInView: boolean;
  /** Pixels of a metre that lies level across the line of sight. */
  readonly acrossPxPerM: number;
  /** Pixels of a metre that stands upright: less the steeper one looks down on it. */
  readonly uprightPxPerM: number;
}

/** [A] Rounding puts what lies on the rim inside. */
const RIM = 1e-9;

/**
 * Projects a point through a lens. Straight lenses (rectilinear): u = F·x/z, so a metre across has F/z. Bending ones
 * (equidistant): the angle θ from the axis is drawn at F·θ, so across the ray a metre has F·θ/(r·sin θ) around the axis and
 * F/r away from it. What a straight lens stretches at its rim is not counted as detail.
 * F is N/(2·tan(HFOV/2)) or N/HFOV, px. Source: projection models; cos of the depression as EN/IEC 62676-4 leaves to geometry.
 */
export function draw({ lens, hfovDeg, vfovDeg, focalPx }: LensView, aim: Aim, spot: Spot): Drawn {
  const [tilt, axis] = [aim.tiltDownDeg * DEG, lens.axisDeg * DEG];
  const drop = aim.mountHeightM - spot.heightM;
  const forward = spot.aheadM * Math.cos(axis) + spot.rightM * Math.sin(axis);
  const x = spot.rightM * Math.cos(axis) - spot.aheadM * Math.sin(axis);
  const z = forward * Math.cos(tilt) + drop * Math.sin(tilt);
  const y = drop * Math.cos(tilt) - forward * Math.sin(tilt);
  const groundM = Math.hypot(spot.aheadM, spot.rightM);
  const slantM = Math.hypot(groundM, drop);
  const depressionDeg = Math.atan2(drop, groundM) / DEG;
  const upright = Math.cos(depressionDeg * DEG);
  const seen = { depthM: z, slantM, depressionDeg };
  if (lens.projection === 'pinhole') {
    const isAhead = z > 0;
    const isInView =
      isAhead &&
      Math.abs(x) <= z * Math.tan((Math.min(hfovDeg, 179.9) / 2) * DEG) * (1 + RIM) + RIM &&
      Math.abs(y) <= z * Math.tan((Math.min(vfovDeg, 179.9) / 2) * DEG) * (1 + RIM) + RIM;
    const across = isAhead ? focalPx / z : 0;
    return { ...seen, isInView, acrossPxPerM: across, uprightPxPerM: across * upright };
  }
  const asideM = Math.hypot(x, y);
  const theta = Math.atan2(asideM, z);
  const [u, v] = asideM === 0 ? [0, 0] : [(theta * x) / asideM, (theta * y) / asideM];
  const isInView =
    slantM > 0 && Math.abs(u) <= (hfovDeg / 2) * DEG * (1 + RIM) && Math.abs(v) <= (vfovDeg / 2) * DEG * (1 + RIM);
  const away = slantM > 0 ? focalPx / slantM : 0;
  const around = asideM > 0 ? (away * theta) / (asideM / slantM) : away;
  // A level metre across the sight lies partly around the axis, partly away from it: by where its lens is turned to.
  const [ex, ey, ez] =
    groundM === 0
      ? [1, 0, 0]
      : levelAcross(spot.aheadM / groundM, spot.rightM / groundM, Math.cos(axis), Math.sin(axis), tilt);
  const turned = asideM > 0 ? (x * ey - y * ex) / asideM : 1;
  const outward = asideM > 0 ? ((x * ex + y * ey) * z) / (asideM * slantM) - (ez * asideM) / slantM : 0;
  return {
    ...seen,
    isInView,
    acrossPxPerM: Math.hypot(around * turned, away * outward),
    uprightPxPerM: away * upright,
  };
}

/** The level direction across the line of sight, in the axes of the lens: right, down, along. */
function levelAcross(
  ahead: number,
  right: number,
  cosAxis: number,
  sinAxis: number,
  tilt: number,
): readonly [number, number, number] {
  const [alongHeading, toRight] = [-right, ahead];
  const forward = alongHeading * cosAxis + toRight * sinAxis;
  return [toRight * cosAxis - alongHeading * sinAxis, -forward * Math.sin(tilt), forward * Math.cos(tilt)];
}

/** A stretch across the heading of the camera, m; to the left is below 0. */
export interface AcrossStretch {
  readonly fromM: number;
  readonly toM: number;
}

/** [A] Aside of the heading by more than this a view has no width worth a number. */
const WIDEST_ASIDE_DEG = 80;
/** What a lens sees of the line that runs across, `aheadM` before the camera and `heightM` above the ground; `null`: nothing. */
export const seenAcross = (view: LensView, aim: Aim, aheadM: number, heightM: number): AcrossStretch | null =>
  view.lens.projection === 'pinhole'
    ? straightAcross(view, aim, aheadM, heightM)
    : bentAcross(view, aim, aheadM, heightM);

/** A number that grows along a line: at its start, and with each metre. */
export type AlongLine = readonly [number, number];

/** A level line: where it starts, seen from the foot of the camera, and which way it runs. */
export interface LevelLine {
  readonly aheadM: number;
  readonly rightM: number;
  readonly heightM: number;
  /** Of one metre along it. */
  readonly towards: readonly [ahead: number, right: number];
}

/**
 * A level line before a straight lens: its depth, and the four sides of the picture as numbers that are not below 0 inside.
 * A straight lens keeps lines straight, so each grows evenly along it.
 */
export function straightLine(
  { lens, hfovDeg, vfovDeg }: LensView,
  aim: Aim,
  { aheadM, rightM, heightM, towards: [ahead, right] }: LevelLine,
): { readonly depth: AlongLine; readonly sides: readonly AlongLine[] } {
  const [tilt, axis] = [aim.tiltDownDeg * DEG, lens.axisDeg * DEG];
  const drop = aim.mountHeightM - heightM;
  const forward = [
    aheadM * Math.cos(axis) + rightM * Math.sin(axis),
    ahead * Math.cos(axis) + right * Math.sin(axis),
  ] as const;
  const x = [
    rightM * Math.cos(axis) - aheadM * Math.sin(axis),
    right * Math.cos(axis) - ahead * Math.sin(axis),
  ] as const;
  const depth = [forward[0] * Math.cos(tilt) + drop * Math.sin(tilt), forward[1] * Math.cos(tilt)] as const;
  const y = [drop * Math.cos(tilt) - forward[0] * Math.sin(tilt), -forward[1] * Math.sin(tilt)] as const;
  const [wide, high] = [Math.tan((hfovDeg / 2) * DEG), Math.tan((vfovDeg / 2) * DEG)];
  const side = (half: number, way: AlongLine, sign: 1 | -1): AlongLine => [
    half * depth[0] - sign * way[0],
    half * depth[1] - sign * way[1],
  ];
  return { depth, sides: [side(wide, x, 1), side(wide, x, -1), side(high, y, 1), side(high, y, -1)] };
}

function straightAcross(view: LensView, aim: Aim, aheadM: number, heightM: number): AcrossStretch | null {
  const widestM = aheadM * Math.tan(WIDEST_ASIDE_DEG * DEG);
  let [fromM, toM] = [-widestM, widestM];
  for (const [fixed, share] of straightLine(view, aim, { aheadM, rightM: 0, heightM, towards: [0, 1] }).sides) {
    if (share > 0) fromM = Math.max(fromM, -fixed / share);
    else if (share < 0) toM = Math.min(toM, -fixed / share);
    else if (fixed < 0) return null;
  }
  return fromM < toM ? { fromM, toM } : null;
}

const SAMPLES = 40;

/**
 * A bending lens has no flat sides: its rim is looked for around the directions that it sees. Looking down it may see a line
 * in two pieces, in the corners of its picture; then the wider one counts.
 */
function bentAcross(view: LensView, aim: Aim, aheadM: number, heightM: number): AcrossStretch | null {
  const isSeen = (deg: number): boolean =>
    draw(view, aim, { aheadM, rightM: aheadM * Math.tan(deg * DEG), heightM }).isInView;
  const step = (2 * WIDEST_ASIDE_DEG) / SAMPLES;
  const runs: { fromDeg: number; toDeg: number }[] = [];
  let isOpen = false;
  for (let at = 0; at <= SAMPLES; at++) {
    const deg = at * step - WIDEST_ASIDE_DEG;
    const last = runs.at(-1);
    if (!isSeen(deg)) isOpen = false;
    else if (isOpen && last) last.toDeg = deg;
    else {
      runs.push({ fromDeg: deg, toDeg: deg });
      isOpen = true;
    }
  }
  const rim = (insideDeg: number, towards: 1 | -1): number => {
    let [inside, outside] = [insideDeg, insideDeg + towards * step];
    if (Math.abs(outside) > WIDEST_ASIDE_DEG) return inside;
    for (let round = 0; round < 40; round++) {
      const middle = (inside + outside) / 2;
      if (isSeen(middle)) inside = middle;
      else outside = middle;
    }
    return inside;
  };
  const at = (deg: number): number => aheadM * Math.tan(deg * DEG);
  // Which is wider is asked of the rims: two pieces that one sample each meets are not equally wide.
  const pieces = runs.map(({ fromDeg, toDeg }) => ({ fromM: at(rim(fromDeg, -1)), toM: at(rim(toDeg, 1)) }));
  const width = ({ fromM, toM }: AcrossStretch): number => toM - fromM;
  return pieces.reduce<AcrossStretch | null>((a, b) => (a && width(a) >= width(b) ? a : b), null);
}

/** How much of a zone is seen, from end to end: what its ends lose counts, a gap between two lenses has its own question. */
export function zoneSeenM(seen: readonly (AcrossStretch | null)[], widthM: number): number {
  const half = widthM / 2;
  const inside = seen.flatMap((stretch) =>
    stretch && stretch.toM > -half && stretch.fromM < half
      ? [{ fromM: Math.max(-half, stretch.fromM), toM: Math.min(half, stretch.toM) }]
      : [],
  );
  if (inside.length === 0) return 0;
  return Math.max(...inside.map(({ toM }) => toM)) - Math.min(...inside.map(({ fromM }) => fromM));
}
