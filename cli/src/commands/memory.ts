import {
  applyEdit,
  chipLibrary,
  chips,
  MAX_CONTENTS_LENGTH,
  memoryFromFile,
  withPart,
  writeJobFile,
} from '@saddlebag/core';
import { checkTarget, readBounded, WrongUse, writeWhole } from '../files';
import { JOB_ENDINGS, load } from '../load';
import { json, type OwnCommand, plainFinding } from '../output';
import { stopped } from './shared';

interface MemoryOptions {
  readonly json?: boolean;
  readonly of: string;
  readonly name: string;
  readonly title?: string;
  readonly in?: string;
  readonly output?: string;
}

const numbers = chips.flatMap(({ base, memory: data }) => (data ? [base] : []));

/** Reads what a memory holds from a file, as the part of a sheet. */
export const memory: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('memory')
      .description('read what a memory holds (Intel HEX, words in hexadecimal, CSV) and print it as a part of a sheet')
      .argument('<FILE>')
      .requiredOption('--of <NUMBER>', `the memory: ${numbers.join(', ')}`)
      .requiredOption('--name <NAME>', 'what the sheet calls it')
      .option('--title <TITLE>', 'what it holds, in words', '')
      .option('--in <JOB>', 'put it into the sheet of this job or sheet, in place of the part of that name')
      .option('-o, --output <FILE>', 'write the job or sheet with it to a file (with --in)')
      .action((file: string, options: MemoryOptions) => done(act(file, options, output))),
};

function act(file: string, options: MemoryOptions, output: Parameters<OwnCommand['add']>[1]): number {
  const { in: into, output: target, name, title = '', of: number } = options;
  if (target !== undefined && into === undefined) throw new WrongUse('-o needs --in: a job or sheet to put it into');
  if (target !== undefined) checkTarget(target, { endings: [...JOB_ENDINGS, '.sheet'], inputs: [file, into ?? file] });
  const asked = { json: options.json === true };
  const text = readBounded(file, MAX_CONTENTS_LENGTH);
  if (text === null) throw new WrongUse(`${file} is larger than ${MAX_CONTENTS_LENGTH} bytes`);
  const { part, findings } = memoryFromFile(text, { name, title, number }, chipLibrary);
  if (part === null) return stopped(findings, asked, output);
  if (into === undefined) {
    output.out(options.json ? json({ part, findings: findings.map(plainFinding) }) : `${part}\n`);
    return 0;
  }
  const loaded = load(into);
  if (loaded.job === null) return stopped(loaded.findings, asked, output);
  const sheet = withPart(loaded.job.sheet, name, part);
  const applied = applyEdit(loaded.job, { kind: 'write-sheet', text: sheet });
  if (!applied.ok) return stopped(applied.findings, asked, output);
  if (target !== undefined) writeWhole(target, target.endsWith('.sheet') ? sheet : writeJobFile(applied.job));
  if (options.json) output.out(json({ part, sheet, findings: [] }));
  else if (target === undefined) output.out(sheet);
  return 0;
}
