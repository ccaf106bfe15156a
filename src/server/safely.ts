/** Runs one callback of a socket or a timer. What it throws ends its own probe or view, never the process. */
export type Safely = (work: () => void) => void;

export const createSafely =
  (onFault: (error: unknown) => void): Safely =>
  (work) => {
    try {
      work();
    } catch (error) {
      onFault(error);
    }
  };

/** What a fault of ours is called where a person reads it: its code or name, never its message, which may quote a peer. */
export function nameOfFault(error: unknown): string {
  if (typeof error === 'object' && error !== null && 'code' in error) return String(error.code);
  return error instanceof Error ? error.name : 'unknown';
}
