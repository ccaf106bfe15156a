/** Does `work` for each, so many at once: more starve each other on a busy machine. What it gives stands in the order of `of`. */
export async function someAtOnce<T, R>(of: readonly T[], most: number, work: (one: T) => Promise<R>): Promise<R[]> {
  const given: R[] = [];
  let next = 0;
  const worker = async (): Promise<void> => {
    for (let at = next++; at < of.length; at = next++) given[at] = await work(of[at] as T); // within its length
  };
  await Promise.all(Array.from({ length: most }, worker));
  return given;
}
