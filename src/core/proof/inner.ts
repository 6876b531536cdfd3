/** The inner map of a key, made when first asked for. */
export function innerOf<K extends object, I extends object, V>(map: WeakMap<K, WeakMap<I, V>>, key: K): WeakMap<I, V> {
  let found = map.get(key);
  if (!found) map.set(key, (found = new WeakMap()));
  return found;
}
