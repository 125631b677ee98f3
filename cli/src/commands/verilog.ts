import { chipLibrary, isError, toVerilog } from '@saddlebag/core';
import { writeWhole } from '../files';
import { type CliCommand, json, plainFinding } from '../output';
import { stopped, withJob } from './shared';

/** Prints the design as structural Verilog. */
export const verilog: CliCommand = {
  name: 'verilog',
  describe: 'print the design as structural Verilog (IEEE 1364)',
  writes: { what: 'the Verilog', endings: ['.v'] },
  act: (file, options, output) =>
    withJob(file, options, output, ({ name, sheet }, reading) => {
      const { findings } = reading;
      const text = toVerilog(reading, name.replace(/\W+/g, '_') || 'top', chipLibrary);
      if (text === null || findings.some(isError)) return stopped(findings, options, output, sheet);
      if (options.to !== undefined) writeWhole(options.to, text);
      if (options.json) output.out(json({ verilog: text, findings: findings.map(plainFinding) }));
      else if (options.to === undefined) output.out(text);
      return 0;
    }),
};
