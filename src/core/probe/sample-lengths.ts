/** How long a probe measures, s: enough for size, rate and GOP; for a rare loss it takes longer. */
export const SAMPLE_S = 3;
/** A sample that nobody stops ends by then. */
export const MOST_SAMPLE_S = 600;
