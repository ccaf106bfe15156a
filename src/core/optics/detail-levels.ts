import type { Verdict } from '../base/verdict.ts';
import { atLeast, THRESHOLD_SLACK } from '../base/verdict.ts';

/**
 * Operational levels by the pixels that a metre at the target must have. A newer edition of the standard renames and
 * re-spaces them: this table is the only place that knows.
 * Source: EN/IEC 62676-4 (2014/2015), Table 1.
 */
export const DETAIL_LEVELS = [
  { level: 'monitor', pxPerM: 12.5 },
  { level: 'detect', pxPerM: 25 },
  { level: 'observe', pxPerM: 62.5 },
  { level: 'recognise', pxPerM: 125 },
  { level: 'identify', pxPerM: 250 },
  { level: 'inspect', pxPerM: 1000 },
] as const;
export type DetailLevel = (typeof DETAIL_LEVELS)[number]['level'];

export const pxPerMOf = (level: DetailLevel): number =>
  DETAIL_LEVELS.find((row) => row.level === level)?.pxPerM ?? Number.NaN;

/** The highest level that a density reaches. 250 px/m is `identify`. */
export function levelAt(pxPerM: number): DetailLevel | 'below-monitor' {
  const reached = DETAIL_LEVELS.findLast((row) => pxPerM >= row.pxPerM * (1 - THRESHOLD_SLACK));
  return reached?.level ?? 'below-monitor';
}

/** [A] Within a fifth below the level something of it is still seen. */
const TIGHT_SHARE = 0.8;

/** Whether a density serves a purpose. */
export const judgeDetail = (pxPerM: number, wantedPxPerM: number): Verdict =>
  atLeast(pxPerM, wantedPxPerM, wantedPxPerM * TIGHT_SHARE);

/** [A] Pixels a character's height needs to be read: surely, and with luck. */
export const TEXT_LIMITS = { readablePx: 20, guessablePx: 12 } as const;

/**
 * Pixels that a character's height gets, and whether it is read.
 * @param charHeightMm height of a capital letter, mm
 */
export function readText(
  pxPerM: number,
  charHeightMm: number,
): { readonly pxPerChar: number; readonly verdict: Verdict } {
  const pxPerChar = (pxPerM * charHeightMm) / 1000;
  return { pxPerChar, verdict: atLeast(pxPerChar, TEXT_LIMITS.readablePx, TEXT_LIMITS.guessablePx) };
}

/** Density at which a character of this height is surely read. */
export const pxPerMForText = (charHeightMm: number): number => (TEXT_LIMITS.readablePx * 1000) / charHeightMm;
