/** Puts one more thing at the end of the list that is kept under a key, or begins that list. */
export function putUnder<K, T>(lists: Map<K, T[]>, key: K, one: T): void {
  const list = lists.get(key);
  if (list) list.push(one);
  else lists.set(key, [one]);
}
