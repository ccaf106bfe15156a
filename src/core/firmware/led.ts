// What a camera says while it is reflashed, it says with one lamp: in its colour and in its rhythm.

export const LED_COLOURS = ['red', 'amber', 'green', 'blue', 'white'] as const;
export type LedColour = (typeof LED_COLOURS)[number];

/** A stretch of time, ms, lit or dark. */
interface Beat {
  readonly ms: number;
  readonly isLit: boolean;
}

const lit = (ms: number): Beat => ({ ms, isLit: true });
const dark = (ms: number): Beat => ({ ms, isLit: false });

/** Rhythms as people tell them apart, each with one turn of it. */
export const RHYTHMS = {
  off: { label: 'dark', beats: [dark(2000)] },
  steady: { label: 'steady', beats: [lit(2000)] },
  slow: { label: 'slow', beats: [lit(1000), dark(1000)] },
  fast: { label: 'fast', beats: [lit(200), dark(200)] },
  'slow-slow-fast': {
    label: 'slow, slow, fast',
    beats: [lit(800), dark(400), lit(800), dark(400), lit(150), dark(150), lit(150), dark(150), lit(150), dark(850)],
  },
  'two-short': { label: 'two short, a pause', beats: [lit(200), dark(200), lit(200), dark(1400)] },
} as const satisfies Readonly<Record<string, { readonly label: string; readonly beats: readonly Beat[] }>>;
export type Rhythm = keyof typeof RHYTHMS;
export const RHYTHM_NAMES = Object.keys(RHYTHMS) as readonly Rhythm[]; // keys of the table above

export interface LedPattern {
  readonly colour: LedColour;
  readonly rhythm: Rhythm;
}
export const DARK: LedPattern = { colour: 'white', rhythm: 'off' };

/** “blue, slow”, “dark”. */
export const sayLed = ({ colour, rhythm }: LedPattern): string =>
  rhythm === 'off' ? RHYTHMS.off.label : `${colour}, ${RHYTHMS[rhythm].label}`;

/** Two signs that a person cannot tell apart. */
export const looksSame = (a: LedPattern, b: LedPattern): boolean =>
  a.rhythm === b.rhythm && (a.rhythm === 'off' || a.colour === b.colour);

export const turnMs = (rhythm: Rhythm): number => RHYTHMS[rhythm].beats.reduce((sum, { ms }) => sum + ms, 0);

/** Whether a lamp is lit so long after its sign began. */
export function isLitAt({ rhythm }: LedPattern, elapsedMs: number): boolean {
  let left = elapsedMs % turnMs(rhythm);
  for (const { ms, isLit } of RHYTHMS[rhythm].beats) {
    if (left < ms) return isLit;
    left -= ms;
  }
  return false;
}

/** One bar of a score: when it begins and how long it is, ms. */
export interface LedBar {
  readonly fromMs: number;
  readonly ms: number;
}

/** The lit stretches of a sign over a span of time, as a score draws them. Neighbours are joined: steady is one bar. */
export function ledBars({ rhythm }: LedPattern, spanMs: number): readonly LedBar[] {
  const bars: { fromMs: number; ms: number }[] = [];
  const { beats } = RHYTHMS[rhythm];
  for (let at = 0, turn = 0; at < spanMs; turn++) {
    const beat = beats[turn % beats.length];
    if (!beat) break;
    const ms = Math.min(beat.ms, spanMs - at);
    const last = bars.at(-1);
    if (beat.isLit && last && last.fromMs + last.ms === at) last.ms += ms;
    else if (beat.isLit) bars.push({ fromMs: at, ms });
    at += beat.ms;
  }
  return bars;
}
