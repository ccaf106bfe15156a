/** What a destination draws a stream for. */
export const TAP_USES = ['record', 'live', 'detect', 'still'] as const;
export type TapUse = (typeof TAP_USES)[number];

/** As they are said where one is chosen. */
export const TAP_USE_WORDS: Readonly<Record<TapUse, string>> = {
  record: 'record',
  live: 'watch live',
  detect: 'detect',
  still: 'take snapshots',
};
