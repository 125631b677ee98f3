import { hertzWords, rhythmOf, spreadOf, timersOf, timeWords } from '@saddlebag/core';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { withJob } from './shared';

/** Tells what the timers, one-shots and Schmitt oscillators of a board come to. */
export const timers: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('timers')
      .description(
        'work out what timers, one-shots and Schmitt oscillators of a board come to, from the parts at their pins',
      )
      .argument('<FILE>')
      .action(async (file: string, options: { readonly json?: boolean }) => {
        done(await act(file, options.json === true, output));
      }),
};

function act(file: string, asJson: boolean, output: Output): Promise<number> {
  return withJob(file, { json: asJson }, output, (job, { findings }) => {
    const list = timersOf(job.board).map((timer) => {
      const { pin, kind, resistors, capacitor, law, values } = timer;
      return { pin, kind, resistors, capacitor, ...rhythmOf(law, values), spread: spreadOf(timer, job.board) };
    });
    if (asJson) output.out(json({ timers: list, findings: findings.map(plainFinding) }));
    else {
      for (const { pin, resistors, capacitor, highS, lowS, spread } of list) {
        const [least, most] = spread.map((r) => r.highS + (r.lowS ?? 0)) as [number, number];
        const words =
          lowS === null
            ? `a pulse of ${timeWords(highS * 1e9)} (${timeWords(least * 1e9)} to ${timeWords(most * 1e9)})`
            : `${hertzWords(1 / (highS + lowS))} (${hertzWords(1 / most)} to ${hertzWords(1 / least)}), high ${((100 * highS) / (highS + lowS)).toFixed(0)} %`;
        output.out(`${pin}: ${words}, by ${[...resistors, capacitor].join(' ')}\n`);
      }
      output.out(`${many(list.length, 'timer')}.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}
