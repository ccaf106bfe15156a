/** What stands for silence, dB below full scale. */
export const SILENCE_DBFS = -96;

/** How loud samples are: root of their mean square against full scale, in dB; never below `SILENCE_DBFS`. @param fullScale the largest that one may be */
export function levelDbfs(samples: Int16Array | Float32Array, fullScale: number): number {
  let sum = 0;
  for (const sample of samples) sum += (sample / fullScale) ** 2;
  if (samples.length === 0 || sum === 0) return SILENCE_DBFS;
  return Math.max(SILENCE_DBFS, 10 * Math.log10(sum / samples.length));
}
