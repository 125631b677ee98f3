import { clocksOf, finding, isError, stateTable } from '@saddlebag/core';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface StatesOptions {
  readonly clock?: string;
  readonly json?: boolean;
}

/** Lists the states of a clocked design, and what follows each. */
export const states: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('states')
      .description('list the states that a clocked design reaches from all zeros, and what follows each')
      .argument('<FILE>')
      .option('--clock <NAME>', 'the input that clocks it; the likeliest when none is named')
      .action(async (file: string, options: StatesOptions) => {
        done(await act(file, options, output));
      }),
};

function act(file: string, options: StatesOptions, output: Output): Promise<number> {
  const plain = { json: options.json === true };
  return withJob(file, plain, output, ({ sheet }, { design, findings }) => {
    const { behaviour } = design;
    if (!behaviour || findings.some(isError)) return stopped(findings, plain, output, sheet);
    const clocks = clocksOf(behaviour);
    const clock = options.clock ?? clocks[0];
    if (clock === undefined || !clocks.includes(clock)) {
      const isNone = clock === undefined || clocks.length === 0;
      const wrong = isNone
        ? finding('sheet/clocks-none', [], {})
        : finding('sheet/no-clock', [], { name: clock, clocks: clocks.join(', ') });
      return stopped([...findings, wrong], plain, output, sheet);
    }
    const table = stateTable(behaviour, clock);
    if (plain.json) output.out(json({ ...table, findings: findings.map(plainFinding) }));
    else {
      const { stored, inputs, outputs, transitions, whole, edge } = table;
      output.out(
        `${[stored, inputs, outputs].map((names) => names.join(' ')).join(' | ')} | at the ${edge} of ${clock}\n`,
      );
      for (const t of transitions) {
        const passing = t.passing.length > 0 ? `  passing ${t.passing.join(', ')}` : '';
        output.out(`${t.from} | ${t.inputs} | ${t.outputs} | ${t.to}${passing}\n`);
      }
      output.out(
        `${many(new Set(transitions.map((t) => t.from)).size, 'state')}${whole ? '' : ', and more that are not listed'}.\n`,
      );
      tellFindings(findings, output, sheet);
    }
    return codeFor(findings);
  });
}
