/** What can be done with a camera whose firmware gives no stream here. */
export const OPTIONS = ['keep', 'side-branch', 'community', 'replace'] as const;
export type Option = (typeof OPTIONS)[number];
export const OPTION_WORDS: Readonly<Record<Option, string>> = {
  keep: 'keep it as it is',
  'side-branch': 'install the maker’s RTSP firmware',
  community: 'install community firmware',
  replace: 'replace it',
};
/** Those that write another image. */
export const WRITES: ReadonlySet<Option> = new Set(['side-branch', 'community']);
