/**
 * How many examples a property is tried with: a third of them in each check, since the next check tries others, and all with
 * `npm run check -- --long`. A failure prints its seed and its path.
 */
export const runs = (all: number): { readonly numRuns: number } => ({
  numRuns: process.env.CLEAR_TAP_LONG ? all : Math.ceil(all / 3),
});
