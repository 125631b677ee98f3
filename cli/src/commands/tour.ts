import { finding, isBare, isError, type Start, shownWord, tourBoard } from '@saddlebag/core';
import { prepare } from '../load';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface TourCommandOptions {
  readonly json?: boolean;
  readonly presses?: boolean;
}

/** Goes through every state of a clocked design on its board. */
export const tour: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('tour')
      .description(
        'power the board up and go through every state of a clocked design, with every input, as the LEDs show it',
      )
      .argument('<FILE>')
      .option('--presses', 'list every press of the tour, with what must be seen after it')
      .action(async (file: string, options: TourCommandOptions) => {
        done(await act(file, options, output));
      }),
};

function act(file: string, options: TourCommandOptions, output: Output): Promise<number> {
  const asJson = { json: options.json === true };
  return withJob(file, asJson, output, async (given) => {
    const { job, reading, findings } = await prepare(given, { layOut: 'if-bare' });
    const { behaviour } = reading.design;
    if (findings.some(isError) || isBare(job.board) || !behaviour) return stopped(findings, asJson, output, job.sheet);
    if (behaviour.stored.length === 0)
      return stopped([...findings, finding('tour-stores-nothing', [], {})], asJson, output, job.sheet);
    const {
      steps,
      first,
      inputs,
      stored,
      outputs,
      transitions,
      covered,
      differing,
      starts,
      findings: more,
    } = tourBoard(job.board, behaviour);
    const all = [...findings, ...more];
    const shown = first && {
      presses: first.presses,
      inputs: Object.fromEntries(inputs.map((name, i) => [name, Number(first.inputs[i])])),
      state: first.stored,
      wanted: shownWord(first.wanted),
      seen: shownWord(first.seen),
      start: saysStart(first.start),
    };
    const listed = options.presses
      ? { presses: steps.map(({ press, wanted }) => ({ press, wanted: shownWord(wanted) })) }
      : {};
    if (asJson.json) {
      const counts = { transitions, covered, differing, starts, first: shown };
      output.out(json({ inputs, stored, outputs, ...counts, ...listed, findings: all.map(plainFinding) }));
    } else {
      if (options.presses)
        for (const { press, inputs: at, stored: state, wanted } of steps)
          output.out(`${at} ${state}  press ${press.padEnd(8)} ${outputs.join(' ')} = ${shownWord(wanted)}\n`);
      output.out(
        `${covered} of ${many(transitions, 'transition')} seen in ${steps.length} ${steps.length === 1 ? 'press' : 'presses'}, ${differing} differing.\n`,
      );
      if (shown)
        output.out(
          `First: ${typeof first?.start === 'object' ? `started ${shown.start}, ` : ''}with ${stored.join(' ')} at ${shown.state}, after ${shown.presses.join(', ') || 'no press'}: ${outputs.join(' ')} should be ${shown.wanted}, seen ${shown.seen}.\n`,
        );
      tellFindings(all, output, job.sheet);
    }
    return differing > 0 ? 1 : codeFor(all);
  });
}

/** A start as `--start` takes it. */
const saysStart = (start: Start): string => (typeof start === 'object' ? `chance:${start.chance}` : start);
