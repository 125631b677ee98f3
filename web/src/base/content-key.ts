import { onceFor } from '@saddlebag/core';

/** A key for an immutable value: the same object has the same key. Null is 0. */
export function contentKey(value: object | null): number {
  return value === null ? 0 : keyOf(value);
}

let next = 1;
const keyOf = onceFor(() => next++);

/** The text that `print` makes of an immutable value, made once for each value; empty for null. Not for a `print` made anew each time. */
export function printedOnce<T extends object>(print: (value: T) => string): (value: T | null) => string {
  const printed = onceFor(print);
  return (value) => (value === null ? '' : printed(value));
}
