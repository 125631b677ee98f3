import { says } from '../base/words';
import { shelf } from '../store/shelf';

/** Renames a job on the shelf; returns why it could not be done, or null. */
export async function renameRow(id: string, name: string): Promise<string | null> {
  const row = await shelf.get(id);
  if (!row) return 'The job is no longer on the shelf.';
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const read = readJobFile(row.text);
  if (!read.ok) return read.findings.map(says).join(' ');
  const saved = await shelf.save(id, { ...read.job, name }, row.rev);
  return saved.ok ? null : 'Another tab has just changed this job; try again.';
}
