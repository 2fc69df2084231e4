/**
 * A function of one object that works its answer out once and keeps it for as long as the object lives.
 * @example const count = oncePer((pack: Pack) => pack.items.length)
 */
export function oncePer<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const made = new WeakMap<K, { readonly value: V }>()
  return (key) => {
    const kept = made.get(key)
    if (kept) return kept.value
    const value = make(key)
    made.set(key, { value })
    return value
  }
}
