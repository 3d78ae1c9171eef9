/**
 * The order of the entries of two lists that began as the same one. What one side put into another order is so; what both added stands
 * where each added it, and where that is the same place, in an order that does not depend on the sides. Where both changed the order of
 * what was there, and differently, it is ours.
 */
export function orderedIds(base: readonly string[], ours: readonly string[], theirs: readonly string[]): { ids: string[]; conflict: boolean } {
  const [our, their] = [new Set(ours), new Set(theirs)];
  const common = base.filter((id) => our.has(id) && their.has(id));
  const anchors = new Set(common);
  const [was, ourOrder, theirOrder] = [common, ours.filter((id) => anchors.has(id)), theirs.filter((id) => anchors.has(id))];
  const same = (a: readonly string[], b: readonly string[]) => a.every((id, i) => id === b[i]);
  const moved = [!same(was, ourOrder), !same(was, theirOrder)];
  const order = moved[0] ? ourOrder : theirOrder;
  const [afterOurs, afterTheirs] = [following(ours, anchors), following(theirs, anchors)];
  const ids: string[] = [];
  const taken = new Set<string>();
  const take = (id: string) => {
    if (!taken.has(id)) ids.push(id);
    taken.add(id);
  };
  for (const anchor of [undefined, ...order]) {
    if (anchor !== undefined) take(anchor);
    const [a, b] = [afterOurs.get(anchor) ?? [], afterTheirs.get(anchor) ?? []];
    for (const id of (a[0] ?? "") <= (b[0] ?? "") ? [...a, ...b] : [...b, ...a]) take(id);
  }
  return { ids, conflict: moved[0] === true && moved[1] === true && !same(ourOrder, theirOrder) };
}

/** By each entry that both have (and by none, for the beginning), those that follow it and are not such. */
function following(list: readonly string[], anchors: ReadonlySet<string>): Map<string | undefined, string[]> {
  const out = new Map<string | undefined, string[]>();
  let anchor: string | undefined;
  for (const id of list) {
    if (anchors.has(id)) anchor = id;
    else out.set(anchor, [...(out.get(anchor) ?? []), id]);
  }
  return out;
}
