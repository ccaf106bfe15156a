/** Adds to the list that a map keeps under a key. */
export function pushTo<K, T>(map: Map<K, T[]>, key: K, item: T): void {
  const list = map.get(key);
  if (list) list.push(item);
  else map.set(key, [item]);
}
