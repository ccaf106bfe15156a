/** How a camera hangs. */
export interface Mounting {
  readonly heightM: number;
  readonly tiltDownDeg: number;
  /** On the plan, clockwise from the right. */
  readonly headingDeg: number;
  /** 1 is the wide end; `null` is as long as the zone stays in view. */
  readonly zoom: number | null;
}
