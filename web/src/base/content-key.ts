const keys = new WeakMap<object, number>();
let next = 1;

const texts = new WeakMap<object, string>();

/** The text that `print` makes of an immutable value, made once; empty for null. */
export function printedOnce<T extends object>(value: T | null, print: (value: T) => string): string {
  if (value === null) return '';
  const known = texts.get(value);
  if (known !== undefined) return known;
  const text = print(value);
  texts.set(value, text);
  return text;
}

/** A key for an immutable value: the same object has the same key. Null is 0. */
export function contentKey(value: object | null): number {
  if (value === null) return 0;
  const known = keys.get(value);
  if (known !== undefined) return known;
  keys.set(value, next);
  return next++;
}
