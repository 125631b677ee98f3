import { applyEdit, familyIds, swapFamily, writeJobFile } from '@saddlebag/core';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface FamilyOptions {
  readonly json?: boolean;
  readonly output?: string;
}

/** Takes a job to another family of chips. */
export const family: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('family')
      .description(`take a job to another family of chips, by packing and board alike: ${familyIds.join(', ')}`)
      .argument('<FILE>')
      .argument('<FAMILY>')
      .option('-o, --output <FILE>', 'write the job to a file (.saddlebag.json)')
      .action(async (file: string, name: string, options: FamilyOptions) => {
        const wanted = familyIds.find((id) => id === name.toUpperCase());
        if (!wanted) throw new WrongUse(`there is no family ${name}; there are ${familyIds.join(', ')}`);
        if (options.output !== undefined) checkTarget(options.output, { endings: ['.saddlebag.json'], inputs: [file] });
        done(await act(file, wanted, options, output));
      }),
};

function act(
  file: string,
  wanted: (typeof familyIds)[number],
  options: FamilyOptions,
  output: Output,
): Promise<number> {
  return withJob(file, { json: options.json === true }, output, (job) => {
    const { edit, changed, findings } = swapFamily(job, wanted);
    const applied = applyEdit(job, edit);
    if (!applied.ok) return stopped(applied.findings, { json: options.json === true }, output);
    if (options.output !== undefined) writeWhole(options.output, writeJobFile(applied.job));
    if (options.json) output.out(json({ family: wanted, changed, findings: findings.map(plainFinding) }));
    else {
      for (const { ref, from, to } of changed) output.out(`${ref}: ${from} becomes ${to}\n`);
      output.out(`${many(changed.length, 'chip')} changed on the board.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}
