/**
 * What is worked out about a value that never changes, kept with that value and gone when it is gone: `once(project, lookupOf)`
 * calls `lookupOf` the first time and gives the same result ever after. The function must be one and the same each time.
 */
export function once<T extends object, R>(owner: T, make: (owner: T) => R): R {
  let made = kept.get(owner);
  if (!made) {
    made = new Map();
    kept.set(owner, made);
  }
  if (made.has(make)) return made.get(make) as R;
  const result = make(owner);
  made.set(make, result);
  return result;
}

const kept = new WeakMap<object, Map<unknown, unknown>>();

/**
 * The same for what rests on other values as well: made again when one of them is no longer the same object. `within` are few values
 * of which all others are parts; while they are the same, `restsOn` is not even asked. Only the last result is kept, so that an edit
 * works out again no more than it touches. For one use an owner.
 */
export function onceFor<T extends object, R>(owner: T, within: readonly unknown[], restsOn: () => readonly unknown[], make: (owner: T) => R): R {
  const last = lasts.get(owner);
  if (last && (last.within === within || same(last.within, within))) return last.result as R;
  const rests = restsOn();
  if (last && same(last.rests, rests)) {
    last.within = within;
    return last.result as R;
  }
  const result = make(owner);
  lasts.set(owner, { within, rests, result });
  return result;
}

const lasts = new WeakMap<object, { within: readonly unknown[]; readonly rests: readonly unknown[]; readonly result: unknown }>();

function same(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((one, i) => one === b[i]);
}
