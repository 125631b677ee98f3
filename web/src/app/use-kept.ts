import { useEffect, useRef, useState } from 'react';

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

/** A value as it was when it last stood still for so long; at once what it is when it is first asked for. */
export function useAfterPause<T>(value: T, ms: number): T {
  const [settled, settle] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
