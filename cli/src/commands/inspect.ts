import { inspectJob, isError } from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, codeFor, json, many, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Inspects the board of a job; a sheet is laid out first. */
export const inspectBoard: CliCommand = {
  name: 'inspect',
  describe: 'inspect supply, ground, wiring, inputs, LEDs and switches',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, packing, findings } = await prepare(given, { layOut: 'if-bare' });
      if (findings.some(isError)) return stopped(findings, options, output, job.sheet);
      const found = inspectJob(job, packing);
      const all = [...found, ...findings];
      if (options.json) output.out(json({ findings: all.map(plainFinding) }));
      else if (all.length === 0) output.out('No problems found.\n');
      else tellFindings(all, output, job.sheet);
      const unsaid = job.silenced?.length ?? 0;
      if (!options.json && unsaid > 0) output.out(`${many(unsaid, 'finding')} silenced in this job.\n`);
      return codeFor(all, 'warning');
    }),
};
