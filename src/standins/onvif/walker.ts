/** When somebody walks through a picture, and how far across it they are: 0 at its left edge, 1 at its right one. */
export function walkAt(
  unixMs: number,
  { everyMs, forMs }: { readonly everyMs: number; readonly forMs: number },
): number | null {
  const into = ((unixMs % everyMs) + everyMs) % everyMs;
  return into < forMs ? into / forMs : null;
}
