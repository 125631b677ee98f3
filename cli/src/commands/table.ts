import { compile, finding, inputAt, isError, MAX_TABLE_INPUTS, networkOf, sweep, valueAt } from '@saddlebag/core';
import { type CliCommand, codeFor, json, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Rows written at once, so that a long table does not have to fit into one string. */
const CHUNK = 4096;

/** Lists the truth table of the design. */
export const table: CliCommand = {
  name: 'table',
  describe: 'list the truth table of the design',
  act: (file, options, output) =>
    withJob(file, options, output, ({ sheet }, { design, findings }) => {
      const { netlist } = design;
      if (!netlist || findings.some(isError)) return stopped(findings, options, output, sheet);
      const { inputs } = netlist;
      if (inputs.length > MAX_TABLE_INPUTS) {
        const facts = { inputs: inputs.length, rows: 2 ** inputs.length, limit: MAX_TABLE_INPUTS };
        return stopped([...findings, finding('sheet/too-wide-for-table', [], facts)], options, output, sheet);
      }
      const outputs = netlist.outputs.map((o) => o.name);
      const values = sweep(compile(networkOf(netlist)));
      const row = (r: number) => ({
        inputs: inputs.map((_, i) => inputAt(inputs.length, i, r)),
        outputs: outputs.map((_, o) => valueAt(values, o, r)),
      });
      if (options.json) {
        const rows = Array.from({ length: values.rows }, (_, r) => row(r));
        output.out(json({ inputs, outputs, rows, findings: findings.map(plainFinding) }));
        return codeFor(findings, 'warning');
      }
      const pad = (cells: readonly (string | number)[], names: readonly string[]): string =>
        cells.map((cell, i) => String(cell).padStart((names[i] ?? '').length)).join(' ');
      output.out(`${pad(inputs, inputs)} | ${pad(outputs, outputs)}\n`);
      for (let from = 0; from < values.rows; from += CHUNK) {
        const lines = Array.from({ length: Math.min(CHUNK, values.rows - from) }, (_, i) => {
          const cells = row(from + i);
          return `${pad(cells.inputs, inputs)} | ${pad(cells.outputs, outputs)}\n`;
        });
        output.out(lines.join(''));
      }
      tellFindings(findings, output, sheet);
      return codeFor(findings, 'warning');
    }),
};
