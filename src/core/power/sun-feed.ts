/** A battery that a panel fills. */
export interface SunFeed {
  readonly panelWp: number;
  readonly tiltDeg: number;
  /** Share of the light that trees and walls take. */
  readonly shade: number;
  readonly batteryWh: number;
  readonly depthOfDischarge: number;
  readonly isLithium: boolean;
  /** Hours of a day in which a stream is drawn, where no tap says it. */
  readonly drawnHoursPerDay: number;
  readonly panelPrice: number | null;
  readonly batteryPrice: number | null;
  /** Months, 1 to 12, in which it is charged from the mains. */
  readonly mainsMonths: readonly number[];
}
