import { buildCard, HOW_TO_READ, isError, shownWord } from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, codeFor, json, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Prints the build card: stages, parts list and pin list. */
export const card: CliCommand = {
  name: 'card',
  describe: 'print the build card: stages in order, parts list, pin list',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, reading, packing, findings } = await prepare(given, { layOut: 'if-bare' });
      const { netlist } = reading.design;
      if (!netlist || !packing || findings.some(isError)) return stopped(findings, options, output, job.sheet);
      const made = buildCard(job.board, packing, netlist, reading.design.behaviour);
      if (options.json) {
        output.out(json({ name: job.name, ...made }));
        return codeFor(findings);
      }
      output.out(`${job.name}: build card\n\n${HOW_TO_READ}\n\nParts\n`);
      for (const { count, what, refs, beside } of made.parts)
        output.out(`${String(count).padStart(4)}  ${what}  ${beside ?? refs.join(' ')}\n`);
      made.stages.forEach((stage, i) => {
        output.out(`\n${i + 1}. ${stage.title}\n`);
        for (const ref of stage.parts) {
          output.out(`   [ ] ${ref} ${made.lines[ref]}\n`);
        }
        for (const id of stage.jumpers) {
          output.out(`   [ ] ${id} ${made.lines[id]}\n`);
        }
        output.out(`   test: ${stage.test}\n`);
        if (stage.trial?.high) output.out(`         high with ${stage.trial.high}\n`);
        if (stage.trial?.low) output.out(`         low with ${stage.trial.low}\n`);
      });
      output.out('\nPins\n');
      for (const { ref, part, title, pins } of made.pins) {
        output.out(`${ref} ${part}, ${title}\n`);
        for (const { id, name, carries } of pins) output.out(`${id.padStart(5)} ${name.padEnd(4)} ${carries}\n`);
      }
      if (made.tour) {
        const { inputs, outputs, toStart, steps, more } = made.tour;
        output.out(`\nTour of the states\n`);
        output.out(
          toStart
            ? `   to begin with: ${toStart.join(', ') || 'nothing'}\n`
            : '   begin with all that is stored cleared\n',
        );
        for (const { press, inputs: at, wanted } of steps)
          output.out(
            `   [ ] ${inputs.join(' ')} = ${at}, press ${press.padEnd(6)} ${outputs.join(' ')} = ${shownWord(wanted)}\n`,
          );
        if (more > 0) output.out(`   and ${more} more presses: saddlebag tour FILE --presses\n`);
      }
      tellFindings(findings, output, job.sheet);
      return codeFor(findings);
    }),
};
