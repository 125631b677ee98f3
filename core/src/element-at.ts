/**
 * The element at `index` (from 0) of an array, a typed array or a text, for callers that know it is there: where the compiler
 * sees `T | undefined`, this checks instead of casting. Throws RangeError past either end. Kernels, whose bounds are
 * checked once at their door, index plainly.
 */
export function elementAt<T>(list: ArrayLike<T>, index: number): T {
  if (!(index >= 0 && index < list.length)) throw new RangeError(`No element ${index} among ${list.length}.`);
  return list[index] as T;
}

/** What a record holds under a key, for callers that know it is there. Throws RangeError where there is none. */
export function entryOf<T>(record: Readonly<Record<string, T | undefined>>, key: string): T {
  const value = record[key];
  if (value === undefined) throw new RangeError(`Nothing goes by ${key}.`);
  return value;
}
