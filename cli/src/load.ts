import { basename } from 'node:path';
import {
  applyEdit,
  type Finding,
  fromVerilog,
  isBare,
  isError,
  type Job,
  type LayoutBoardKind,
  layOutJob,
  MAX_SHEET_LENGTH,
  newJob,
  type Packing,
  packJob,
  type Reading,
  readDesign,
  tableFromCsv,
} from '@saddlebag/core';
import { MAX_FILE_BYTES, readJobFile, tooBig } from '@saddlebag/core/job-reader';
import { highsSolver } from '@saddlebag/core/solver';
import { readBounded } from './files';

/** What the file of a job may end in. */
export const JOB_ENDINGS = ['.saddlebag.json', '.json'] as const;

/** A job from a file, or the findings that say why there is none. */
export type Loaded =
  | { readonly job: Job; readonly reading: Reading }
  | { readonly job: null; readonly findings: readonly Finding[] };

/** Reads a file as what its ending says, standard input (`-`) as what it holds; bounded while it is read. Throws WrongUse where there is no such file. */
export function load(path: string): Loaded {
  const limit = path === '-' || /\.json$/i.test(path) ? MAX_FILE_BYTES : 4 * MAX_SHEET_LENGTH;
  const text = readBounded(path, limit);
  if (text === null) return { job: null, findings: [tooBig(limit)] };
  const ending = path === '-' ? endingOf(text) : (/\.(v|csv|json)$/i.exec(path)?.[0].toLowerCase() ?? '');
  if (ending === '.v') return fromOutside(path, fromVerilog(text));
  if (ending === '.csv') return fromOutside(path, tableFromCsv(text));
  if (ending === '') return withReading(newJob(nameOf(path), text));
  const file = readJobFile(text);
  if (!file.ok) return { job: null, findings: file.findings };
  const { job, reading } = withReading(file.job);
  return { job, reading: { ...reading, findings: [...file.findings, ...reading.findings] } };
}

/** What a text is, by what stands in it. */
function endingOf(text: string): '.json' | '.v' | '' {
  if (/^\s*\ufeff?\s*\{/.test(text)) return '.json';
  return /^\s*(\/\/.*\s+|\/\*[\s\S]*?\*\/\s*|`.*\s+)*module\b/.test(text) ? '.v' : '';
}

/** What a job is called that comes from a file. */
const nameOf = (path: string): string => (path === '-' ? 'job' : basename(path).replace(/\.\w+$/, '') || 'job');

/** A job from what another program wrote; what was not understood stands among the reading's findings. */
function fromOutside(path: string, taken: { sheet: string | null; findings: readonly Finding[] }): Loaded {
  if (taken.sheet === null || taken.sheet === '') return { job: null, findings: taken.findings };
  const job = newJob(nameOf(path), taken.sheet);
  const reading = readDesign(job.sheet);
  // Places in the other text mean nothing on the sheet: the findings keep their sentences alone.
  const outside = taken.findings.map((f) => ({ ...f, places: [] }));
  return { job, reading: { ...reading, findings: [...outside, ...reading.findings] } };
}

function withReading(job: Job): { readonly job: Job; readonly reading: Reading } {
  return { job, reading: readDesign(job.sheet) };
}

/** A job with everything the later steps need: packed, and laid out if its board was bare. */
export interface Prepared {
  readonly job: Job;
  readonly reading: Reading;
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
}

/** Packs a job, and lays it out when nothing is on its board yet or `afresh` asks for it. */
export async function prepare(
  job: Job,
  options: { readonly layOut: 'never' | 'if-bare' | 'afresh'; readonly boards?: LayoutBoardKind },
): Promise<Prepared> {
  const { reading, packing, findings } = await packJob(job, highsSolver());
  const all = [...reading.findings, ...findings];
  if (!packing || all.some(isError) || options.layOut === 'never') return { job, reading, packing, findings: all };
  if (options.layOut === 'if-bare' && !isBare(job.board)) return { job, reading, packing, findings: all };
  const { edit, findings: more } = layOutJob(job, packing, reading.design.netlist, {
    ...(options.boards && { kind: options.boards }),
  });
  const applied = edit && applyEdit(job, edit);
  const laid = applied?.ok ? applied.job : job;
  return { job: laid, reading, packing: laid.packing ?? packing, findings: [...all, ...more] };
}
