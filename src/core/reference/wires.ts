import { type DcRun, loopOhmOf, type Wire, wireOfArea } from '../power/dc-run.ts';

/**
 * An AWG number as a wire: d = 0.127·92^((36−n)/39) mm. Source: ASTM B258. AWG 20 → 0.812 mm, 0.518 mm².
 * @throws RangeError outside 0 to 40
 */
export function awgWire(awg: number): Wire {
  if (!(awg >= 0 && awg <= 40)) throw new RangeError(`awg: expected 0 to 40, got ${awg}`);
  const diameterMm = 0.127 * 92 ** ((36 - awg) / 39);
  return wireOfArea((Math.PI * diameterMm ** 2) / 4);
}

export interface CurrentDrop {
  readonly loopOhm: number;
  readonly dropV: number;
  readonly loadVolts: number;
  readonly dropPercent: number;
}

/** What is left at the end of a run whose load takes a constant current. */
export function dropAtCurrent(supplyVolts: number, loadA: number, run: DcRun): CurrentDrop {
  const loopOhm = loopOhmOf(run);
  const dropV = loadA * loopOhm;
  return { loopOhm, dropV, loadVolts: supplyVolts - dropV, dropPercent: (dropV / supplyVolts) * 100 };
}
