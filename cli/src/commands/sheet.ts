import { formatted } from '@saddlebag/core';
import { writeWhole } from '../files';
import { type CliCommand, codeFor, json, plainFinding, tellFindings } from '../output';
import { withJob } from './shared';

/** Prints the sheet of a job, of Verilog or of a table, set neatly. */
export const sheet: CliCommand = {
  name: 'sheet',
  describe: 'print the sheet, set neatly; also of Verilog (.v) and tables (.csv)',
  writes: { what: 'the sheet', endings: ['.sheet'] },
  act: (file, options, output) =>
    withJob(file, options, output, ({ sheet: text }, { findings }) => {
      const neat = formatted(text);
      if (options.to !== undefined) writeWhole(options.to, neat);
      if (options.json) output.out(json({ sheet: neat, findings: findings.map(plainFinding) }));
      else {
        if (options.to === undefined) output.out(neat.endsWith('\n') ? neat : `${neat}\n`);
        tellFindings(findings, output, text);
      }
      return codeFor(findings);
    }),
};
