import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../../../core/document/chapters/models/model-card.ts';
import type { EvidenceIndex } from '../../../../core/evidence/evidence-index.ts';
import { type HeadTurn, headTurnOf } from '../../../../core/evidence/onvif-evidence.ts';
import type { Span } from '../../../../core/onvif/services/ptz.ts';
import { wholeLenses } from '../../../../core/optics/lens.ts';
import { lensView, zoomRange } from '../../../../core/optics/lens-view.ts';
import { type DegreeRange, degreesOfNorm, normOfDegrees, viewAtZoom } from '../../../../core/ptz/turning.ts';

/** How far a head reaches, and from where that is known. */
export interface HeadReach {
  readonly pan: DegreeRange;
  readonly tilt: DegreeRange;
  /** It stands on the card of its model; else a full turn is drawn. */
  readonly isKnown: boolean;
  /** At its wide end. */
  readonly hfovDeg: number | null;
  /** Longest focal length against the shortest. */
  readonly zoomMost: number;
  readonly turn: HeadTurn | null;
}

const FULL_TURN_DEG = 360;
const UNKNOWN_TILT_DEG = 90;

/** Straight on is the middle of its reach, as cards give it; the standard leaves the unit to the device. */
export function headReach(camera: Camera, model: Model | undefined, index: EvidenceIndex): HeadReach {
  const panRange = model?.panRangeDeg || null;
  const tiltRange = model?.tiltRangeDeg || null;
  const half = (panRange ?? FULL_TURN_DEG) / 2;
  const lens = model && wholeLenses(model)[0];
  return {
    pan: { minDeg: -half, maxDeg: half },
    tilt: { minDeg: -(tiltRange ?? UNKNOWN_TILT_DEG), maxDeg: 0 },
    isKnown: panRange !== null,
    hfovDeg: lens ? lensView(lens, 1).hfovDeg : null,
    zoomMost: lens ? zoomRange(lens) : 1,
    turn: headTurnOf(index, camera.id),
  };
}

const toUnit = (value: number, { min, max }: Span): number => (2 * (value - min)) / (max - min) - 1;
/** −1…1 in the numbers of a space. */
export const numberOfUnit = (unit: number, { min, max }: Span): number => min + ((unit + 1) / 2) * (max - min);

/** Degrees of a position in the numbers of its space. */
export const panDegrees = (pan: number, span: Span, { pan: range }: HeadReach): number =>
  degreesOfNorm(toUnit(pan, span), range);
/** The number of its space for degrees; beyond an end it is taken to it. */
export const panNumber = (deg: number, span: Span, { pan: range }: HeadReach): number =>
  numberOfUnit(normOfDegrees(deg, range).norm, span);

/** How wide it sees at its present zoom, as far as its card tells; a head that tells no zoom is taken to be at its wide end. */
export function viewDegOf({ hfovDeg, zoomMost }: HeadReach, zoom: number | null, span: Span | null): number | null {
  if (hfovDeg === null) return null;
  const share = zoom === null || span === null ? 0 : (zoom - span.min) / (span.max - span.min);
  return viewAtZoom(hfovDeg, 1 + Math.min(1, Math.max(0, share)) * (zoomMost - 1));
}
