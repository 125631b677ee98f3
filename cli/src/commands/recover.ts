import { readBack, readDesign } from '@saddlebag/core';
import { writeWhole } from '../files';
import { type CliCommand, codeFor, json, plainFinding, tellFindings } from '../output';
import { withJob } from './shared';

/** Reads the design back from a board's wiring alone; the job's sheet is not looked at. */
export const recoverSheet: CliCommand = {
  name: 'recover',
  describe: 'read the design back from the wiring of a board, as a sheet',
  writes: { what: 'the sheet', endings: ['.sheet'] },
  act: (file, options, output) =>
    withJob(file, options, output, (job) => {
      const { sheet, findings } = readBack(job.board);
      // A loop of gates, for one, is no sheet: what reading it says is said too.
      const all = [...findings, ...readDesign(sheet).findings.map((f) => ({ ...f, places: [] }))];
      if (options.to !== undefined) writeWhole(options.to, sheet);
      if (options.json) output.out(json({ sheet, findings: all.map(plainFinding) }));
      else {
        if (options.to === undefined) output.out(sheet);
        tellFindings(all, output, sheet);
      }
      return codeFor(all, 'warning');
    }),
};
