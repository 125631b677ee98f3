import { layoutBoardKindOf, nextStepOf, remedy, says } from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, json, plainFinding } from '../output';
import { stopped, withJob } from './shared';

/** Says what to lay next on the job's board as it stands. Exit code 1 while a wrong signal stands in the way. */
export const guide: CliCommand = {
  name: 'guide',
  describe: 'say what to seat or lay next on the board as it stands, and what to try of what was finished last',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, reading, packing, findings } = await prepare(given, { layOut: 'never' });
      const { netlist } = reading.design;
      if (!netlist || !packing) return stopped(findings, options, output, job.sheet);
      const next = nextStepOf(job.board, packing, netlist, layoutBoardKindOf(job));
      if (options.json) output.out(json({ ...next, stopped: next.stopped && plainFinding(next.stopped) }));
      else {
        output.out(`${next.done} of ${next.total}: ${next.stage}\n`);
        if (next.step) output.out(`${next.step.says}\n`);
        if (next.tested) output.out(`just finished: ${next.tested.title}\n`);
        const { trial } = next.tested ?? {};
        if (trial?.high) output.out(`  ${trial.pin} is high with ${trial.high}\n`);
        if (trial?.low) output.out(`  ${trial.pin} is low with ${trial.low}\n`);
        if (next.stopped) output.err(`error: ${says(next.stopped)} ${remedy(next.stopped)}\n`);
      }
      return next.stopped ? 1 : 0;
    }),
};
