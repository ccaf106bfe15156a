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
