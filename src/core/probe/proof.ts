import type { Diagnosis, Reason } from './reasons.ts';

/** What experiments added to a cause. */
export interface Proof {
  readonly reason: Reason | null;
  /** The experiments, as sentences; empty where none were made. */
  readonly proof: string;
}
export const NO_PROOF: Proof = { reason: null, proof: '' };

const sentence = (did: string, told: string): string => `${did.charAt(0).toUpperCase()}${did.slice(1)}: ${told}.`;

/** The experiment that settled it; where none did, all that were made. */
export function proofOf({ reason, experiments }: Diagnosis): Proof {
  const decisive = experiments.filter(({ decides }) => decides);
  const told = (decisive.length > 0 ? decisive : experiments)
    .map(({ did, told: said }) => sentence(did, said))
    .join(' ');
  if (told === '') return { reason, proof: '' };
  return { reason, proof: reason === null ? `Tried, and not settled by it. ${told}` : told };
}
