/** How a number is known, worst first; the best one wins. */
export const KNOWN_HOWS = ['assumed', 'planned', 'declared', 'measured', 'confirmed'] as const;
export type KnownHow = (typeof KNOWN_HOWS)[number];

export type EvidenceValue = string | number | boolean;

/** A fact with its time and its source. `subject` is `camera:ID`, `stream:ID`, `tap:ID`, `gear:ID` or `link:ID`. */
export interface Evidence {
  readonly id: string;
  readonly subject: string;
  readonly quantity: string;
  readonly value: EvidenceValue;
  readonly how: KnownHow;
  readonly takenAt: string;
  readonly source: string;
}
