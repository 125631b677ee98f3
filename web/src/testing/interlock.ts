import type { Job } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import text from '../../../samples/lock-interlock.saddlebag.json?raw';

/** The lock interlock as it ships: packed and laid out. */
export function interlock(): Job {
  const read = readJobFile(text);
  if (!read.ok) throw new Error('the sample cannot be read');
  return read.job;
}
