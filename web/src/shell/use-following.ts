import { useEffect } from 'react';
import type { JobView } from '../base/job-context';
import { letGo, useKeptSignal } from '../kit/follow';

/**
 * Following ends with the job, when the job no longer has the signal, and with Esc, whatever else that key does. Gives the signal that
 * is kept lit, or null.
 */
export function useFollowing({ id, colours }: Pick<JobView, 'id' | 'colours'>): string | null {
  const kept = useKeptSignal();
  // biome-ignore lint/correctness/useExhaustiveDependencies: it ends with this job
  useEffect(() => letGo, [id]);
  useEffect(() => {
    if (kept !== null && colours.of(kept) === null) letGo();
  }, [kept, colours]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.key === 'Escape') letGo();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
  return kept;
}
