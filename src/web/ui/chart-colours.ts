/** The tokens of the page as they are now, for a canvas that knows no CSS. */
export function chartColours() {
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
