const keys = new WeakMap<object, number>();
let next = 1;

/** A key for an immutable value: the same object has the same key. Null is 0. */
export function contentKey(value: object | null): number {
  if (value === null) return 0;
  const known = keys.get(value);
  if (known !== undefined) return known;
  keys.set(value, next);
  return next++;
}
