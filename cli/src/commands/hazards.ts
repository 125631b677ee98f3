import { currentPacking, finding, hazardsOf, isError, targetWords } from '@saddlebag/core';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Lists the hazards of a design. */
export const hazards: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('hazards')
      .description(
        'list pulses that outputs, clocks and clears may give where one input changes, with what removes them',
      )
      .argument('<FILE>')
      .action(async (file: string, options: { readonly json?: boolean }) => {
        done(await act(file, options.json === true, output));
      }),
};

function act(file: string, asJson: boolean, output: Output): Promise<number> {
  return withJob(file, { json: asJson }, output, (job, { design, findings }) => {
    const found = hazardsOf(design, job.family, currentPacking(job, design.netlist, null));
    if (!found || findings.some(isError)) return stopped(findings, { json: asJson }, output, job.sheet);
    const all = found.isWhole
      ? findings
      : [...findings, finding('hazard-too-wide', [], { sources: found.sources.length })];
    const list = found.hazards.map(({ kind, input, row, count, widthNs, remedy, ...at }) => ({
      where: at.output ?? (at.target ? targetWords(at.target) : at.net),
      steers: at.target !== null,
      kind,
      input,
      from: row.toString(2).padStart(found.sources.length, '0'),
      rows: count,
      widthNs,
      remedy,
    }));
    if (asJson) output.out(json({ sources: found.sources, hazards: list, findings: all.map(plainFinding) }));
    else {
      for (const { where, kind, input, from, rows, widthNs, remedy } of list)
        output.out(
          `${where}: ${kind} when ${input} changes, from ${found.sources.join(' ')} = ${from}${rows > 1 ? ` and ${rows - 1} more` : ''}; up to ${widthNs.toFixed(0)} ns${remedy === null ? '' : `; add ${remedy}`}\n`,
        );
      output.out(`${many(list.length, 'hazard')}.\n`);
      tellFindings(all, output, job.sheet);
    }
    return list.length > 0 ? 1 : codeFor(all);
  });
}
