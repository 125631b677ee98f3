import {
  applyEdit,
  type FoundTimer,
  fastSwitch,
  hertzWords,
  type Job,
  type Rhythm,
  rhythmOf,
  rhythmSwitched,
  spreadOf,
  timersOf,
  timeWords,
  writeJobFile,
} from '@saddlebag/core';
import { checkTarget, WrongUse, writeWhole } from '../files';
import { codeFor, json, many, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface TimerOptions {
  readonly json?: boolean;
  readonly fastSwitch?: string;
  readonly output?: string;
}

/** Tells what the timers, one-shots and Schmitt oscillators of a board come to. */
export const timers: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('timers')
      .description(
        'work out what timers, one-shots and Schmitt oscillators of a board come to, from the parts at their pins',
      )
      .argument('<FILE>')
      .option(
        '--fast-switch <PIN>',
        'put a second capacitor behind a switch at the timer with this output, such as U1.3',
      )
      .option('-o, --output <FILE>', 'write the job to a file (.saddlebag.json)')
      .action(async (file: string, options: TimerOptions) => {
        if (options.output !== undefined) checkTarget(options.output, { endings: ['.saddlebag.json'], inputs: [file] });
        done(await act(file, options, output));
      }),
};

/** The job with a fast switch at the timer with an output; findings where it cannot be. */
function withSwitch(job: Job, pin: string) {
  const timer = timersOf(job.board).find((t) => t.pin === pin.toUpperCase());
  if (!timer) throw new WrongUse(`there is no timer at ${pin}`);
  const wired = fastSwitch(job.board, timer);
  return 'finding' in wired ? { ok: false as const, findings: [wired.finding] } : applyEdit(job, wired.edit);
}

function act(file: string, options: TimerOptions, output: Output): Promise<number> {
  const asJson = options.json === true;
  return withJob(file, { json: asJson }, output, (opened, { findings }) => {
    const switched = options.fastSwitch === undefined ? null : withSwitch(opened, options.fastSwitch);
    if (switched && !switched.ok) return stopped(switched.findings, { json: asJson }, output);
    const job = switched?.job ?? opened;
    if (options.output !== undefined) writeWhole(options.output, writeJobFile(job));
    const list = timersOf(job.board).map((timer) => {
      const { pin, kind, resistors, capacitor, switched: beside, law, values } = timer;
      const spread = spreadOf(timer, job.board);
      const closed = rhythmSwitched(timer);
      return { pin, kind, resistors, capacitor, ...rhythmOf(law, values), spread, switched: beside, closed };
    });
    if (asJson) output.out(json({ timers: list, findings: findings.map(plainFinding) }));
    else {
      for (const one of list) output.out(`${lineOf(one)}\n`);
      output.out(`${many(list.length, 'timer')}.\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

type Told = Pick<FoundTimer, 'pin' | 'resistors' | 'capacitor' | 'switched'> &
  Rhythm & { readonly spread: readonly [least: Rhythm, most: Rhythm]; readonly closed: Rhythm | null };

const periodOf = ({ highS, lowS }: Rhythm): number => highS + (lowS ?? 0);

function lineOf({ pin, resistors, capacitor, highS, lowS, spread, switched, closed }: Told): string {
  const [least, most] = [periodOf(spread[0]), periodOf(spread[1])];
  const period = periodOf({ highS, lowS });
  const words =
    lowS === null
      ? `a pulse of ${timeWords(highS * 1e9)} (${timeWords(least * 1e9)} to ${timeWords(most * 1e9)})`
      : `${hertzWords(1 / period)} (${hertzWords(1 / most)} to ${hertzWords(1 / least)}), high ${((100 * highS) / period).toFixed(0)} %`;
  const other = closed && (lowS === null ? timeWords(closed.highS * 1e9) : hertzWords(1 / periodOf(closed)));
  const beside = other ? `; ${other} while ${switched.map((s) => s.by).join(' and ')} is closed` : '';
  return `${pin}: ${words}, by ${[...resistors, capacitor].join(' ')}${beside}`;
}
