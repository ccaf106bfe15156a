import type { Camera } from '../document/chapters/cameras/camera.ts';
import { hasAddress } from '../document/stream-address.ts';
import type { Finding } from '../findings/finding.ts';
import type { Gate } from './contract.ts';

/** What gates of a station that plans ask beside their own. */
export interface PlannedFacts {
  /** A camera with an address hangs already: what was never written down of it does not hold it back. */
  readonly hasAddress: boolean;
  readonly isStopped: boolean;
}

export const plannedFacts = (camera: Camera, findings: readonly Finding[]): PlannedFacts => ({
  hasAddress: hasAddress(camera),
  isStopped: findings.some(({ severity }) => severity === 'stop'),
});

/** A gate for what somebody writes down; a camera that hangs already passes it. */
export const saidGate = <F extends PlannedFacts>(gate: Gate<F>): Gate<F> => ({
  ...gate,
  holds: (facts) => gate.holds(facts) || facts.hasAddress,
});

/** The last gate of such a station: nothing found says stop. */
export const stopGate = (id: string, condition: string, next: string): Gate<PlannedFacts> => ({
  id,
  condition,
  holds: ({ isStopped }) => !isStopped,
  next: () => next,
});
