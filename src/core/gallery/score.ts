/** One fault that somebody took: what they thought it was, and what it was. */
export interface Take {
  readonly fault: string;
  readonly guess: string;
  readonly was: string;
}

/** How somebody does with one answer, and what they take it for. */
export interface Standing {
  readonly was: string;
  readonly seen: number;
  readonly right: number;
  /** What it was taken for instead, the most frequent first. */
  readonly takenFor: readonly { readonly guess: string; readonly count: number }[];
}

/** By what it was: the ones that are mistaken most come first. */
export function standings(takes: readonly Take[]): readonly Standing[] {
  const byAnswer = new Map<string, Take[]>();
  for (const take of takes) byAnswer.set(take.was, [...(byAnswer.get(take.was) ?? []), take]);
  const all = [...byAnswer].map(([was, own]): Standing => {
    const wrong = new Map<string, number>();
    for (const { guess } of own) if (guess !== was) wrong.set(guess, (wrong.get(guess) ?? 0) + 1);
    const takenFor = [...wrong].map(([guess, count]) => ({ guess, count })).sort((a, b) => b.count - a.count);
    return { was, seen: own.length, right: own.filter(({ guess }) => guess === was).length, takenFor };
  });
  return all.sort((a, b) => b.seen - b.right - (a.seen - a.right) || a.was.localeCompare(b.was));
}
