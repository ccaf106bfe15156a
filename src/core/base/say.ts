// Numbers as the trade reads them. One place, so that a rule, a sheet and a screen say the same.

/** 1 234 kbit/s or 4.61 Mbit/s. */
export const sayRate = (kbps: number): string =>
  kbps >= 1000 ? `${(kbps / 1000).toFixed(kbps >= 10_000 ? 1 : 2)} Mbit/s` : `${Math.round(kbps)} kbit/s`;

/** 0.8 %, 12 %; small shares keep two digits that mean something. */
export function sayShare(ratio: number): string {
  const percent = ratio * 100;
  return `${percent === 0 || percent >= 10 ? Math.round(percent) : percent >= 1 ? percent.toFixed(1) : Number(percent.toPrecision(2))} %`;
}

/** 0.3 ms, 23 ms, 3.47 s. */
export const sayMs = (ms: number): string =>
  ms >= 1000 ? `${(ms / 1000).toFixed(2)} s` : ms >= 10 ? `${Math.round(ms)} ms` : `${ms.toFixed(1)} ms`;

export const sayDays = (days: number): string => `${days >= 100 ? Math.round(days) : Number(days.toFixed(1))} days`;

/** 43.2 GB or 1.30 TB (IEC 80000-13: 1 TB = 10^12 bytes). */
export const sayBytes = (size: number): string =>
  size >= 1e12
    ? `${Number((size / 1e12).toFixed(2))} TB`
    : size >= 1e9
      ? `${Number((size / 1e9).toFixed(1))} GB`
      : `${Math.round(size / 1e6)} MB`;

/** 1 camera, 3 cameras; a word whose plural is no s names it. */
export const sayMany = (count: number, one: string, many = `${one}s`): string =>
  `${sayCount(count)} ${count === 1 ? one : many}`;

/** 1 902: thousands apart by a no-break space, so that a number never breaks over two lines. */
export const sayCount = (value: number): string => String(Math.round(value)).replace(/\B(?=(\d{3})+$)/g, '\u00a0');

/** 15 or 14.6: frames a second without digits that say nothing. */
export const sayFps = (fps: number): string => String(Number(fps.toFixed(1)));

/** A stretch of time in the unit a person would use: 0.4 s, 3 min, 8 years. */
export function sayStretch(seconds: number): string {
  const size = Math.abs(seconds);
  if (size < 120) return `${size < 10 ? size.toFixed(1) : Math.round(size)} s`;
  if (size < 7200) return `${Math.round(size / 60)} min`;
  if (size < 172_800) return `${Math.round(size / 3600)} h`;
  return size < 63_072_000 ? `${Math.round(size / 86_400)} days` : `${Math.round(size / 31_536_000)} years`;
}

/** “4.0 m”, of a reach: rounded down, so that what is promised up to there holds there. */
export const sayUpTo = (metres: number): string => `${(Math.floor(metres * 10 + 1e-9) / 10).toFixed(1)} m`;
/** “1.3 m”, of what is lost: rounded up. */
export const sayFrom = (metres: number): string => `${(Math.ceil(metres * 10 - 1e-9) / 10).toFixed(1)} m`;

/** A text that begins a line or a sentence. */
export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
