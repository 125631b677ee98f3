import { type Finding, newJob } from '@saddlebag/core';
import { shelf } from '../store/shelf';
import type { Restored } from './backup';
import { isBackup } from './backup-format';
import type { Refusal } from './refusal';

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

/** What a text is: by the ending of its file, in any case, or by what stands in it. */
export function kindOf(fileName: string, text: string): 'job' | 'sheet' | 'verilog' | 'table' {
  const ending = /\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase();
  if (ending === 'sheet') return 'sheet';
  if (ending === 'v' || ending === 'sv') return 'verilog';
  if (ending === 'csv') return 'table';
  if (ending === 'json' || /^\s*\{/.test(text)) return 'job';
  if (/^\s*(\/\/.*\s*)*module\s+\w/.test(text)) return 'verilog';
  return /^\s*(#.*\s*)*(in|out|block|part)\s/m.test(text) || !/^[^\n]*[,;\t][^\n]*\n/.test(text) ? 'sheet' : 'table';
}

/** Brings in a chosen file: a job, or a sheet, Verilog or a table as a new job. Too large files are refused unread. */
export async function bringFile(file: File): Promise<Brought> {
  const { MAX_FILE_BYTES, tooBig } = await import('@saddlebag/core/job-reader');
  if (file.size > MAX_FILE_BYTES) return { findings: [tooBig()] };
  return bringNamed(file.name, await file.text());
}

async function bringNamed(fileName: string, text: string): Promise<Brought> {
  const kind = kindOf(fileName, text);
  const name = fileName.replace(/\.\w+$/, '');
  if (kind === 'sheet') return { id: await shelf.add(newJob(name, text)) };
  if (kind === 'job') return bringText(text);
  const { fromVerilog, tableFromCsv } = await import('./foreign-designs');
  return bringDesign(fileName, kind === 'verilog' ? fromVerilog(text) : tableFromCsv(text));
}

/** What several files came to: new jobs, what of them was left out, and files that were refused, each with why. */
export interface BroughtAll {
  readonly ids: readonly string[];
  readonly partly: readonly Finding[];
  readonly refused: readonly Refusal[];
  /** What was done, where it is not seen at once. */
  readonly said: string | null;
}

/** Brings in files one after the other, backups of a whole shelf among them; one that is refused keeps none of the others out. */
export async function bringAll(files: readonly File[]): Promise<BroughtAll> {
  const ids: string[] = [];
  const partly: Finding[] = [];
  const refused: Refusal[] = [];
  const said: string[] = [];
  for (const file of files) {
    if (isBackup(await file.slice(0, 400).text())) {
      const { backupTooBig, MAX_BACKUP_BYTES, restoreBackup } = await import('./backup');
      if (file.size > MAX_BACKUP_BYTES) refused.push({ from: file.name, findings: [backupTooBig()] });
      else {
        const back = await restoreBackup(await file.text());
        refused.push(...back.refused);
        said.push(saysRestored(back));
      }
      continue;
    }
    const brought = await bringFile(file);
    if ('id' in brought) {
      ids.push(brought.id);
      partly.push(...(brought.partly ?? []));
    } else refused.push({ from: file.name, findings: brought.findings });
  }
  if (ids.length > 1) said.push(`${ids.length} jobs were imported.`);
  return { ids, partly, refused, said: said.length > 0 ? said.join(' ') : null };
}

function saysRestored({ jobs, known, parts }: Restored): string {
  const there = known > 0 ? `, ${known} were there already` : '';
  const drawer = parts > 0 ? ` ${parts} ${parts === 1 ? 'part' : 'parts'} came into the drawer.` : '';
  return `${jobs} ${jobs === 1 ? 'job' : 'jobs'} came back${there}.${drawer}`;
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
