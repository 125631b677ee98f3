import { cellAt, finding, inputAt, isError, MAX_TABLE_INPUTS, tableOf } from '@saddlebag/core';
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
      const { behaviour } = design;
      if (!behaviour || findings.some(isError)) return stopped(findings, options, output, sheet);
      const { inputs } = behaviour;
      if (behaviour.stored.length > 0) {
        const stores = finding('sheet/no-table', [], { names: behaviour.stored.map((s) => s.name).join(', ') });
        return stopped([...findings, stores], options, output, sheet);
      }
      if (inputs.length > MAX_TABLE_INPUTS) {
        const facts = { inputs: inputs.length, rows: 2 ** inputs.length, limit: MAX_TABLE_INPUTS };
        return stopped([...findings, finding('sheet/too-wide-for-table', [], facts)], options, output, sheet);
      }
      const outputs = behaviour.outputs.map((o) => o.name);
      const values = tableOf(behaviour);
      const row = (r: number) => ({
        inputs: inputs.map((_, i) => inputAt(inputs.length, i, r)),
        outputs: outputs.map((_, o) => shown(cellAt(values, o, r))),
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

/** A cell as JSON has it: a number where it is a value, its mark otherwise. */
function shown(cell: string): number | string {
  return cell === '0' || cell === '1' ? Number(cell) : cell;
}
