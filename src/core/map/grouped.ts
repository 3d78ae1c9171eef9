/** A list by a key, each part in the list's order. (Node 20 has no `Map.groupBy`.) */
export function grouped<T, K>(list: readonly T[], key: (entry: T) => K): Map<K, T[]> {
  const out = new Map<K, T[]>();
  for (const entry of list) {
    const of = key(entry);
    const known = out.get(of);
    if (known) known.push(entry);
    else out.set(of, [entry]);
  }
  return out;
}
