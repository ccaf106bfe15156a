import { atLeast, atMost, type Verdict } from '../base/verdict.ts';

/** IEC 60529: second digit 4 is splashing water, 5 a jet; first digit 5 keeps harmful dust out. */
const RAIN_PROOF = { dust: 5, splash: 4, jet: 5 } as const;

/** IP54 under a roof, IP65 in the open [A]: neither digit stands in for the other. */
export function judgeIngress(code: number): Verdict {
  const [dust, water] = [Math.floor(code / 10), code % 10];
  if (dust < RAIN_PROOF.dust || water < RAIN_PROOF.splash) return 'will-not-work';
  return dust > RAIN_PROOF.dust && water >= RAIN_PROOF.jet ? 'ok' : 'tight';
}

/** How far into the dark a light reaches, against what is to be seen. */
export const judgeLight = (reachM: number, ratedM: number, distanceM: number): Verdict =>
  reachM >= distanceM ? 'ok' : ratedM >= distanceM ? 'tight' : 'will-not-work';

/** Where the ground begins to be seen, against where the zone begins; a step more is tight. [A] */
export const judgeNear = (seenFromM: number, zoneFromM: number): Verdict =>
  atMost(seenFromM, zoneFromM, zoneFromM * 1.2);

/** Below half a degree two pictures touch. */
export const hasGap = (gapDeg: number): boolean => gapDeg > 0.5;

export const judgeWidth = (viewM: number, zoneM: number): Verdict => atLeast(viewM, zoneM, zoneM * 0.9);
