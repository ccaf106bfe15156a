import { useMemo } from 'react';
import { useMedia } from './use-media.ts';

/** The tokens of the page for a canvas that knows no CSS, read anew when the sheet turns light or dark. */
export function useChartColours() {
  const isDark = useMedia('(prefers-color-scheme: dark)');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tokens hang on it
  return useMemo(colours, [isDark]);
}

function colours() {
  const style = getComputedStyle(document.documentElement);
  const of = (name: string): string => style.getPropertyValue(name).trim();
  return {
    ink: of('--ink'),
    soft: of('--soft'),
    hair: of('--hair'),
    sheet: of('--sheet'),
    verdigris: of('--verdigris'),
    wash: of('--verdigris-wash'),
    brass: of('--brass'),
    brick: of('--brick'),
    blue: of('--blue'),
  };
}
export const CHART_FONT = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif';
