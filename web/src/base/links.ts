import { useEffect, useRef } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { useLatest } from './use-latest';

/** What a link may point at, beyond the step: a part or jumper, a finding, a row of the table, a signal to follow. */
export const linked = ['show', 'finding', 'row', 'signal'] as const;
/** One of them. */
export type Linked = (typeof linked)[number];

/** The address of a step of a job, and of what is to be shown there. */
export function jobAddress(id: string, step: string, at: Readonly<Partial<Record<Linked, string>>> = {}): string {
  const search = new URLSearchParams(at).toString();
  return `/job/${id}/${step}${search === '' ? '' : `?${search}`}`;
}

/** Longer ones are none of ours. */
const MOST = 200;

/** Calls back with what the address points at, once for each time one comes by it; not before it is there to be shown. */
export function useLinked(what: Linked, then: (value: string) => void, isReady = true): void {
  const [search] = useSearchParams();
  const { key } = useLocation();
  const value = search.get(what);
  const latest = useLatest(then);
  /** What was come by last: what happens there afterwards leads nobody back. */
  const done = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same address may be gone to again
  useEffect(() => {
    if (!isReady || value === null || value.length > MOST || done.current === key) return;
    done.current = key;
    latest(value);
  }, [what, value, key, isReady, latest]);
}
