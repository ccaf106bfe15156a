/** One lens with the sensor behind it. A camera has one, a dual-lens camera two. */
export interface Lens {
  readonly label: string;
  /** Active width and height of the sensor, mm: of the data sheet, not of the format in inches. */
  readonly sensorWidthMm: number;
  readonly sensorHeightMm: number;
  readonly focalWideMm: number;
  /** The same as wide where nothing zooms. */
  readonly focalTeleMm: number;
  readonly projection: 'pinhole' | 'equidistant';
  /** Taped between two marks; counts before what the focal length says, at the wide end. */
  readonly measuredHfovDeg: number | null;
  /** Of its axis from that of the camera, to the right. */
  readonly axisDeg: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

type Figures = 'sensorWidthMm' | 'sensorHeightMm' | 'focalWideMm' | 'focalTeleMm' | 'widthPx' | 'heightPx';
/** A lens as a card knows it: each figure may be not known. */
export type CardLens = Omit<Lens, Figures> & { readonly [F in Figures]: number | null };

/** A sensor that nobody named is drawn with pixels of this pitch: where the view was measured, its size plays no part. */
const ANY_PITCH_MM = 0.002;

/**
 * The lens that its figures make: its pixels, and either sensor and focal length or the view that was measured.
 * @returns `null` while one of them is missing: then nothing can be computed of it
 */
export function wholeLens(card: CardLens): Lens | null {
  const { widthPx, heightPx, sensorWidthMm, sensorHeightMm, focalWideMm, measuredHfovDeg } = card;
  if (widthPx === null || heightPx === null) return null;
  if (sensorWidthMm !== null && sensorHeightMm !== null && focalWideMm !== null)
    return {
      ...card,
      widthPx,
      heightPx,
      sensorWidthMm,
      sensorHeightMm,
      focalWideMm,
      focalTeleMm: card.focalTeleMm ?? focalWideMm,
    };
  if (measuredHfovDeg === null) return null;
  const widthMm = sensorWidthMm ?? widthPx * ANY_PITCH_MM;
  const half = (measuredHfovDeg * Math.PI) / 360;
  const computedMm =
    card.projection === 'equidistant' ? widthMm / (2 * half) : widthMm / (2 * Math.tan(Math.min(half, 1.55)));
  const focalMm = focalWideMm ?? computedMm;
  return {
    ...card,
    widthPx,
    heightPx,
    sensorWidthMm: widthMm,
    sensorHeightMm: sensorHeightMm ?? (widthMm * heightPx) / widthPx,
    focalWideMm: focalMm,
    focalTeleMm: card.focalTeleMm === null || card.focalTeleMm < focalMm ? focalMm : card.focalTeleMm,
  };
}

/** Those of a card that can be computed with. */
export const wholeLenses = ({ lenses }: { readonly lenses: readonly CardLens[] }): readonly Lens[] =>
  lenses.flatMap((lens) => wholeLens(lens) ?? []);
