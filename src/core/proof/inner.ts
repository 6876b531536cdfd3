/** The inner map of a key, made when first asked for. */
export function innerOf<K extends object, V>(map: WeakMap<K, WeakMap<K, V>>, key: K): WeakMap<K, V> {
  let found = map.get(key);
  if (!found) map.set(key, (found = new WeakMap()));
  return found;
}
