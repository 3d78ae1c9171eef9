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
