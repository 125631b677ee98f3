import { differences } from '@saddlebag/core';
import { load } from '../load';
import { json, many, type Output, type OwnCommand } from '../output';
import { stopped } from './shared';

/** Tells what differs between two versions of a job. */
export const diff: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('diff')
      .description(
        'tell what differs from one version of a job to another: sheet, chips, parts, jumpers; exit code 1 where anything does',
      )
      .argument('<BEFORE>')
      .argument('<AFTER>')
      .action((before: string, after: string, options: { json?: boolean }) =>
        done(act([before, after], { json: options.json === true }, output)),
      ),
};

function act(files: readonly [string, string], options: { readonly json: boolean }, output: Output): number {
  const [before, after] = [load(files[0]), load(files[1])];
  if (before.job === null) return stopped(before.findings, options, output);
  if (after.job === null) return stopped(after.findings, options, output);
  const found = differences(before.job, after.job);
  const { lines, things } = found;
  if (options.json) output.out(json({ ...found, findings: [] }));
  else {
    for (const { kind, line, text } of lines)
      output.out(`${kind === 'added' ? '+' : '-'} ${String(line).padStart(4)} ${text}\n`);
    for (const { about, says } of things) output.out(`${about}: ${says}\n`);
    output.out(`${many(lines.length, 'line')} of the sheet and ${many(things.length, 'thing')} besides differ.\n`);
  }
  return lines.length + things.length > 0 ? 1 : 0;
}
