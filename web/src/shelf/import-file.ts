import { type Finding, newJob } from '@saddlebag/core';
import { shelf } from '../store/shelf';

/** The outcome of bringing a file in: the id of the new job, or why there is none. What was left out of it is told in `partly`. */
export type Brought =
  | { readonly id: string; readonly partly?: readonly Finding[] }
  | { readonly findings: readonly Finding[] };

/** Reads a job file's text and puts the job on the shelf. The reader is loaded when it is first needed. */
export async function bringText(text: string): Promise<Brought> {
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const read = readJobFile(text);
  if (!read.ok) return { findings: read.findings };
  const id = await shelf.add(read.job);
  return read.findings.length > 0 ? { id, partly: read.findings } : { id };
}

/** Brings in a chosen file: a job, or a sheet, Verilog or a table as a new job. Too large files are refused unread. */
export async function bringFile(file: File): Promise<Brought> {
  const { MAX_FILE_BYTES, tooBig } = await import('@saddlebag/core/job-reader');
  if (file.size > MAX_FILE_BYTES) return { findings: [tooBig()] };
  const text = await file.text();
  if (file.name.endsWith('.sheet')) return { id: await shelf.add(newJob(file.name.replace(/\.sheet$/, ''), text)) };
  const foreign = /\.(v|csv)$/.exec(file.name)?.[1];
  if (foreign === undefined) return bringText(text);
  const { fromVerilog, tableFromCsv } = await import('./foreign-designs');
  return bringDesign(file.name, foreign === 'v' ? fromVerilog(text) : tableFromCsv(text));
}

/** Puts what another program wrote on the shelf as a sheet; refused when nothing of it was understood. */
async function bringDesign(
  fileName: string,
  { sheet, findings }: { sheet: string | null; findings: readonly Finding[] },
): Promise<Brought> {
  if (!sheet) return { findings };
  const id = await shelf.add(newJob(fileName.replace(/\.\w+$/, ''), sheet));
  return findings.length > 0 ? { id, partly: findings } : { id };
}
