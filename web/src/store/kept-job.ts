import {
  chipLibrary,
  type Job,
  newJob,
  ownPartsOf,
  parseSheet,
  rangeOf,
  typeOf,
  wiresOf,
  writeJobFile,
} from '@saddlebag/core';
import type { JobRow, Summary } from './db';

export { newJob };

/** What is kept of a job itself: its name, the text of its file, and what the shelf shows. */
export function keptJob(job: Job): Pick<JobRow, 'name' | 'text' | 'summary'> {
  return { name: job.name, text: writeJobFile(job), summary: summaryOf(job) };
}

/** What the shelf shows of a job. */
export function summaryOf(job: Job): Summary {
  // Read for its words alone: what the sheet makes of them is not the shelf's matter.
  const { sheet } = parseSheet(job.sheet.length > 20_000 ? '' : job.sheet);
  const declared = (kind: 'in' | 'out'): string[] =>
    sheet.lines
      .flatMap(({ statement }) => (statement?.kind === kind ? statement.signals.flatMap(wiresNamed) : []))
      .slice(0, 24);
  const chips = Object.values(job.board.parts).filter((p) => typeOf(p)?.kind === 'chip').length;
  return {
    inputs: declared('in'),
    outputs: declared('out'),
    chips,
    jumpers: Object.keys(job.board.jumpers).length,
    ownParts: [...ownPartsOf(sheet, chipLibrary).parts.values()].map((p) => p.text),
  };
}

/** The wires of a declared signal: itself, or those of a bus. */
function wiresNamed({ name }: { readonly name: string }): string[] {
  const range = rangeOf(name);
  return range ? wiresOf(range) : [name];
}
