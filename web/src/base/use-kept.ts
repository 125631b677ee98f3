import { useRef } from 'react';

/** The value that was there before while its key stays the same, so that what depends on it need not be done again. */
export function useKept<T>(value: T, key: string): T {
  const kept = useRef({ value, key });
  if (kept.current.key !== key) kept.current = { value, key };
  return kept.current.value;
}

/** The last value that was not null. */
export function useLast<T>(value: T | null): T | null {
  const last = useRef(value);
  if (value !== null) last.current = value;
  return last.current;
}
