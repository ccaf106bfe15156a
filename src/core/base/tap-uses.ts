/** What a destination draws a stream for. */
export const TAP_USES = ['record', 'live', 'detect', 'still'] as const;
export type TapUse = (typeof TAP_USES)[number];
