/** A simulated device with a fault, as somebody who is called to it would know it. What it is, is not among that. */
export interface FaultToTake {
  readonly id: string;
  readonly name: string;
  /** What the customer says. */
  readonly told: string;
  /** As it was written down. */
  readonly url: string;
  readonly user: string | null;
  readonly secret: string | null;
  readonly seconds: number;
  readonly paths: readonly string[];
}

/** GET /api/faults: the gallery of the demo. */
export interface FaultGallery {
  readonly faults: readonly FaultToTake[];
}
