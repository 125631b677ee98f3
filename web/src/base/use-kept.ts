import { useRef } from 'react';

/** The value that was there before while its key stays the same, so that what depends on it need not be done again. */
export function useKept<T>(value: T, key: string): T {
  const kept = useRef({ value, key });
  if (kept.current.key !== key) kept.current = { value, key };
  return kept.current.value;
}

/** The object that was there before while each of its fields is the same, so that who reads it is not drawn again. */
export function useSame<T extends object>(value: T): T {
  const kept = useRef(value);
  const keys = Object.keys(value) as (keyof T)[];
  if (keys.some((key) => kept.current[key] !== value[key])) kept.current = value;
  return kept.current;
}

/** The last value that was not null. */
export function useLast<T>(value: T | null): T | null {
  const last = useRef(value);
  if (value !== null) last.current = value;
  return last.current;
}
