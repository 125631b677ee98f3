import type { ComponentType } from 'react';
import { screens } from './step-screens';

/** Fetches the page of a job with what reads one, which the shelf does without, and beside it the screen that jobs open at. */
export async function fetchJobPage(): Promise<ComponentType> {
  screens.design.fetch().catch(() => {});
  const [{ JobPage }] = await Promise.all([import('./JobPage'), import('@saddlebag/core/job-reader')]);
  return JobPage;
}
