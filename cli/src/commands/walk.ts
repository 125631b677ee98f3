import {
  agrees,
  checkWalk,
  extractNets,
  inputAt,
  isError,
  restless,
  tableOf,
  UNKNOWN,
  type WalkedRow,
  walkTable,
  wantedAt,
} from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, json, many, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Powers the board up, sets every row on the switches and reads the LEDs. */
export const walk: CliCommand = {
  name: 'walk',
  describe: 'power the board up and walk the table: every row, as the LEDs show it',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, reading, findings } = await prepare(given, { layOut: 'if-bare' });
      const { netlist, behaviour } = reading.design;
      const tooWide = checkWalk(netlist?.inputs.length ?? 0);
      if (!netlist || !behaviour || findings.some(isError) || tooWide.length > 0)
        return stopped([...findings, ...tooWide], options, output, job.sheet);
      const { inputs } = netlist;
      const outputs = netlist.outputs.map((o) => o.name);
      const wanted = tableOf(behaviour);
      const rows = [...walkTable(job.board, extractNets(job.board), inputs, outputs)].map((walked) => {
        const want = outputs.map((_, o) => wantedAt(wanted, o, walked.row));
        return { ...walked, wanted: want, agrees: agrees(walked.seen, want) };
      });
      const all = rows.every((r) => r.settled) ? findings : [...findings, restless()];
      const differing = rows.filter((r) => !r.agrees).length;
      const show = ({ seen }: WalkedRow): (number | string)[] => seen.map((s) => (s === UNKNOWN ? '?' : s));
      const switches = (r: WalkedRow): number[] => inputs.map((_, i) => inputAt(inputs.length, i, r.row));
      if (options.json) {
        const list = rows.map((r) => ({
          row: r.row,
          switches: switches(r),
          seen: show(r),
          wanted: r.wanted,
          agrees: r.agrees,
        }));
        output.out(json({ inputs, outputs, rows: list, differing, findings: all.map(plainFinding) }));
      } else {
        output.out(`${inputs.join(' ')} | ${outputs.map((o) => `${o} seen/wanted`).join(' ')}\n`);
        for (const r of rows) {
          const cells = show(r).map((s, o) => `${s}/${r.wanted[o] ?? '-'}`);
          output.out(`${switches(r).join(' ')} | ${cells.join(' ')}  ${r.agrees ? 'agrees' : 'differs'}\n`);
        }
        output.out(
          differing === 0
            ? `All ${many(rows.length, 'row')} agree.\n`
            : `${differing} of ${rows.length} rows differ.\n`,
        );
        tellFindings(all, output, job.sheet);
      }
      return differing === 0 ? 0 : 1;
    }),
};
