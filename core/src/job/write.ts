import { byNumber } from '../board';
import { entryOf } from '../element-at';
import type { Job } from './job';

/** The version of job files that this program writes; `file.ts` upgrades older ones. */
export const FILE_VERSION = 2;

/** Writes a job file, current version, indented, parts and jumpers in order. `readJobFile` reads it back. */
export function writeJobFile(job: Job): string {
  const { breadboards, parts, jumpers, notes } = job.board;
  const sorted = <T>(record: Readonly<Record<string, T>>): T[] =>
    Object.keys(record)
      .sort(byNumber)
      .map((key) => entryOf(record, key));
  const packing = job.packing && {
    ...job.packing,
    packages: job.packing.packages.map(({ units, ...named }) => ({
      ...named,
      units: units.flatMap((use, i) => (use ? [{ unit: i + 1, ...use }] : [])),
    })),
  };
  const file = {
    format: 'saddlebag-job',
    version: FILE_VERSION,
    name: job.name,
    family: job.family,
    sheet: job.sheet,
    ...(job.excluded && { excluded: job.excluded }),
    ...(job.silenced && { silenced: job.silenced }),
    ...(job.locks && {
      locks: { pins: job.locks.pins.map((p) => ({ ...p, unit: p.unit + 1 })), added: job.locks.added },
    }),
    ...(job.trace && { trace: job.trace }),
    ...(job.ownTable && { ownTable: job.ownTable }),
    ...(packing && { packing }),
    board: { breadboards, parts: sorted(parts), jumpers: sorted(jumpers), ...(notes && { notes: sorted(notes) }) },
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}
