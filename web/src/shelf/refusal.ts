import type { Finding } from '@saddlebag/core';

/** A file, or a job in one, that was not imported. */
export interface Refusal {
  readonly from: string;
  readonly findings: readonly Finding[];
}
