import { atMost, type Verdict } from '../base/verdict.ts';
import { TOKEN_LIFE_S } from '../onvif/onvif-limits.ts';

/** How far a device's clock is from ours, and what that means for a token. */
export interface ClockSkew {
  /** Device minus local, in seconds. */
  readonly skewS: number;
  /** Of whoever takes the difference out: always good; without it, this. */
  readonly verdict: Verdict;
}

/**
 * @param okS up to which nobody is refused; 5 s [A]
 */
export function clockSkew(deviceUnixMs: number, localUnixMs: number, okS: number): ClockSkew {
  const skewS = (deviceUnixMs - localUnixMs) / 1000;
  return { skewS, verdict: atMost(Math.abs(skewS), okS, TOKEN_LIFE_S) };
}
